import type { Locator, Page } from '@playwright/test';
import { expect, test } from '../pages/test';
import { frameTicks, type Key, type Scene } from '@wexikine/core';
import { card, sceneWith } from '../pages/made-scenes';
import { copyOf, SceneScreen } from '../pages/scene-screen';

const FRAME = frameTicks({ num: 25, den: 1 });

function layerIn(scene: Scene, name: string) {
  const layer = scene.layers.find((one) => one.name === name);
  if (!layer) throw new Error(`no layer ${name}`);
  return layer;
}

function valuesOf(scene: Scene, name: string, channel: 'position.x' | 'position.y'): [number, number][] {
  return ((layerIn(scene, name).tracks[channel] ?? []) as Key[]).map(({ at, value }) => [at / FRAME, value]);
}

async function openStage(page: Page): Promise<{ scene: SceneScreen; id: string; before: Scene; zoom: number }> {
  const scene = new SceneScreen(page);
  const id = await copyOf(page, 'programme-board');
  await scene.open(id);
  await scene.apply();
  await scene.saved();
  await page.getByText('Moonrise walk', { exact: true }).first().click();
  const frame = (await page.locator('wx-preview').boundingBox()) ?? { width: 0, height: 0 };
  const before = await scene.stored(id);
  const zoom = Math.min((frame.width - 32) / before.width, (frame.height - 32) / before.height);
  return { scene, id, before, zoom };
}

/** The middle of what is selected, on the page. */
async function middle(page: Page): Promise<{ x: number; y: number }> {
  const [a, b] = await Promise.all([0, 2].map((corner) => page.locator(`[data-grip=corner-${corner}]`).boundingBox()));
  if (!a || !b) throw new Error('nothing is selected');
  return { x: (a.x + b.x + a.width) / 2, y: (a.y + b.y + a.height) / 2 };
}

async function dragBy(page: Page, from: { x: number; y: number }, x: number, y: number, key?: string): Promise<void> {
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  if (key) await page.keyboard.down(key);
  await page.mouse.move(from.x + x, from.y + y, { steps: 5 });
  await page.mouse.up();
  if (key) await page.keyboard.up(key);
}

const sets = (page: Page, way: string): Locator =>
  page.getByRole('group', { name: 'A drag sets' }).getByRole('button', { name: way });

test('what is selected is dragged: all keys along, the rest pose alone, or a key at the playhead; undone to the start', async ({
  page,
}) => {
  const { scene, id, before, zoom } = await openStage(page);
  const name = 'Moonrise walk';

  // All keys along, without snapping: as far on every key as on the screen.
  await dragBy(page, await middle(page), 54, 27, 'Control');
  await scene.saved();
  const along = await scene.stored(id);
  const by = Math.round(54 / zoom);
  const [x, y] = (['position.x', 'position.y'] as const).map(
    (channel) => (layerIn(along, name).rest[channel] ?? 0) - (layerIn(before, name).rest[channel] ?? 0),
  );
  expect(Math.abs(x - by)).toBeLessThanOrEqual(1);
  expect(Math.abs(y - by / 2)).toBeLessThanOrEqual(1.5);
  const moved = valuesOf(along, name, 'position.y');
  valuesOf(before, name, 'position.y').forEach(([at, value], i) => {
    expect(moved[i][0]).toBe(at);
    expect(moved[i][1]).toBeCloseTo(value + y, 6);
  });

  // The outline stands where the layer is drawn now.
  await expect(sets(page, 'all keys along')).toHaveAttribute('aria-pressed', 'true');
  await sets(page, 'the rest pose').click();
  await dragBy(page, await middle(page), 0, 30, 'Control');
  await scene.saved();
  const rested = await scene.stored(id);
  expect(valuesOf(rested, name, 'position.y')).toEqual(moved);
  expect(layerIn(rested, name).rest['position.y']).toBeGreaterThan((layerIn(along, name).rest['position.y'] ?? 0) + 50);

  await sets(page, 'a key here').click();
  await scene.setTime('2:00');
  await dragBy(page, await middle(page), 40, 0, 'Control');
  await scene.saved();
  const keyed = await scene.stored(id);
  expect(valuesOf(keyed, name, 'position.x').map(([at]) => at)).toEqual([50]);
  expect(valuesOf(keyed, name, 'position.y').map(([at]) => at)).toContain(50);

  const undo = page.getByRole('button', { name: /^Undo Move/ });
  for (let i = 0; i < 3; i++) await undo.click();
  await scene.saved();
  expect((await scene.stored(id)).layers).toEqual(before.layers);
});

