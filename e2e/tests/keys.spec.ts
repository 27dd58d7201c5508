import type { Locator, Page } from '@playwright/test';
import { expect, test } from '../pages/test';
import { expectNoFaults } from '../pages/faults';
import { frameTicks, type Key, type Scene } from '@wexikine/core';
import { copyOf, SceneScreen } from '../pages/scene-screen';

const FRAME = frameTicks({ num: 25, den: 1 });

function keysOf(scene: Scene, name: string, channel: 'opacity' | 'rotation' | 'position.y'): [number, number][] {
  const layer = scene.layers.find((one) => one.name === name);
  return ((layer?.tracks[channel] ?? []) as Key[]).map(({ at, value }) => [at / FRAME, Number(value.toFixed(6))]);
}

/** The board with its entrance, shown as keys. */
async function openKeys(page: Page): Promise<{ scene: SceneScreen; id: string; view: Locator }> {
  const scene = new SceneScreen(page);
  const id = await copyOf(page, 'programme-board');
  await scene.open(id);
  await scene.apply();
  await scene.saved();
  await page.getByRole('button', { name: 'Keys', exact: true }).first().click();
  const view = page.locator('wx-keys-view');
  await expect(view.getByRole('treegrid', { name: 'Keys of the scene' })).toBeVisible();
  return { scene, id, view };
}

function row(view: Locator, label: string): Locator {
  return view.locator(`[data-key-row="${label}"]`);
}

test('keys of twelve layers are picked and moved by the keyboard alone, and undone to the exact start', async ({
  page,
}) => {
  const { scene, id, view } = await openKeys(page);
  const before = await scene.stored(id);
  const first = before.layers.find(({ tags }) => tags.includes('row'));
  if (!first) throw new Error('no row');
  await expectNoFaults(page);

  // One row by Enter, three frames later by the arrow keys.
  await row(view, `${first.id} opacity`).focus();
  await page.keyboard.press('Enter');
  const count = keysOf(before, first.name, 'opacity').length;
  await expect(view.getByText(`${count} of `, { exact: false }).first()).toContainText('keys picked');
  for (let i = 0; i < 3; i++) await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Shift+ArrowRight');
  await scene.saved();
  const moved = keysOf(await scene.stored(id), first.name, 'opacity');
  expect(moved).toEqual(keysOf(before, first.name, 'opacity').map(([at, value]) => [at + 13, value]));

  // All of them at once; a value typed as a difference.
  await page.keyboard.press('Control+a');
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('Escape');
  await row(view, `${first.id} rotation`).focus();
  await page.keyboard.press('Space');
  await page.getByRole('textbox', { name: 'Set values to, or change by' }).fill('+10');
  await page.getByRole('textbox', { name: 'Set values to, or change by' }).press('Enter');
  await scene.saved();
  const turned = keysOf(await scene.stored(id), first.name, 'rotation');
  expect(turned.map(([, value]) => value)).toEqual(
    keysOf(before, first.name, 'rotation').map(([, value]) => Number((value + 10).toFixed(6))),
  );

  const undo = page.getByRole('button', { name: /^Undo (?!Bring)/ });
  await expect(async () => {
    if ((await undo.count()) > 0 && (await undo.isEnabled())) await undo.click({ timeout: 1000 });
    await expect(page.getByRole('button', { name: /^Undo Bring/ })).toBeVisible({ timeout: 200 });
  }).toPass();
  await scene.saved();
  expect((await scene.stored(id)).layers.map(({ tracks }) => tracks)).toEqual(
    before.layers.map(({ tracks }) => tracks),
  );
});

