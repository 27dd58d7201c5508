import { ticksFromSeconds, type Key, type Layer } from '@wexikine/core';
import { card, sceneWith } from '../pages/made-scenes';
import { SceneScreen } from '../pages/scene-screen';
import { expect, test } from '../pages/test';
import { expectNoFaults } from '../pages/faults';

const FRAME = ticksFromSeconds(0.04);
const key = (frame: number, value: number): Key => ({ at: frame * FRAME, value, ease: { type: 'linear' } });

const at = (id: string, y: number, more: Partial<Layer> = {}): Layer =>
  card(id, { rest: { 'position.x': 960, 'position.y': y, 'size.x': 200, 'size.y': 200 }, ...more });

test('the motion, timing and data of one card are passed on to the others, which follow it when it is changed', async ({
  page,
}) => {
  const scene = new SceneScreen(page);
  const id = await sceneWith(page, [
    at('a', 300, { tracks: { 'position.y': [key(10, 500), key(20, 300)] }, data: { name: 'Moon' } }),
    at('b', 800),
    at('c', 1300, { data: { name: 'Tide', team: 'red' } }),
  ]);
  await scene.openAtRest(id);
  const frames = async (): Promise<unknown[]> =>
    (await scene.stored(id)).layers.map(({ tracks }) => (tracks['position.y'] ?? []).map((one) => one.at / FRAME));
  const before = (await scene.stored(id)).layers;

  await scene.field('operation').click();
  await scene.editor.getByRole('radio', { name: /^Pass on/ }).click();
  await scene.closeEditor();
  await expect(scene.sentence).toContainText('Pass on motion of “Card a” to');
  await scene.field('passed').click();
  await expect(scene.editor.getByRole('checkbox', { name: /^motion/ })).toBeDisabled();
  await scene.editor.getByRole('checkbox', { name: /^timing/ }).check();
  await scene.editor.getByRole('checkbox', { name: /^data/ }).check();
  await expectNoFaults(page, 'wx-field-editor');
  await scene.closeEditor();
  await scene.field('from').click();
  await expect(scene.editor.getByRole('combobox', { name: 'Of this layer' })).toHaveValue('a');
  await scene.editor.getByRole('checkbox', { name: /^They follow it/ }).check();
  await scene.closeEditor();
  await scene.field('later').click();
  await scene.editor.getByRole('textbox', { name: 'Each later by' }).fill('5f');
  await scene.closeEditor();
  await scene.planned();
  await scene.apply();
  await expect.poll(frames).toEqual([
    [10, 20],
    [15, 25],
    [20, 30],
  ]);
  const cells = (await scene.stored(id)).layers.map(({ data }) => data);
  expect(cells).toEqual([{ name: 'Moon' }, { name: 'Moon' }, { name: 'Moon', team: 'red' }]);

  // The first one begins two frames later: all of them follow, in one step.
  await page.getByText('Card a', { exact: true }).first().click();
  await page.getByRole('tab', { name: 'Layer' }).click();
  await page.getByRole('textbox', { name: 'In point' }).fill('0:02');
  await page.getByRole('textbox', { name: 'In point' }).press('Enter');
  await expect.poll(async () => (await scene.stored(id)).layers.map(({ span }) => span.in / FRAME)).toEqual([2, 7, 12]);
  await page.locator('wx-preview > canvas').focus();
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await scene.stored(id)).layers.map(({ span }) => span.in / FRAME)).toEqual([0, 5, 10]);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await scene.stored(id)).layers).toEqual(before);
});
