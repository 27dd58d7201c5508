import type { Page } from '@playwright/test';
import { FONTS, type Scene } from '@wexikine/core';
import { buildSync } from 'esbuild';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';

const ENTRY = `
  import { compileScene, frameAt, frameTicks, ticksFromSeconds } from '@wexikine/core';
  import { drawingLayers, readDrawing, wholeAt } from '@wexikine/core/drawing';
  import { createPainter, createSurfaces, measureWords, paintBackground } from '@wexikine/paint';
  const surfaces = createSurfaces();
  const painter = createPainter(surfaces);
  globalThis.paintScene = async (scene, seconds) => {
    document.body.style.margin = '0';
    document.body.replaceChildren();
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [scene.width, scene.height];
    canvas.style.display = 'block';
    document.body.append(canvas);
    const context = canvas.getContext('2d');
    const compiled = compileScene(scene);
    const paint = () => {
      context.setTransform(1, 0, 0, 1, 0, 0);
      context.fillStyle = '#000';
      context.fillRect(0, 0, canvas.width, canvas.height);
      paintBackground(context, scene, { scale: 1, x: 0, y: 0 });
      painter.paint(context, { compiled, frame: frameAt(compiled, ticksFromSeconds(seconds)), shutter: { at: ticksFromSeconds(seconds), step: frameTicks(scene.rate) } }, { scale: 1, x: 0, y: 0 });
    };
    await document.fonts.ready;
    paint();
    const masks = scene.layers.flatMap(({ look }) => look.masks ?? []);
    const pictures = [...scene.layers.map(({ source }) => source), ...masks.map(({ picture }) => picture)].flatMap((one) => (one?.href === undefined ? [] : [one.href]));
    const isLoading = () => pictures.some((href) => surfaces.picture(href, 1) === null);
    for (let i = 0; i < 40 && isLoading(); i++) await new Promise((done) => setTimeout(done, 50));
    paint();
  };
  /** How far two painters are apart at most, 0 to 255: one that has drawn all of the times, and one new at each of them. */
  globalThis.keptAndNew = (scene, times) => {
    const canvasFor = () => {
      const canvas = document.createElement('canvas');
      [canvas.width, canvas.height] = [scene.width, scene.height];
      return canvas.getContext('2d', { willReadFrequently: true });
    };
    const draw = (with_, context, seconds) => {
      const { width, height } = context.canvas;
      const at = ticksFromSeconds(seconds);
      context.clearRect(0, 0, width, height);
      with_.paint(context, { compiled, frame: frameAt(compiled, at) }, { scale: 1, x: 0, y: 0 });
      return context.getImageData(0, 0, width, height).data;
    };
    const [compiled, one, own] = [compileScene(scene), createPainter(surfaces), canvasFor()];
    let most = 0;
    for (const seconds of times) {
      const [a, b] = [draw(one, own, seconds), draw(createPainter(createSurfaces()), canvasFor(), seconds)];
      // Colour counts as much as it covers.
      for (let i = 0; i < a.length; i++) most = Math.max(most, Math.abs(a[i] - b[i]) * (i % 4 === 3 ? 1 : a[i | 3] / 255));
    }
    return most;
  };
  globalThis.layersOfDrawing = async (text, place, level) => {
    const read = readDrawing(text);
    if (!read.ok) throw new Error(read.message);
    const { drawing } = read;
    await globalThis.outlines?.openFaces(drawing.faces);
    const context = new OffscreenCanvas(1, 1).getContext('2d');
    const scale = Math.min(place.width / drawing.width, place.height / drawing.height);
    let made = 0;
    const options = { whole: wholeAt(drawing, level), name: 'Drawing', at: { x: place.width / 2, y: place.height / 2 }, scale, length: 705_600_000, newId: () => 'd' + ++made, measure: (source, spacing) => measureWords(context, source, spacing), outline: globalThis.outlines?.outlineLine };
    return { layers: drawingLayers(drawing, options).layers, width: drawing.width * scale, height: drawing.height * scale };
  };`;

/** The application's fonts as CSS, embedded. */
export function fontFaces(): string {
  return FONTS.map((font) => {
    const file = join(import.meta.dirname, `../../cli/dist/fonts/${font.toLowerCase().replace(/ /g, '-')}.woff2`);
    const data = readFileSync(file).toString('base64');
    return `@font-face { font-family: '${font}'; font-weight: 200 900; src: url(data:font/woff2;base64,${data}) }\n`;
  }).join('');
}

/** What outlines words in fonts that a drawing carries: large, and needed where drawings are read. */
const OUTLINES = `
  import * as outlines from '../web/src/app/scene/artwork/outlines';
  globalThis.outlines = outlines;`;

/** The painter as a script for a page. */
export function painterScript(): string {
  return bundled(ENTRY);
}

/** What outlines the words of drawings as a script for a page. */
export function outlinesScript(): string {
  return bundled(OUTLINES);
}

const built = new Map<string, string>();

