import type { Page } from '@playwright/test';
import { expect, test } from '../pages/test';
import type { Layer, Scene } from '@wexikine/core';
import { card, sceneWith } from '../pages/made-scenes';
import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { compare } from '../pages/painted';
import { SceneScreen } from '../pages/scene-screen';

const words = card('title', {
  name: 'Title',
  kind: 'word',
  source: {
    type: 'text',
    text: 'Tidal AV\nWave to Yonder',
    font: 'Bricolage Grotesque',
    weight: 700,
    size: 150,
    align: 'middle',
  },
  rest: { 'position.x': 960, 'position.y': 540, 'size.x': 1500, 'size.y': 420, rotation: -6, letterSpacing: 3 },
});

async function openWords(page: Page) {
  const id = await sceneWith(page, [words]);
  const screen = new SceneScreen(page);
  await screen.openAtRest(id);
  const canvas = page.locator('wx-preview > canvas');
  const box = (await canvas.boundingBox()) ?? { x: 0, y: 0, width: 0, height: 0 };
  /** The preview's own pixels, without the handles over it. */
  const picture = async (): Promise<Buffer> => {
    await page.waitForTimeout(300);
    const address = await canvas.evaluate((element: HTMLCanvasElement) => element.toDataURL());
    return Buffer.from(address.slice(address.indexOf(',') + 1), 'base64');
  };
  return { id, screen, box, picture };
}

const parts = ({ layers }: Scene): Layer[] => layers.filter(({ parent }) => parent === 'title');

test('words are split into letters that stand where they stood; edited on the stage the letters follow; joined again they are what they were', async ({
  page,
}) => {
  const { id, screen, box, picture } = await openWords(page);
  const before = await screen.stored(id);
  const whole = await picture();
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.click(x, y, { button: 'right' });
  await page.getByRole('menuitem', { name: 'Split the words' }).click();
  await page.getByRole('menuitem', { name: 'Into letters' }).click();
  const split = await screen.storedWhen(id, (scene) => parts(scene).length > 0);
  expect(
    parts(split)
      .map(({ name }) => name)
      .join(''),
  ).toBe('TidalAVWavetoYonder');
  // Kerned as one word, "AV" and "Yo" overlap; letter by letter they stand as they did.
  const { mean, share } = await compare(page, whole, await picture());
  expect(mean).toBeLessThan(0.4);
  expect(share).toBeLessThan(0.002);
  await expect(screen.status).toContainText('19 of 20 layers picked');

  await expect(page.getByRole('menu')).toHaveCount(0);
  await page.mouse.dblclick(x, y);
  const field = page.getByRole('textbox', { name: 'Words of Title' });
  await field.fill('Tidal AV\nNight');
  await field.press('Control+Enter');
  const edited = await screen.storedWhen(id, (scene) => parts(scene).length === 12);
  expect(
    parts(edited)
      .map(({ name }) => name)
      .join(''),
  ).toBe('TidalAVNight');
  expect(parts(edited)[0].id).toBe(parts(split)[0].id);
  await expect(screen.status).toContainText('12 of 13 layers picked');
  await page.keyboard.press('Control+z');
  await screen.storedWhen(id, (scene) => parts(scene).length === 19);

  await page.mouse.click(x, y);
  await page.mouse.click(x, y, { button: 'right' });
  await page.getByRole('menuitem', { name: 'Join the words again' }).click();
  const joined = await screen.storedWhen(id, ({ layers }) => layers.length === 1);
  const { split: gone, ...again } = joined.layers[0];
  expect([again, gone]).toEqual([before.layers[0], null]);

  await expect(page.getByRole('menu')).toHaveCount(0);
  await page.mouse.dblclick(x, y);
  await page.getByRole('textbox', { name: 'Words of Title' }).fill('Never');
  await page.keyboard.press('Escape');
  expect((await screen.stored(id)).layers[0].source).toEqual(words.source);
});

/** A font of the application's, as one of one's own. */
const font = (of: string): string =>
  join(import.meta.dirname, `../../node_modules/@fontsource-variable/${of}/files/${of}-latin-wght-normal.woff2`);

