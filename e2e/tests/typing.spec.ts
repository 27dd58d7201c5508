import type { Layer } from '@wexikine/core';
import { card, choosePreset, sceneWith } from '../pages/made-scenes';
import { SceneScreen } from '../pages/scene-screen';
import { expect, test } from '../pages/test';
import { expectNoFaults } from '../pages/faults';

const words = (id: string, y: number, text: string): Layer =>
  card(id, {
    name: id,
    kind: 'word',
    rest: { 'position.x': 960, 'position.y': y, 'size.x': 1600, 'size.y': 300 },
    look: { fill: '#ffffff' },
    source: { type: 'text', text, font: 'Spline Sans', weight: 700, size: 240, align: 'middle' },
  });

/** Shares of the frame's width, from left to right, at which something white is drawn across a height. */
async function inked(scene: SceneScreen, y: number): Promise<number[]> {
  const shares = Array.from({ length: 96 }, (_, i) => (i + 0.5) / 96);
  const pixels = await scene.pixels(shares.map((x) => ({ x, y })));
  return shares.filter((_, i) => pixels[i][0] > 200 && pixels[i][2] > 200);
}

test('words are typed letter by letter, where they stand in the whole, and a number in them runs to its rest', async ({
  page,
}) => {
  const scene = new SceneScreen(page);
  const id = await sceneWith(page, [words('Title', 300, 'MMMMM'), words('Sum', 780, '# %')]);
  await scene.openAtRest(id);

  await page.getByText('Sum', { exact: true }).first().click();
  await page.getByRole('tab', { name: 'Layer' }).click();
  const panel = page.locator('wx-look-typing');
  await panel.getByRole('checkbox', { name: 'a number stands where the # is' }).check();
  await panel.getByRole('textbox', { name: 'Number', exact: true }).fill('1500');
  await panel.getByRole('textbox', { name: 'Number', exact: true }).press('Enter');
  await panel.getByRole('combobox', { name: 'Decimals' }).selectOption('1');
  await panel.getByRole('combobox', { name: 'Thousands' }).selectOption('1,234');
  await panel.getByRole('combobox', { name: 'Point' }).selectOption('0,5');
  await panel.getByRole('textbox', { name: 'Caret' }).fill('too long');
  await page.keyboard.press('Tab');
  await expect(panel.getByText('A caret is one sign')).toBeVisible();
  const sum = async (): Promise<unknown> => {
    const layer = (await scene.stored(id)).layers.find(({ name }) => name === 'Sum');
    return layer?.source.type === 'text' ? [layer.source.number, layer.rest['words.number']] : null;
  };
  // A point that stands between thousands already makes way.
  await expect.poll(sum).toEqual([{ decimals: 1, point: ',', group: ' ' }, 1500]);
  await expectNoFaults(page, 'wx-layer-look');

  const whole = await inked(scene, 300 / 1080);
  await scene.dryRun();
  await choosePreset(scene, 'Type on');
  await scene.planned();
  await scene.apply();
  await scene.setTime('0:00');
  expect(await inked(scene, 300 / 1080)).toEqual([]);
  // Half of the time, two of five letters: they are where they are in the whole, though that is centred.
  await scene.setTime('0:12');
  const half = await inked(scene, 300 / 1080);
  expect(half.length).toBeGreaterThan(4);
  expect(half).toEqual(whole.slice(0, half.length));
  expect(Math.max(...half)).toBeLessThan(0.5);
  await scene.setTime('2:00');
  expect(await inked(scene, 300 / 1080)).toEqual(whole);
});