test('it snaps to the middle of the frame, turns and scales from its corner, several together', async ({ page }) => {
  const { scene, id, before, zoom } = await openStage(page);
  const { rest } = layerIn(before, 'Moon');
  const place = (await page.locator('wx-preview').boundingBox()) ?? { x: 0, y: 0, width: 0, height: 0 };
  const corner = {
    x: place.x + (place.width - before.width * zoom) / 2,
    y: place.y + (place.height - before.height * zoom) / 2,
  };
  const at = (x: number, y: number) => ({ x: corner.x + x * zoom, y: corner.y + y * zoom });
  const moon = at(rest['position.x'] ?? 0, rest['position.y'] ?? 0);
  await page.mouse.click(moon.x, moon.y);
  // To the left until its middle is nearly that of the frame: the rest of the way it snaps.
  const way = before.width / 2 - (rest['position.x'] ?? 0);
  await page.mouse.move(moon.x, moon.y);
  await page.mouse.down();
  await page.mouse.move(moon.x + way * zoom + 3, moon.y, { steps: 6 });
  await expect(page.locator('wx-stage-handles .words')).toContainText(`x ${before.width / 2}`);
  await page.mouse.up();
  await scene.saved();
  expect(layerIn(await scene.stored(id), 'Moon').rest['position.x']).toBe(before.width / 2);

  // A quarter turn by the knob with Shift.
  const centre = at(before.width / 2, rest['position.y'] ?? 0);
  const knob = (await page.locator('[data-grip=turn]').boundingBox()) ?? { x: 0, y: 0, width: 0, height: 0 };
  const far = centre.y - (knob.y + knob.height / 2);
  await dragBy(page, { x: centre.x, y: centre.y - far }, far, far, 'Shift');
  await scene.saved();
  expect(layerIn(await scene.stored(id), 'Moon').rest.rotation).toBe(90);

  // Half as large from the opposite corner, together with the title: the ways between them halve.
  const title = layerIn(before, 'Title: Star party');
  await page.keyboard.down('Control');
  const word = at(title.rest['position.x'] ?? 0, title.rest['position.y'] ?? 0);
  await page.mouse.click(word.x + 20, word.y);
  await page.keyboard.up('Control');
  const [a, c] = await Promise.all([0, 2].map((n) => page.locator(`[data-grip=corner-${n}]`).boundingBox()));
  if (!a || !c) throw new Error('no corners');
  await dragBy(page, { x: c.x + c.width / 2, y: c.y + c.height / 2 }, (a.x - c.x) / 2, (a.y - c.y) / 2);
  await scene.saved();
  const scaled = await scene.stored(id);
  const share = layerIn(scaled, 'Moon').rest['scale.x'] ?? 1;
  expect(share).toBeCloseTo(0.5, 1);
  expect(layerIn(scaled, title.name).rest['scale.x']).toBeCloseTo(share * (title.rest['scale.x'] ?? 1), 9);
  const apart =
    (layerIn(scaled, 'Moon').rest['position.x'] ?? 0) - (layerIn(scaled, title.name).rest['position.x'] ?? 0);
  expect(apart).toBeCloseTo(share * (before.width / 2 - (title.rest['position.x'] ?? 0)), 3);
});

test('arrow keys move what is selected, by the keyboard alone; many presses are one step', async ({ page }) => {
  const { scene, id, before } = await openStage(page);
  await page.getByRole('img', { name: /^Preview of/ }).focus();
  // As fast as keys can come: within one task of the page.
  await page.getByRole('img', { name: /^Preview of/ }).evaluate((canvas) => {
    const press = (): boolean =>
      canvas.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowRight', bubbles: true }));
    for (let i = 0; i < 4; i++) press();
  });
  await page.keyboard.press('Shift+ArrowUp');
  await page.keyboard.press('Control+ArrowLeft');
  await scene.saved();
  const { rest } = layerIn(await scene.stored(id), 'Moonrise walk');
  const start = layerIn(before, 'Moonrise walk').rest;
  expect((rest['position.x'] ?? 0) - (start['position.x'] ?? 0)).toBeCloseTo(3.9, 9);
  expect((rest['position.y'] ?? 0) - (start['position.y'] ?? 0)).toBeCloseTo(-10, 9);
  await page.getByRole('button', { name: 'Undo Nudge' }).click();
  await scene.saved();
  expect((await scene.stored(id)).layers).toEqual(before.layers);
  // A dry run is only outlined: nothing can be dragged in it.
  await page.getByRole('button', { name: 'Dry run', exact: true }).click();
  await scene.planned();
  await expect(page.locator('[data-grip=turn]')).toHaveCount(0);
});

