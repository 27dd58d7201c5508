import type { Page } from '@playwright/test';
import type { Layer } from '@wexikine/core';
import { card, sceneWith } from '../pages/made-scenes';
import { SceneScreen } from '../pages/scene-screen';
import { expect, test } from '../pages/test';
import { expectNoFaults } from '../pages/faults';

const at = (id: string, x: number): Layer =>
  card(id, { rest: { 'position.x': x, 'position.y': 540, 'size.x': 200, 'size.y': 200, corner: 20 } });

async function opened(page: Page, layers: readonly Layer[]): Promise<{ scene: SceneScreen; id: string; zoom: number }> {
  const scene = new SceneScreen(page);
  const id = await sceneWith(page, layers);
  await scene.openAtRest(id);
  const frame = (await page.locator('wx-preview').boundingBox()) ?? { width: 0, height: 0 };
  return { scene, id, zoom: Math.min((frame.width - 32) / 1920, (frame.height - 32) / 1080) };
}

async function dragTo(page: Page, from: { x: number; y: number }, to: { x: number; y: number }): Promise<void> {
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move((from.x + to.x) / 2, (from.y + to.y) / 2, { steps: 4 });
  await page.mouse.move(to.x, to.y, { steps: 4 });
}

const restOf = async (scene: SceneScreen, id: string, name: string): Promise<Layer['rest']> =>
  (await scene.stored(id)).layers.find((layer) => layer.name === name)?.rest ?? {};

test('what is dragged comes to gaps that are alike, and to a grid that is chosen', async ({ page }) => {
  const { scene, id } = await opened(page, [at('a', 300), at('b', 1620), at('c', 700)]);
  await page.getByText('Card c', { exact: true }).first().click();
  // Between a and b, some px off the middle: the gaps become alike, and both are said.
  await dragTo(page, await scene.onScreen(700 / 1920, 0.5), await scene.onScreen(953 / 1920, 0.56));
  await expect(page.locator('wx-stage-handles .gap-width')).toHaveCount(0);
  await page.mouse.up();
  await page.locator('wx-preview > canvas').focus();
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await restOf(scene, id, 'Card c'))['position.x']).toBe(700);
  // The middle of the frame is nearer to nothing else here, so one that is no middle is made: b goes further out.
  await page.getByText('Card b', { exact: true }).first().click();
  await page.keyboard.press('Escape');
  await page.getByRole('tab', { name: 'Layer' }).click();
  const x = page.getByRole('textbox', { name: 'position x', exact: true });
  await x.fill('=1500');
  await x.press('Enter');
  await expect.poll(async () => (await restOf(scene, id, 'Card b'))['position.x']).toBe(1500);
  await page.getByText('Card c', { exact: true }).first().click();
  await dragTo(page, await scene.onScreen(700 / 1920, 0.5), await scene.onScreen(892 / 1920, 0.56));
  await expect(page.locator('wx-stage-handles .gap-width')).toHaveText(['400', '400']);
  await page.mouse.up();
  await expect.poll(async () => (await restOf(scene, id, 'Card c'))['position.x']).toBe(900);

  await page.locator('wx-preview > canvas').click({ button: 'right', position: { x: 20, y: 20 } });
  await page.getByRole('menuitem', { name: 'Grid', exact: true }).click();
  await page.getByRole('menuitemradio', { name: 'every 240 px' }).click();
  await page.getByText('Card c', { exact: true }).first().click();
  // Its left side comes to the line at 480.
  await dragTo(page, await scene.onScreen(900 / 1920, 605 / 1080), await scene.onScreen(585 / 1920, 700 / 1080));
  await page.mouse.up();
  await expect.poll(async () => (await restOf(scene, id, 'Card c'))['position.x']).toBe(580);
});

test('corners resize the box where that is chosen, and Z zooms to what is selected', async ({ page }) => {
  const { scene, id, zoom } = await opened(page, [at('a', 300), at('b', 1400)]);
  await page.getByText('Card a', { exact: true }).first().click();
  const bar = page.getByRole('group', { name: 'A drag sets' });
  await bar.getByRole('button', { name: 'resize' }).click();
  const corner = await page.locator('[data-grip=corner-2]').boundingBox();
  if (!corner) throw new Error('nothing is selected');
  const from = { x: corner.x + corner.width / 2, y: corner.y + corner.height / 2 };
  await dragTo(page, from, { x: from.x + 200 * zoom, y: from.y + 100 * zoom });
  await page.mouse.up();
  await expect.poll(async () => Math.round((await restOf(scene, id, 'Card a'))['size.x'] ?? 0)).not.toBe(200);
  const rest = await restOf(scene, id, 'Card a');
  expect(rest['scale.x'] ?? 1).toBe(1);
  expect(rest.corner).toBe(20);
  // Twice as wide and half as high again, the corner opposite where it was.
  expect(Math.abs((rest['size.x'] ?? 0) - 400)).toBeLessThan(3);
  expect(Math.abs((rest['size.y'] ?? 0) - 300)).toBeLessThan(3);
  expect((rest['position.x'] ?? 0) - (rest['size.x'] ?? 0) / 2).toBeCloseTo(200, 3);

  await page.locator('wx-preview > canvas').focus();
  await page.keyboard.press('z');
  const frame = await page.locator('wx-preview').boundingBox();
  const [a, c] = await Promise.all([0, 2].map((one) => page.locator(`[data-grip=corner-${one}]`).boundingBox()));
  if (!frame || !a || !c) throw new Error('nothing is selected');
  expect(Math.abs((a.x + c.x + c.width) / 2 - (frame.x + frame.width / 2))).toBeLessThan(3);
  expect((c.x - a.x) / frame.width + (c.y - a.y) / frame.height).toBeGreaterThan(0.9);
});