test('keys are picked by a press, by a moment on all layers and by a band, dragged, and pasted onto others', async ({
  page,
}) => {
  const { scene, id, view } = await openKeys(page);
  const before = await scene.stored(id);
  const rows = before.layers.filter(({ tags }) => tags.includes('row'));
  const strip = row(view, `${rows[0].id} opacity`).getByRole('gridcell').nth(1);
  const svg = (await strip.boundingBox()) ?? { x: 0, y: 0, width: 0, height: 0 };
  // The whole scene lies across the strip but for its margin.
  const width = svg.width - 14;
  const xOf = (frames: number): number => svg.x + ((frames * FRAME) / before.length) * width;
  const [[start]] = keysOf(before, rows[0].name, 'opacity');

  // A press picks one key; a drag moves it by twenty frames.
  await page.mouse.click(xOf(start), svg.y + 14);
  await expect(view.getByText(/^1 of \d+ keys picked$/)).toBeVisible();
  const last = keysOf(before, rows[0].name, 'opacity').at(-1)?.[0] ?? 0;
  await page.mouse.move(xOf(last), svg.y + 14);
  await page.mouse.down();
  await page.mouse.move(xOf(last + 40), svg.y + 14, { steps: 6 });
  await expect(view.getByText(/^\+\d+ f, to/)).toBeVisible();
  await page.mouse.up();
  await scene.saved();
  const dragged = keysOf(await scene.stored(id), rows[0].name, 'opacity').at(-1)?.[0] ?? 0;
  expect(dragged).toBeGreaterThan(last + 30);
  expect(Number.isInteger(dragged)).toBe(true);

  // Alt picks the moment on every layer.
  await page.keyboard.down('Alt');
  await page.mouse.click(xOf(start), svg.y + 14);
  await page.keyboard.up('Alt');
  await expect(view.getByText(/^(2[4-9]|[3-9]\d) of \d+ keys picked$/)).toBeVisible();

  // A band over one row.
  await page.keyboard.press('Escape');
  await page.mouse.move(xOf(-0.4) + 4, svg.y + 4);
  await page.mouse.move(xOf(140), svg.y + 5);
  await page.mouse.down();
  await page.mouse.move(xOf(start) - 3, svg.y + 24, { steps: 4 });
  await page.mouse.up();
  const count = keysOf(before, rows[0].name, 'opacity').length;
  await expect(view.getByText(new RegExp(`^${count} of \\d+ keys picked$`))).toBeVisible();

  // Copied, and pasted onto all that take part, as long after each in point.
  await view.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('menuitem', { name: /^Copy/ }).click();
  await view.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('menuitem', { name: '… as long after each in point' }).click();
  await expect(page.getByText(`${count * 12} keys pasted on 12 layers.`)).toBeVisible();
  await scene.saved();
  const pasted = await scene.stored(id);
  for (const layer of rows.slice(1)) {
    const own = keysOf(pasted, layer.name, 'opacity').map(([at]) => at);
    for (const [at] of keysOf(pasted, rows[0].name, 'opacity')) expect(own).toContain(at);
  }

  // Just these are played, and then the whole scene again.
  await view.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Play just these' }).click();
  await expect(page.locator('wx-transport')).toContainText(/fps · 0:\d\d – \d:\d\d/);
  await page.getByRole('button', { name: 'How it is played' }).click();
  await page.getByRole('menuitemradio', { name: 'To and fro' }).click();
  await page.getByRole('button', { name: 'How it is played' }).click();
  await expect(page.getByRole('menuitemradio', { name: 'To and fro' })).toHaveAttribute('aria-checked', 'true');
  await page.getByRole('menuitem', { name: 'Play the whole scene' }).click();

  // What is picked becomes an adjustment in the sentence.
  await view.getByRole('button', { name: 'Adjust these…' }).click();
  await expect(scene.sentence).toContainText('Adjust all keys of opacity from');
  await scene.planned();
});

test('keys are picked by a rule, their layers set to rest elsewhere, and twelve layers posed at one time', async ({
  page,
}) => {
  const { scene, id, view } = await openKeys(page);
  const before = await scene.stored(id);
  const rows = before.layers.filter(({ tags }) => tags.includes('row'));
  const more = view.getByRole('button', { name: 'More', exact: true });

  // The last moment of every layer, of one channel.
  await more.click();
  await page.getByRole('menuitem', { name: 'Pick by a rule…' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('button', { name: 'each layer’s last moment' }).click();
  await dialog.getByRole('button', { name: 'rotation', exact: true }).click();
  await expectNoFaults(page);
  await dialog.getByRole('button', { name: 'Pick 12 keys' }).click();
  await expect(view.getByText(/^12 of \d+ keys picked$/)).toBeVisible();

  // A typed value is for the keys, or for where the layers rest, whichever is in plain sight.
  const value = view.getByRole('textbox', { name: 'Set values to, or change by' });
  await view.getByLabel('A typed value sets').selectOption('rest');
  await value.fill('+4');
  await value.press('Enter');
  await scene.saved();
  const rested = await scene.stored(id);
  for (const { name, rest } of rows) {
    const now = rested.layers.find((one) => one.name === name);
    expect(now?.rest.rotation).toBeCloseTo((rest.rotation ?? 0) + 4, 9);
    expect(keysOf(rested, name, 'rotation')).toEqual(keysOf(before, name, 'rotation'));
  }
  await page.getByRole('button', { name: /^Undo Set the rest pose/ }).click();

  // The pose of all of them at the playhead: each gets its key, from the value that it has there.
  await page.getByRole('tab', { name: 'Layer' }).click();
  const panel = page.locator('wx-hand-keys');
  await expect(panel.getByText('of the 12 layers with picked keys')).toBeVisible();
  await scene.time.fill('0:20');
  await scene.time.press('Enter');
  const opacity = panel.getByRole('textbox', { name: 'opacity' });
  await expect(opacity).toHaveAttribute('placeholder', 'mixed');
  await opacity.fill('60');
  await opacity.press('Enter');
  await scene.saved();
  const posed = await scene.stored(id);
  for (const { name } of rows) {
    expect(keysOf(posed, name, 'opacity')).toContainEqual([20, 0.6]);
    const others = keysOf(before, name, 'opacity').filter(([at]) => at !== 20);
    for (const key of others) expect(keysOf(posed, name, 'opacity')).toContainEqual(key);
  }

  // The pose cut in at the playhead changes nothing of the motion; the row of all layers picks a time on all.
  await view.locator('[data-key-row="all"]').focus();
  await page.keyboard.press('Escape');
  await page.keyboard.press('Enter');
  await expect(view.getByText(/^(\d+) of \1 keys picked$/)).toBeVisible();
});