test('letters stand where another font sets them, after it took the place of theirs everywhere', async ({ page }) => {
  const bytes = readFileSync(font('spline-sans'));
  const name = `${createHash('sha256').update(bytes).digest('hex')}.woff2`;
  await page.request.put(`/api/files/${name}?title=Heron`, {
    data: bytes,
    headers: { 'content-type': 'font/woff2' },
  });
  const source = { ...words.source, text: 'Tidal AV', font: 'Heron', fontFile: `files/${name}` } as Layer['source'];
  const rest = { ...words.rest, rotation: 0, 'size.y': 200 };
  const [first, second] = ['title', 'later'].map((one, i): Layer => ({
    ...words,
    id: one,
    name: one === 'title' ? 'Title' : 'Later',
    source,
    rest: { ...rest, 'position.y': 300 + 400 * i },
  }));
  const id = await sceneWith(page, [first, second]);
  const screen = new SceneScreen(page);
  const split = async (at: number): Promise<void> => {
    await screen.openAtRest(id);
    await page.evaluate(() => document.fonts.ready);
    const { x, y } = await screen.onScreen(0.5, at / 1080);
    await page.mouse.click(x, y, { button: 'right' });
    await page.getByRole('menuitem', { name: 'Split the words' }).click();
    await page.getByRole('menuitem', { name: 'Into letters' }).click();
    await expect(page.getByRole('menu')).toHaveCount(0);
  };
  await split(300);
  const before = parts(await screen.storedWhen(id, (scene) => parts(scene).length === 7));
  await screen.saved();

  await page.goto('/files');
  await page.getByLabel(/^Replace Heron in/).setInputFiles(font('spline-sans-mono'));
  await expect(page.getByText(/took the place of “Heron” on 9 layers/)).toBeVisible();
  await split(700);
  const after = await screen.storedWhen(
    id,
    ({ layers }) => layers.filter(({ parent }) => parent === 'later').length === 7,
  );
  const anew = after.layers.filter(({ parent }) => parent === 'later');
  const moved = parts(after);
  expect(moved.map(({ source: one }) => one)).toEqual(anew.map(({ source: one }) => one));
  for (const [i, { rest: at }] of moved.entries())
    for (const channel of ['position.x', 'position.y', 'size.x', 'size.y'] as const)
      expect(Math.abs((at[channel] ?? 0) - (anew[i].rest[channel] ?? 0)), `${channel} of ${i}`).toBeLessThan(0.5);
  // All letters are as wide now; they were not before.
  expect(new Set(moved.map(({ rest: at }) => Math.round(at['size.x'] ?? 0))).size).toBe(1);
  expect(new Set(before.map(({ rest: at }) => Math.round(at['size.x'] ?? 0))).size).toBeGreaterThan(3);
});

test('a card is split into columns and rows by a dialog that says what is wrong', async ({ page }) => {
  const id = await sceneWith(page, [
    card('a', { rest: { 'position.x': 960, 'position.y': 540, 'size.x': 900, 'size.y': 600 } }),
  ]);
  const screen = new SceneScreen(page);
  await screen.openAtRest(id);
  const box = (await page.locator('wx-preview > canvas').boundingBox()) ?? { x: 0, y: 0, width: 0, height: 0 };
  await page.mouse.click(box.x + box.width / 2, box.y + box.height / 2, { button: 'right' });
  await page.getByRole('menuitem', { name: /Split into columns/ }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByRole('textbox', { name: 'Columns' })).toBeFocused();
  await dialog.getByRole('textbox', { name: 'Columns' }).fill('0');
  await expect(dialog.getByRole('alert')).toContainText('whole numbers from 1 to 50');
  await dialog.getByRole('textbox', { name: 'Columns' }).fill('5');
  await dialog.getByRole('textbox', { name: 'Rows' }).fill('2');
  await dialog.getByRole('button', { name: 'Split into 10 parts' }).click();
  const split = await screen.storedWhen(id, ({ layers }) => layers.length === 11);
  expect(split.layers.slice(1, 3).map(({ rest }) => [rest['position.x'], rest['size.x'], rest['size.y']])).toEqual([
    [90, 180, 300],
    [270, 180, 300],
  ]);
});