test('a path is drawn point by point: corners, a round point, closed at its first point; and by the keyboard alone', async ({
  page,
}) => {
  const { scene, id, zoom } = await opened(page, [card('a', { rest: { 'position.x': 1700, 'position.y': 900 } })]);
  const box = (await page.locator('wx-preview > canvas').boundingBox()) ?? { x: 0, y: 0, width: 0, height: 0 };
  const onPage = (x: number, y: number): [number, number] => [
    box.x + (box.width - 1920 * zoom) / 2 + x * zoom,
    box.y + (box.height - 1080 * zoom) / 2 + y * zoom,
  ];
  await page.locator('wx-preview > canvas').focus();
  await page.keyboard.press('n');
  await expect(page.locator('wx-pen')).toContainText('Press for a corner, drag for a round point');
  await expectNoFaults(page, 'wx-preview');
  await page.mouse.click(...onPage(300, 300));
  await page.mouse.click(...onPage(900, 300));
  await page.mouse.move(...onPage(900, 700));
  await page.mouse.down();
  await page.mouse.move(...onPage(600, 700), { steps: 4 });
  await page.mouse.up();
  // The line goes on to the pointer, and is closed where that meets the first point.
  const line = page.locator('wx-pen path.line');
  await page.mouse.move(...onPage(500, 600));
  expect((await line.getAttribute('d'))?.match(/[LC]/g)).toHaveLength(3);
  await page.mouse.move(...onPage(300, 300));
  await expect(line).toHaveAttribute('d', /Z$/);
  await page.mouse.click(...onPage(300, 300));
  await expect(page.locator('wx-pen')).toHaveCount(0);
  const drawn = async (name: string): Promise<Layer | undefined> =>
    (await scene.stored(id)).layers.find((layer) => layer.name === name);
  await expect.poll(async () => (await drawn('Path 1'))?.source.type).toBe('path');
  const layer = await drawn('Path 1');
  if (layer?.source.type !== 'path') throw new Error('no path');
  // It fills its box as the browser sees it, round part included, and lies where it was drawn.
  const seen = await page.evaluate((d) => {
    const svg = document.body.appendChild(document.createElementNS('http://www.w3.org/2000/svg', 'svg'));
    const path = svg.appendChild(document.createElementNS('http://www.w3.org/2000/svg', 'path'));
    path.setAttribute('d', d);
    const { x, y, width, height } = path.getBBox();
    svg.remove();
    return [x, y, width, height];
  }, layer.source.d);
  [0, 0, 100, 100].forEach((value, i) => expect(seen[i]).toBeCloseTo(value, 1));
  const { 'position.x': x = 0, 'size.x': width = 0, 'size.y': height = 0 } = layer.rest;
  expect(Math.abs(x - width / 2 - 300)).toBeLessThan(4);
  // The round point swings out to the right of its place.
  expect(width).toBeGreaterThan(640);
  expect(Math.abs(height - 400)).toBeLessThan(4);
  expect(await scene.pixel(500 / 1920, 400 / 1080)).toEqual([224, 165, 38]);

  // A press beside it, though within its box, means what lies behind; one on it means the path.
  await expect(scene.row('Path 1')).toHaveAttribute('aria-selected', 'true');
  await page.mouse.click(...onPage(360, 640));
  await expect(scene.row('Path 1')).toHaveAttribute('aria-selected', 'false');
  await page.mouse.click(...onPage(800, 400));
  await expect(scene.row('Path 1')).toHaveAttribute('aria-selected', 'true');

  // Its points are moved in the panel, by the keyboard; what is not moved stays where it is.
  await page.getByRole('tab', { name: 'Layer' }).click();
  const point = page.locator('wx-layer-shape').getByRole('slider', { name: 'Point 1 of 3' });
  await point.focus();
  for (let i = 0; i < 10; i++) await page.keyboard.press('Shift+ArrowLeft');
  await expect.poll(async () => (await drawn('Path 1'))?.rest['size.x']).toBeGreaterThan(width + 90);
  const { 'position.x': moved = 0, 'size.x': wider = 0 } = (await drawn('Path 1'))?.rest ?? {};
  expect(moved + wider / 2).toBeCloseTo(x + width / 2, 0);
  expect(moved - wider / 2).toBeCloseTo(x - width / 2 - 100, 0);
  await expectNoFaults(page, 'wx-layer-shape');
  const undo = page.getByRole('button', { name: /^Undo Reshape/ });
  await expect(async () => {
    if ((await undo.count()) > 0) await undo.click({ timeout: 500 });
    await expect(undo).toHaveCount(0, { timeout: 100 });
  }).toPass();
  await expect.poll(async () => (await drawn('Path 1'))?.rest['size.x']).toBe(width);

  // By keys: three corners, an open line; then one that is given up.
  await page.locator('wx-preview > canvas').focus();
  await page.keyboard.press('n');
  for (const key of ['Space', 'Shift+ArrowRight', 'Space', 'Shift+ArrowDown', 'Space', 'Enter']) {
    await page.keyboard.press(key);
  }
  await expect.poll(async () => (await drawn('Path 2'))?.rest).toMatchObject({ 'size.x': 100, 'size.y': 100 });
  await page.keyboard.press('n');
  await page.keyboard.press('Space');
  await page.keyboard.press('Escape');
  await expect(page.locator('wx-pen')).toHaveCount(0);
  for (let i = 0; i < 2; i++) await page.getByRole('button', { name: /^Undo/ }).first().click();
  await expect.poll(async () => (await scene.stored(id)).layers.map(({ name }) => name)).toEqual(['Card a']);
});
