import type { Page } from '@playwright/test';
import { frameTicks, type Key, type Scene } from '@wexikine/core';
import { copyOf, SceneScreen } from '../pages/scene-screen';
import { expect, test } from '../pages/test';
import { expectNoFaults } from '../pages/faults';

const RATE = { num: 25, den: 1 };
const FRAME = frameTicks(RATE);

/** The rows of the board with their keys of one channel, in frames. */
function rowsOf(scene: Scene, channel: 'opacity' | 'position.y' = 'opacity'): [number, number][][] {
  return scene.layers
    .filter(({ tags }) => tags.includes('row'))
    .map(({ tracks }) =>
      ((tracks[channel] ?? []) as Key[]).map(({ at, value }): [number, number] => [at / FRAME, value]),
    );
}

function tracksIn(scene: Scene): unknown {
  return scene.layers.map(({ id, tracks, span }) => [id, span, tracks]);
}

/** Chooses an operation in the sentence by the keyboard alone. */
async function choose(page: Page, scene: SceneScreen, label: string): Promise<void> {
  await scene.field('operation').focus();
  await page.keyboard.press('Enter');
  await scene.editor.getByRole('radio', { name: new RegExp(`^${label}`) }).check();
  await scene.closeEditor();
}

async function type(page: Page, scene: SceneScreen, field: string, text: string): Promise<void> {
  await scene.field(field).click();
  const box = page.getByRole('dialog').getByRole('textbox').first();
  await box.fill(text);
  await box.press('Enter');
  await scene.closeEditor();
}

async function addStep(page: Page, scene: SceneScreen, label: RegExp): Promise<void> {
  await page.getByRole('button', { name: 'Another step' }).click();
  await page.getByRole('dialog').getByRole('button', { name: label }).click();
  await scene.closeEditor();
}

test('keys of twelve layers are stretched about each first key; the run beneath is changed and the stretch done again; all is undone', async ({
  page,
}) => {
  const scene = new SceneScreen(page);
  const id = await copyOf(page, 'programme-board');
  await scene.open(id);
  await scene.apply();
  await scene.saved();
  const entered = await scene.stored(id);
  const before = rowsOf(entered);
  expect(before).toHaveLength(12);

  // Stretched to twice their length about each layer’s first key.
  await choose(page, scene, 'Adjust');
  await expect(scene.sentence).toContainText('Adjust all keys of 12 layers');
  await expect(scene.status).toContainText('keys adjusted');
  await addStep(page, scene, /^Stretch/);
  await type(page, scene, 'parameter:s1_by', '0f');
  await type(page, scene, 'parameter:s2_to', '200%');
  await expect(scene.status).toContainText('keys adjusted');
  await expectNoFaults(page);
  await scene.apply();
  await scene.saved();
  const stretched = await scene.stored(id);
  rowsOf(stretched).forEach((keys, row) => {
    const [[first]] = before[row];
    expect(keys.map(([at]) => at)).toEqual(before[row].map(([at]) => first + (at - first) * 2));
  });
  // Keys know who made them: the entrance, not the adjustment.
  const made = stretched.layers.flatMap(({ tracks }) => (tracks.opacity ?? []).map(({ by }) => by?.run));
  expect(new Set(made)).toEqual(new Set([stretched.runs[0].id]));
  expect(stretched.runs[1].sentence).toBe(
    'Adjust all keys of 12 layers tagged “row”: later by 0 f, then stretched to 200 % about each first key.',
  );

  // The entrance beneath is changed: one every 8 frames. The stretch is done again on top.
  await page.getByRole('tab', { name: /^Runs/ }).click();
  await page.getByRole('button', { name: 'Change run 1' }).click();
  await expect(scene.field('spacing')).toBeVisible();
  await type(page, scene, 'spacing', '8f');
  await page
    .getByRole('button', { name: /^(Apply|Change|Run again)/ })
    .first()
    .click();
  await expect(async () => {
    const starts = rowsOf(await scene.stored(id)).map(([[first]]) => first);
    expect(starts).toEqual(starts.map((_, row) => starts[0] + row * 8));
  }).toPass();
  const again = rowsOf(await scene.stored(id));
  expect(again[3].at(-1)?.[0]).toBe(again[3][0][0] + ((before[3].at(-1)?.[0] ?? 0) - before[3][0][0]) * 2);

  // Undone to the exact start.
  const undo = page.getByRole('button', { name: /^Undo/ });
  await expect(async () => {
    if (await undo.isEnabled()) await undo.click({ timeout: 1000 });
    await expect(undo).toBeDisabled({ timeout: 200 });
  }).toPass({ timeout: 30_000 });
  await scene.saved();
  const fresh = await page.request.get(`/api/scenes/${id}`);
  expect(tracksIn(((await fresh.json()) as { scene: Scene }).scene)).not.toEqual(tracksIn(entered));
  expect(rowsOf(await scene.stored(id)).every((keys) => keys.length === 0)).toBe(true);
});

test('a rule picks the last keys of one channel, by the keyboard; nothing to adjust is told', async ({ page }) => {
  const scene = new SceneScreen(page);
  const id = await copyOf(page, 'programme-board');
  await scene.open(id);
  await scene.apply();
  await scene.saved();
  const before = rowsOf(await scene.stored(id));
  await choose(page, scene, 'Adjust');
  await scene.field('keys').focus();
  await page.keyboard.press('Enter');
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('button', { name: 'each layer’s last moment' }).focus();
  await page.keyboard.press('Space');
  await dialog.getByRole('button', { name: 'opacity' }).focus();
  await page.keyboard.press('Space');
  await scene.closeEditor();
  await expect(scene.sentence).toContainText('the last keys of opacity');
  await type(page, scene, 'parameter:s1_by', '10f');
  await expect(scene.status).toContainText('12 keys adjusted');
  await scene.apply();
  await scene.saved();
  const after = rowsOf(await scene.stored(id));
  after.forEach((keys, row) => {
    expect(keys.at(-1)?.[0]).toBe((before[row].at(-1)?.[0] ?? 0) + 10);
    expect(keys.slice(0, -1)).toEqual(before[row].slice(0, -1));
  });

  await scene.field('keys').click();
  await dialog.getByRole('textbox', { name: 'Value at least' }).fill('500');
  await dialog.getByRole('textbox', { name: 'Value at least' }).press('Enter');
  await scene.closeEditor();
  await page.getByRole('tab', { name: /^Findings/ }).click();
  await expect(page.getByText('No key of the picked layers meets this rule.', { exact: false }).first()).toBeVisible();
});
