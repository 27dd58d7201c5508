import { expect, type Page } from '@playwright/test';
import { exportPage, FONTS, programmeBoard, ticksFromSeconds, type Key, type Scene } from '@wexikine/core';
import { windowBeside } from './test';
import { compare, fontFaces, pageAt, paint, painterScript } from './painted';

/** An empty scene of two seconds, 640 by 400 px, which layers are put into to be drawn. */
export const SMALL: Scene = {
  ...programmeBoard(),
  width: 640,
  height: 400,
  length: ticksFromSeconds(2),
  layers: [],
  runs: [],
};
/** As long as it lasts. */
export const WHOLE = { in: 0, out: SMALL.length };

/** A key on it that leaves gently and arrives more so. */
export function key(seconds: number, value: number): Key {
  return { at: ticksFromSeconds(seconds), value, ease: { type: 'bezier', x1: 0.3, y1: 0, x2: 0.2, y2: 1 } };
}

let known: string | null = null;

/** The application's fonts as CSS, read once. */
function faces(): string {
  known ??= fontFaces();
  return known;
}

/** Pixels that may differ, as letters are smoothed in two ways, and the mean difference of a colour part. */
const MOST_APART = 0.007;
const MOST_MEAN = 1.2;

/** A page that draws with the painter, beside the one that shows what is exported. */
export async function openPainter(page: Page): Promise<Page> {
  const painter = await windowBeside(page);
  const fonts = FONTS.map((font) => `<b style="font-family:'${font}'">a</b>`).join('');
  await painter.setContent(`<style>${faces()}</style>${fonts}`);
  await painter.evaluate(() => document.fonts.ready);
  await painter.addScriptTag({ content: painterScript() });
  return painter;
}

/**
 * Expects a scene to look the same on its exported page and as it is painted, at some times in seconds; each of so many
 * bands, one below the other.
 */
export async function expectSame(
  page: Page,
  painter: Page,
  scene: Scene,
  times: readonly number[],
  about: string,
  bands = 1,
): Promise<void> {
  for (const one of [page, painter]) await one.setViewportSize({ width: scene.width, height: scene.height });
  const html = exportPage(scene, { fontFaces: scene.layers.some(({ kind }) => kind === 'word') ? faces() : '' });
  await page.setContent(html.replace('<html lang="en">', '<html lang="en" data-controls="off">'));
  await page.evaluate(() => document.fonts.ready);
  for (const at of times) {
    await paint(painter, scene, at);
    const { mean, share } = await compare(painter, await pageAt(page, at), 'painted', bands);
    const far =
      share > MOST_APART || mean > MOST_MEAN ? `${(share * 100).toFixed(2)} % apart, mean ${mean.toFixed(2)}` : 'alike';
    expect(`${about} at ${at} s: ${far}`).toBe(`${about} at ${at} s: alike`);
  }
}