test('a side of one layer makes it wider from the other side, or resizes its box', async ({ page }) => {
  const scene = new SceneScreen(page);
  const rest = { 'position.x': 960, 'position.y': 540, 'size.x': 800, 'size.y': 400 };
  const id = await sceneWith(page, [
    card('a', { rest }),
    card('b', { rest: { ...rest, 'position.y': 900, 'size.y': 60 } }),
  ]);
  await scene.openAtRest(id);
  const { x, y } = await scene.onScreen(0.5, 0.5);
  await page.mouse.click(x, y);
  await page.getByRole('button', { name: 'the rest pose', exact: true }).click();
  const middle = async (grip: string): Promise<{ x: number; y: number }> => {
    const box = await page.locator(`[data-grip=${grip}]`).boundingBox();
    if (!box) throw new Error(`no ${grip}`);
    return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  };
  const [left, right] = [await middle('side-3'), await middle('side-1')];
  const drag = async (from: { x: number; y: number }, by: number): Promise<void> => {
    await page.mouse.move(from.x, from.y);
    await page.mouse.down();
    await page.mouse.move(from.x + by / 2, from.y + 3);
    await page.mouse.move(from.x + by, from.y + 9);
    await page.mouse.up();
  };
  const width = right.x - left.x;
  await drag(right, -width / 4);
  await expect
    .poll(async () => {
      const [{ rest: now }] = (await scene.stored(id)).layers;
      return [now['scale.x'], now['scale.y'] ?? 1].map((one) => Math.round((one ?? 1) * 20) / 20);
    })
    .toEqual([0.75, 1]);
  // The other side stays where it was.
  const after = await middle('side-3');
  expect(Math.abs(after.x - left.x)).toBeLessThanOrEqual(1);
  await page.keyboard.press('Control+z');
  await page.getByRole('button', { name: 'resize', exact: true }).click();
  await drag(await middle('side-1'), width / 8);
  await expect
    .poll(async () => {
      const [{ rest: now }] = (await scene.stored(id)).layers;
      return [Math.abs((now['size.x'] ?? 0) - 900) < 12, now['size.y'], now['scale.x'] ?? 1];
    })
    .toEqual([true, 400, 1]);
});

test.describe('with a finger', () => {
  test.use({ hasTouch: true });

  test('handles are as large as a finger needs, and lie apart', async ({ page }) => {
    const scene = new SceneScreen(page);
    const id = await sceneWith(page, [
      card('a', { rest: { 'position.x': 960, 'position.y': 540, 'size.x': 900, 'size.y': 600 } }),
    ]);
    await scene.openAtRest(id);
    const { x, y } = await scene.onScreen(0.5, 0.5);
    await page.touchscreen.tap(x, y);
    const grips = page.locator('wx-stage-handles [data-grip]');
    // Four corners, four sides and the knob that turns.
    await expect(grips).toHaveCount(9);
    const boxes = await Promise.all((await grips.all()).map((grip) => grip.boundingBox()));
    for (const box of boxes) {
      // WCAG 2.2, 2.5.8: targets of at least 24 by 24 px.
      expect(Math.min(box?.width ?? 0, box?.height ?? 0)).toBeGreaterThanOrEqual(24);
    }
    const middles = boxes.map((box) => ({
      x: (box?.x ?? 0) + (box?.width ?? 0) / 2,
      y: (box?.y ?? 0) + (box?.height ?? 0) / 2,
    }));
    for (const [i, a] of middles.entries())
      for (const b of middles.slice(i + 1)) expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeGreaterThan(24);
  });
});
