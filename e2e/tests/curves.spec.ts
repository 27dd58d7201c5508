import type { Locator, Page } from '@playwright/test';
import { expect, test } from '../pages/test';
import { expectNoFaults } from '../pages/faults';
import { frameTicks, type Key, type Scene } from '@wexikine/core';
import { copyOf, SceneScreen } from '../pages/scene-screen';

const FRAME = frameTicks({ num: 25, den: 1 });

function track(scene: Scene, name: string, channel: 'opacity' | 'rotation' | 'position.y'): Key[] {
  return (scene.layers.find((one) => one.name === name)?.tracks[channel] ?? []) as Key[];
}

/** The board with its entrance, its curves in the place of the run sheet. */
async function openCurves(page: Page): Promise<{ scene: SceneScreen; id: string; view: Locator; before: Scene }> {
  const scene = new SceneScreen(page);
  const id = await copyOf(page, 'programme-board');
  await scene.open(id);
  await scene.apply();
  await scene.saved();
  await page.getByRole('button', { name: 'Curves', exact: true }).first().click();
  const view = page.locator('wx-curve-panel.wide');
  await expect(view.getByRole('group', { name: 'Curves over time' })).toBeVisible();
  return { scene, id, view, before: await scene.stored(id) };
}

function keyAt(view: Locator, words: RegExp): Locator {
  return view.getByRole('checkbox', { name: words });
}

async function undoAll(page: Page): Promise<void> {
  const undo = page.getByRole('button', { name: /^Undo (?!Bring)/ });
  await expect(async () => {
    if ((await undo.count()) > 0 && (await undo.isEnabled())) await undo.click({ timeout: 1000 });
    await expect(page.getByRole('button', { name: /^Undo Bring/ })).toBeVisible({ timeout: 200 });
  }).toPass();
}

test('a handle is drawn with the pointer; the other side follows in one line, and the preview while it is drawn', async ({
  page,
}) => {
  const { scene, id, view, before } = await openCurves(page);
  await expectNoFaults(page);
  await expect(view.getByText('↑ up on screen')).toBeVisible();
  await expect(view.getByText(/at most \d+(\.\d)? px in a frame, at 0:00/)).toBeVisible();
  await view.getByRole('button', { name: 'Fit the curves' }).click();
  const keys = track(before, 'Moonrise walk', 'position.y');
  await keyAt(view, /^Moonrise walk, position y at 0:11/).click();
  const leave = view.locator('[data-handle=leave]');
  const box = (await leave.boundingBox()) ?? { x: 0, y: 0, width: 0, height: 0 };
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + 20, y - 40, { steps: 4 });
  await expect(view.getByText('How it leaves: position y of “Moonrise walk”')).toBeVisible();
  await page.mouse.up();
  await scene.saved();
  const drawn = track(await scene.stored(id), 'Moonrise walk', 'position.y');
  expect(drawn.map(({ at, value }) => [at, value])).toEqual(keys.map(({ at, value }) => [at, value]));
  const [first, second] = drawn.map(({ ease }) => ease);
  if (first.type !== 'bezier' || second.type !== 'bezier') throw new Error('no Bézier');
  // One line through the key: the speed of arriving is the speed of leaving, and upwards.
  const speed = (a: Key, b: Key, run: number, rise: number): number =>
    ((b.value - a.value) * rise) / ((b.at - a.at) * run);
  const arrives = speed(drawn[0], drawn[1], 1 - first.x2, 1 - first.y2);
  const leaves = speed(drawn[1], drawn[2], second.x1, second.y1);
  expect(leaves).toBeLessThan(0);
  expect(arrives / leaves).toBeCloseTo(1, 6);
  expect(second.x1).toBeGreaterThan((keys[1].ease as typeof second).x1);

  // With Alt one side alone: the arrival stays.
  const again = (await leave.boundingBox()) ?? box;
  await page.mouse.move(again.x + 5, again.y + 5);
  await page.keyboard.down('Alt');
  await page.mouse.down();
  await page.mouse.move(again.x + 5, again.y + 45, { steps: 4 });
  await page.mouse.up();
  await page.keyboard.up('Alt');
  await scene.saved();
  const split = track(await scene.stored(id), 'Moonrise walk', 'position.y');
  expect(split[0].ease).toEqual(first);
  expect(split[1].ease).not.toEqual(second);

  await undoAll(page);
  await scene.saved();
  expect((await scene.stored(id)).layers.map(({ tracks }) => tracks)).toEqual(
    before.layers.map(({ tracks }) => tracks),
  );
});