function bundled(contents: string): string {
  const before = built.get(contents);
  if (before !== undefined) return before;
  const { outputFiles } = buildSync({
    stdin: { contents, resolveDir: join(import.meta.dirname, '..'), loader: 'ts' },
    bundle: true,
    write: false,
    minify: true,
    format: 'iife',
    tsconfig: join(import.meta.dirname, '../../tsconfig.base.json'),
    logLevel: 'error',
  });
  built.set(contents, outputFiles[0].text);
  return outputFiles[0].text;
}

/** How far two pictures of one size are apart. */
export interface Apart {
  /** Mean difference of a colour part, 0 to 255. */
  readonly mean: number;
  /** Share of pixels that differ visibly once both are softened by a pixel, so that edges may be smoothed in two ways. */
  readonly share: number;
}

/**
 * Compares two screenshots in the browser, or one with what was painted last: of so many bands of one height, one below the
 * other, what the worst is apart.
 */
export async function compare(page: Page, a: Buffer, b: Buffer | 'painted', bands = 1): Promise<Apart> {
  return page.evaluate(
    async ([first, second, count]) => {
      const pictureOf = async (base64: string): Promise<ImageBitmap> => {
        const bytes = Uint8Array.from(atob(base64), (sign) => sign.charCodeAt(0));
        return createImageBitmap(new Blob([bytes], { type: 'image/png' }));
      };
      const read = async (base64: string | null): Promise<ImageData> => {
        const painted = document.querySelector('canvas');
        const bitmap = base64 === null && painted ? painted : await pictureOf(base64 ?? '');
        const context = new OffscreenCanvas(bitmap.width, bitmap.height).getContext(
          '2d',
        ) as OffscreenCanvasRenderingContext2D;
        context.filter = 'blur(1.2px)';
        context.drawImage(bitmap, 0, 0);
        return context.getImageData(0, 0, bitmap.width, bitmap.height);
      };
      const [x, y] = [await read(first), await read(second)];
      const length = x.data.length / count;
      const worst = { mean: 0, share: 0 };
      for (let band = 0; band < count; band++) {
        let [sum, apart] = [0, 0];
        for (let i = band * length; i < (band + 1) * length; i += 4) {
          const red = Math.abs(x.data[i] - y.data[i]);
          const green = Math.abs(x.data[i + 1] - y.data[i + 1]);
          const blue = Math.abs(x.data[i + 2] - y.data[i + 2]);
          sum += red + green + blue;
          if (red > 28 || green > 28 || blue > 28) apart++;
        }
        worst.mean = Math.max(worst.mean, sum / (length / 4) / 3);
        worst.share = Math.max(worst.share, apart / (length / 4));
      }
      return worst;
    },
    [a.toString('base64'), b === 'painted' ? null : b.toString('base64'), bands] as const,
  );
}

/** Draws a scene with the painter. */
export async function paint(page: Page, scene: Scene, seconds: number): Promise<void> {
  await page.evaluate(
    ([given, at]) =>
      (globalThis as unknown as { paintScene: (s: Scene, t: number) => Promise<void> }).paintScene(given, at),
    [scene, seconds] as const,
  );
}

/** Screenshot of a scene as the painter draws it. */
export async function paintedAt(page: Page, scene: Scene, seconds: number): Promise<Buffer> {
  await paint(page, scene, seconds);
  return page.screenshot();
}

/** Screenshot of an exported page that is open, at a time. */
export async function pageAt(page: Page, seconds: number): Promise<Buffer> {
  await page.evaluate(
    (at) => (globalThis as unknown as { wexikine: { show: (ms: number) => void } }).wexikine.show(at * 1000),
    seconds,
  );
  return page.screenshot();
}

/** From where to where a screenshot is not black across, px. */
export async function inkAcross(page: Page, shot: Buffer): Promise<{ readonly left: number; readonly right: number }> {
  return page.evaluate(async (base64) => {
    const bytes = Uint8Array.from(atob(base64), (sign) => sign.charCodeAt(0));
    const bitmap = await createImageBitmap(new Blob([bytes], { type: 'image/png' }));
    const context = new OffscreenCanvas(bitmap.width, bitmap.height).getContext('2d');
    if (!context) throw new Error('no canvas');
    context.drawImage(bitmap, 0, 0);
    const { data } = context.getImageData(0, 0, bitmap.width, bitmap.height);
    let [left, right] = [bitmap.width, -1];
    for (let i = 0; i < data.length; i += 4) {
      if (data[i] + data[i + 1] + data[i + 2] < 200) continue;
      const x = (i / 4) % bitmap.width;
      left = Math.min(left, x);
      right = Math.max(right, x);
    }
    return { left, right };
  }, shot.toString('base64'));
}

/** How far a painter that has drawn a scene at all of these times in seconds is from one that is new at each of them. */
export async function keptAndNew(page: Page, scene: Scene, times: readonly number[]): Promise<number> {
  return page.evaluate(
    ([given, all]) =>
      (globalThis as unknown as { keptAndNew: (s: Scene, t: readonly number[]) => number }).keptAndNew(given, all),
    [scene, times] as const,
  );
}
