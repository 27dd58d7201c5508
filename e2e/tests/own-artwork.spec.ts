import { expect, test } from '../pages/test';
import {
  boundsAt,
  channelOf,
  CHANNEL_COUNT,
  compileScene,
  frameAt,
  frameTicks,
  restValue,
  secondsFromTicks,
  type Layer,
  type Scene,
} from '@wexikine/core';
import { join } from 'node:path';
import { drop } from '../pages/dropping';
import { applied, say } from '../pages/made-scenes';
import { SceneScreen } from '../pages/scene-screen';

const FONT = join(
  import.meta.dirname,
  '../../node_modules/@fontsource-variable/bricolage-grotesque/files/bricolage-grotesque-latin-wght-normal.woff2',
);
const STARS = Array.from({ length: 20 }, (_, i) => `<circle id="Star ${i + 1}" cx="${20 + i * 40}" cy="30" r="8"/>`);
const REEDS = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 800 60" fill="#f4ecdc">${STARS.join('')}</svg>`;
const WORDS = ['one', 'two', 'three', 'four', 'five', 'six'].map((name) => `Tide ${name}`);

/** Middles of boxes of layers in a scene at a time, px. */
function middles({ layers, ...scene }: Scene, at: number): Map<string, readonly [number, number, number]> {
  const compiled = compileScene({ ...scene, layers });
  const frame = frameAt(compiled, at);
  return new Map(
    layers.map(({ id }, index) => {
      const { left, top, right, bottom } = boundsAt(frame, index);
      const opacity = frame.values[index * CHANNEL_COUNT + channelOf('opacity').slot];
      return [id, [(left + right) / 2, (top + bottom) / 2, opacity]];
    }),
  );
}