test('keys picked in rows have the same arrival typed on twelve layers, and a curve of the library put on', async ({
  page,
}) => {
  const { scene, id, view, before } = await openCurves(page);
  const rows = before.layers.filter(({ tags }) => tags.includes('row'));
  // One moment of all layers is picked among the keys; the curves have it picked, too.
  await page.getByRole('button', { name: 'Keys', exact: true }).first().click();
  const keysView = page.locator('wx-keys-view');
  await keysView.getByLabel('A press picks').selectOption('moment');
  const strip = keysView.locator(`[data-key-row="${rows[0].id} position.y"]`).getByRole('gridcell').nth(1);
  const bounds = (await strip.boundingBox()) ?? { x: 0, y: 0, width: 0, height: 0 };
  const at = track(before, rows[0].name, 'position.y')[1].at;
  await page.mouse.click(bounds.x + (at / before.length) * (bounds.width - 14), bounds.y + 14);
  await page.getByRole('button', { name: 'Curves', exact: true }).first().click();
  await expect(view.getByText('and 11 more')).toBeVisible();
  const arrival = view.getByRole('textbox', { name: 'Arrives: strength in per cent' });
  await arrival.fill('80');
  await arrival.press('Enter');
  await scene.saved();
  const typed = await scene.stored(id);
  for (const { name } of rows) {
    const [first] = track(typed, name, 'position.y');
    expect(first.ease.type === 'bezier' && Number((1 - first.ease.x2).toFixed(6))).toBe(0.8);
  }
  await arrival.fill('wide');
  await arrival.press('Enter');
  await expect(view.getByRole('alert')).toContainText('Write a strength from 0 to 100');

  // A curve of the library, on all of them, and it says so.
  await view.getByRole('button', { name: /^The curve after/ }).click();
  await page.getByRole('menuitem', { name: /^Choose a curve/ }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('button', { name: 'Named' }).click();
  await dialog.getByRole('button', { name: /^Arrive/ }).click();
  await dialog.getByRole('button', { name: 'Put it on' }).click();
  await expect(view.getByText(/^Arrive, revision 1$/)).toBeVisible();
  await scene.saved();
  const linked = await scene.stored(id);
  for (const { name } of rows) {
    const ease = track(linked, name, 'position.y')[1].ease;
    expect('curve' in ease && ease.curve).toMatchObject({ name: 'Arrive', revision: 1 });
  }
  // Reloaded it still says so; mirrored it says backwards; without the link the shape stays.
  await view.getByRole('button', { name: 'Mirror' }).click();
  await expect(view.getByText('Arrive, revision 1, backwards')).toBeVisible();
  await view.getByRole('button', { name: /^The curve after/ }).click();
  await page.getByRole('menuitem', { name: 'Keep its shape without the link' }).click();
  await expect(view.getByText('Bézier', { exact: true })).toBeVisible();
  await view.getByRole('button', { name: /^The curve after/ }).click();
  await page.getByRole('menuitem', { name: 'Save as a curve of the library' }).click();
  await expect(page.getByText('The curve is a draft of the library now. Name and publish it there.')).toBeVisible();
  const library = (await (await page.request.get('/api/library')).json()) as { item: { name: string; kind: string } }[];
  expect(library.some(({ item }) => item.kind === 'curve' && item.name.startsWith('From Programme board'))).toBe(true);

  await undoAll(page);
  await scene.saved();
  expect((await scene.stored(id)).layers.map(({ tracks }) => tracks)).toEqual(
    before.layers.map(({ tracks }) => tracks),
  );
});

test('keys on their curve are reached, moved and smoothed by the keyboard alone', async ({ page }) => {
  const { scene, id, view, before } = await openCurves(page);
  const keys = track(before, 'Moonrise walk', 'position.y');
  const first = keyAt(view, /^Moonrise walk, position y at 0:00/);
  await first.focus();
  await page.keyboard.press('PageDown');
  await page.keyboard.press('PageDown');
  await expect(keyAt(view, /position y at 0:16/)).toBeFocused();
  await page.keyboard.press('Space');
  await page.keyboard.press('Shift+ArrowUp');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await expect(keyAt(view, /position y at 0:18/)).toBeFocused();
  await scene.saved();
  const moved = track(await scene.stored(id), 'Moonrise walk', 'position.y');
  // Up on screen is a smaller y.
  expect(moved[2].at - keys[2].at).toBe(2 * FRAME);
  expect(moved[2].value).toBeCloseTo(keys[2].value - 10, 9);
  await view.getByRole('button', { name: 'Same speed' }).focus();
  await page.keyboard.press('Enter');
  const speed = view.getByRole('textbox', { name: 'Leaves: speed in px/s' });
  await speed.focus();
  await page.keyboard.type('-120');
  await page.keyboard.press('Enter');
  // "-120" is that much less; "=-120" is minus 120 itself.
  await speed.fill('=-120');
  await speed.press('Enter');
  await expect(speed).toHaveValue('-120');
  await scene.saved();
  const eased = track(await scene.stored(id), 'Moonrise walk', 'position.y');
  const { ease } = eased[2];
  if (ease.type !== 'bezier') throw new Error('no Bézier');
  const seconds = (eased[3].at - eased[2].at) / FRAME / 25;
  expect(((eased[3].value - eased[2].value) * ease.y1) / (ease.x1 * seconds)).toBeCloseTo(-120, 3);
  await undoAll(page);
  await scene.saved();
  expect((await scene.stored(id)).layers.map(({ tracks }) => tracks)).toEqual(
    before.layers.map(({ tracks }) => tracks),
  );
});

test('the timing panel tells when layers move now and after, and leads to the busiest moment', async ({ page }) => {
  const { scene, view } = await openCurves(page);
  await page.getByRole('tab', { name: 'Timing' }).click();
  const panel = page.locator('wx-timing-panel');
  await expect(panel.getByRole('img', { name: 'When 12 layers move.' })).toBeVisible();
  const busiest = panel.getByRole('button').first();
  const at = (await busiest.innerText()).trim();
  await busiest.click();
  await expect(scene.time).toHaveValue(new RegExp(`${at}$`));
  await page.getByRole('button', { name: 'Dry run', exact: true }).click();
  await scene.planned();
  await scene.field('spacing').click();
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('Escape');
  await expect(panel.getByRole('img', { name: 'When 12 layers move; 11 at other times than now.' })).toBeVisible();
  await expect(view.getByText('A dry run is shown; hide it to draw curves by hand.')).toBeVisible();
  await expectNoFaults(page);
});