test('from the empty browser: nine pictures, a drawing and six words become a scene that comes in by two sentences', async ({
  page,
}) => {
  page.setDefaultTimeout(10_000);
  const screen = new SceneScreen(page);
  await page.goto('/scenes');
  await page.getByRole('button', { name: 'New scene' }).click();
  await expect(page.getByRole('textbox', { name: 'Name' })).toBeFocused();
  await page.getByRole('textbox', { name: 'Name' }).fill('Marsh evening');
  await page.getByRole('button', { name: 'Create scene' }).click();
  await expect(page.getByText('This scene has no layers yet')).toBeVisible();
  const id = new URL(page.url()).pathname.split('/').pop() ?? '';

  // Nine pictures and a drawing of twenty parts.
  const pictures = Array.from({ length: 9 }, (_, i) => ({
    name: `Night ${i + 1}.png`,
    width: 300,
    height: 200,
    type: 'image/png',
  }));
  await drop(page, pictures, [{ name: 'Reeds.svg', text: REEDS }]);
  const dialog = page.getByRole('dialog', { name: 'Bring in “Reeds”' });
  await dialog.getByRole('radio', { name: 'Every part' }).check();
  await dialog.getByRole('button', { name: 'Bring in 21 layers' }).click();
  await expect(page.getByText('9 pictures came in; 1 drawing came in.')).toBeVisible({ timeout: 20_000 });

  // Six words in a font of one's own.
  await page.getByRole('button', { name: 'Layers', exact: true }).click();
  await page.getByLabel('Files to bring in').setInputFiles(FONT);
  await expect(page.getByText('The font “Bricolage Grotesque” is at hand for words now.')).toBeVisible();
  await page.getByRole('button', { name: 'Layers', exact: true }).click();
  await page.getByRole('textbox', { name: 'Names, one a line' }).fill(WORDS.join('\n'));
  await page.getByRole('combobox', { name: 'Kind' }).selectOption('words');
  await page.getByRole('button', { name: 'Add 6 layers' }).click();
  const [first, ...others] = WORDS;
  await screen.row(first).click();
  for (const name of others) await screen.row(name).click({ modifiers: ['Control'] });
  await page.getByRole('tab', { name: 'Layer' }).click();
  await page
    .locator('wx-layer-look')
    .getByRole('combobox', { name: 'Font' })
    .selectOption({ label: 'Bricolage Grotesque (own)' });

  // Arranged by a sentence: one below the other, edge to edge.
  const pick = async (named: string, count: number): Promise<void> => {
    await screen.field('pick').click();
    await screen.editor.getByRole('combobox', { name: 'Condition' }).selectOption('rule');
    await screen.editor.getByRole('textbox', { name: /^Named/ }).fill(named);
    await screen.closeEditor();
    await expect(screen.status).toContainText(`${count} of `);
  };
  await pick('Tide *', 6);
  await say(screen, 'operation', 'Arrange');
  await screen.field('way').click();
  await screen.editor.getByRole('radio', { name: /^Edge to edge/ }).check();
  await screen.editor.getByRole('combobox', { name: /^Along/ }).selectOption('down');
  await screen.editor.getByRole('textbox', { name: /^Gap/ }).fill('20');
  await screen.closeEditor();
  await applied(screen);
  const isWord = ({ name }: Layer): boolean => WORDS.includes(name);
  const arranged = (await screen.stored(id)).layers.filter(isWord);
  const tops = arranged.map((layer) => restValue(layer, 'position.y')).sort((a, b) => a - b);
  const steps = tops.slice(1).map((top, i) => top - tops[i]);
  for (const step of steps) expect(step).toBeCloseTo(steps[0], 3);
  expect(arranged.every(({ source }) => source.type === 'text' && source.fontFile !== undefined)).toBe(true);

  // One of them is split where it stands.
  await screen.row(arranged[0].name).click();
  await page.getByRole('button', { name: 'More for what is selected' }).click();
  await page.getByRole('menuitem', { name: 'Split the words' }).click();
  await page.getByRole('menuitem', { name: 'Into letters' }).click();
  await expect
    .poll(async () => (await screen.stored(id)).layers.filter(({ parent }) => parent === arranged[0].id).length)
    .toBe(7);

  // All come in by two sentences.
  await say(screen, 'operation', 'Bring in');
  await pick('Night *', 9);
  await screen.planned();
  await applied(screen);
  await pick('Tide *', 6);
  await screen.planned();
  await applied(screen);
  const before = await screen.stored(id);
  expect(before.runs.map(({ recipe }) => recipe.operation)).toEqual(['arrange', 'bring-in', 'bring-in']);
  expect(before.runs.slice(1).map(({ layers }) => layers.length)).toEqual([9, 6]);
  expect(before.layers.length).toBe(9 + 21 + 6 + 7);

  // Reloaded, it is the same, and so is where everything stands on the exported page.
  await page.reload();
  await expect(screen.status).toContainText('as it stands');
  const scene = await screen.stored(id);
  expect(scene).toEqual(before);
  const { bytes } = await screen.export('Web page (.html), plays anywhere');
  const shown = await page.context().newPage();
  await shown.setViewportSize({ width: 1920, height: 1080 });
  await shown.route('**/exported.html*', (route) => route.fulfill({ contentType: 'text/html', body: bytes }));
  await shown.goto('/exported.html?controls=off');
  await shown.evaluate(() => document.fonts.ready);
  const frame = frameTicks(scene.rate);
  let most = 0;
  for (const at of [3, 12, 20, 40, 120].map((count) => count * frame)) {
    const places = await shown.evaluate((seconds) => {
      (globalThis as unknown as { wexikine: { show: (ms: number) => void } }).wexikine.show(seconds * 1_000);
      return [...document.querySelectorAll<HTMLElement>('[data-layer]')].map((element) => {
        const { left, top, right, bottom } = element.getBoundingClientRect();
        return [element.dataset['layer'] ?? '', (left + right) / 2, (top + bottom) / 2] as const;
      });
    }, secondsFromTicks(at));
    expect(places.length).toBe(scene.layers.length);
    const wanted = middles(scene, at);
    for (const [layer, left, top] of places) {
      const [wantedLeft, wantedTop, opacity] = wanted.get(layer) ?? [NaN, NaN, 1];
      // What is not seen yet may be anywhere.
      if (opacity <= 0) continue;
      most = Math.max(most, Math.abs(left - wantedLeft), Math.abs(top - wantedTop));
    }
  }
  expect(most).toBeLessThan(0.5);
});
