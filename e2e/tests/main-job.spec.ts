import { frameTicks, sampleTrack, sceneSchema, type Key, type Scene } from '@wexikine/core';
import { SceneScreen } from '../pages/scene-screen';
import { expect, test } from '../pages/test';

const FRAME = frameTicks({ num: 25, den: 1 });

function keysOf(scene: Scene, layer: string, channel: 'scale.x' | 'position.y' | 'rotation'): [number, number][] {
  const keys = (scene.layers.find(({ id }) => id === layer)?.tracks[channel] ?? []) as Key[];
  return keys.map(({ at, value }) => [at / FRAME, Number(value.toFixed(6))]);
}

test('from the empty browser to the exported file: one sentence puts a preset on twelve layers', async ({ page }) => {
  const screen = new SceneScreen(page);
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'Scenes' })).toBeVisible();
  await page.getByRole('link', { name: 'Open Programme board', exact: true }).click();
  // It opens as it stands; the sentence waits.
  await expect(screen.status).toContainText('The scene as it stands');
  await expect(screen.applyButton).toHaveText('Dry run on 12');
  await screen.dryRun();
  await expect(screen.field('pick')).toHaveText('12 groups tagged “row”'.replace('groups', 'layers'));
  await expect(screen.applyButton).toHaveText('Apply to 12');

  // Choose the preset by searching, with a typing error.
  await screen.field('preset').click();
  await screen.editor.getByRole('searchbox', { name: 'Search presets' }).fill('five stps');
  await screen.editor.getByRole('button', { name: /^Pop in five steps Grows/ }).click();
  await expect(screen.field('preset')).toHaveText('Pop in five steps');

  // Order, start, gap and a parameter.
  await screen.field('order').click();
  await screen.editor.getByText('The other way round').click();
  await screen.closeEditor();
  await expect(screen.field('order')).toHaveText('bottom to top');
  await screen.field('start').click();
  await screen.editor.getByText('At a time of the scene').click();
  await screen.editor.getByRole('textbox', { name: 'Time' }).fill('0:10');
  await screen.closeEditor();
  await screen.field('spacing').click();
  await screen.editor.getByRole('textbox', { name: 'Gap' }).fill('8f');
  await screen.closeEditor();
  await page.getByRole('button', { name: 'Set another parameter' }).click();
  await screen.editor.getByRole('button', { name: /Past full size/ }).click();
  await screen.editor.getByRole('textbox', { name: 'Value or formula' }).fill('40%');
  await screen.closeEditor();

  // The dry run is in the sheet at once: the last row starts first.
  expect(await screen.times('Closing bell')).toEqual(['0:10', '18 f']);
  await expect.poll(() => screen.times('Moonrise walk')).toEqual(['3:23', '18 f']);
  await expect(screen.row('Moonrise walk').getByText('40 %')).toBeVisible();
  await expect(screen.status).toContainText('Dry run: +144 keys');

  // And in the preview: before its start a row is not there, in the dry run; without the dry run it is.
  await screen.setTime('0:05');
  const sky = await screen.pixel(0.3, 0.2535);
  await page.getByRole('button', { name: 'Hide dry run' }).click();
  await expect.poll(() => screen.pixel(0.3, 0.2535)).not.toEqual(sky);
  await screen.dryRun();

  // Apply, and the same keys stand on the server.
  await expect(screen.applyButton).toHaveText('Apply to 12');
  await screen.applyButton.click();
  await expect(screen.applyButton).toHaveText('Applied');
  await screen.saved();
  const pop = [
    [10, 0],
    [18, 1.4],
    [21, 0.6],
    [24, 1.2],
    [26, 0.8],
    [28, 1],
  ];
  await expect.poll(async () => keysOf(await screen.stored('programme-board'), 'row-12', 'scale.x')).toEqual(pop);
  expect(keysOf(await screen.stored('programme-board'), 'row-01', 'scale.x')[0]).toEqual([98, 0]);

  // Play: the playhead moves, and the real rate is told.
  await screen.setTime('0:00');
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await expect(screen.status).toContainText(/\d+\.\d frames a second drawn/);
  await page.getByRole('button', { name: 'Pause' }).click();
  expect(await screen.time.inputValue()).not.toBe('00:00:00:00');

  // Undo, redo, by name.
  await page.getByRole('button', { name: /^Undo Bring in Pop in five steps on 12 layers/ }).click();
  await screen.saved();
  await expect.poll(async () => keysOf(await screen.stored('programme-board'), 'row-12', 'scale.x')).toEqual([]);
  await page.getByRole('button', { name: /^Redo Bring in/ }).click();
  await screen.saved();
  await expect.poll(async () => keysOf(await screen.stored('programme-board'), 'row-12', 'scale.x')).toEqual(pop);

  // Reload: everything is there.
  await page.reload();
  await expect(screen.status).toContainText('as it stands');
  const stored = await screen.stored('programme-board');
  expect(stored.runs.map(({ sentence }) => sentence)).toEqual([
    'Bring in Pop in five steps on 12 layers tagged “row”, bottom to top, from 0:10, one every 8 f, moving keys only, each lasting the preset’s own length, past full size 40 %, and take the place of any earlier entrance.',
  ]);

  // Export both ways.
  const json = await screen.export('Scene file, to open elsewhere');
  expect(json.name).toBe('programme-board.json');
  const exported = sceneSchema.parse(JSON.parse(json.text));
  expect(exported).toEqual(stored);
  const row = exported.layers.find(({ id }) => id === 'row-12');
  expect(sampleTrack(row?.tracks['scale.x'] as Key[], 18 * FRAME)).toBeCloseTo(1.4, 9);
  const html = await screen.export('Web page (.html), plays anywhere');
  expect(html.name).toBe('programme-board.html');
  expect(html.text).toContain('data-layer="row-12"');
  expect(html.text).toContain('data:font/woff2;base64,');
});

test('the same by keyboard alone', async ({ page }) => {
  const screen = new SceneScreen(page);
  await screen.open('constellations');
  await expect(screen.field('pick')).toHaveText('60 layers tagged “star”');
  await screen.field('spacing').focus();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  await expect(screen.field('spacing')).toHaveText('2 f');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Tab');
  const time = screen.editor.getByRole('textbox', { name: 'Gap' });
  await time.focus();
  await page.keyboard.press('Control+a');
  await page.keyboard.type('1f');
  await page.keyboard.press('Escape');
  await expect(screen.field('spacing')).toHaveText('1 f');
  await expect(screen.field('spacing')).toBeFocused();
  // At once: what was typed is applied as soon as it is planned.
  await page.keyboard.press('Control+Enter');
  await expect(screen.applyButton).toHaveText('Applied');
  await page.keyboard.press('6');
  await expect(page.getByRole('tabpanel')).toContainText('Bring in Rise & settle on 60 layers tagged “star”');
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('tabpanel')).toContainText('Redo');
  await page.keyboard.press('Home');
  await page.keyboard.press('Alt+ArrowRight');
  await expect(screen.time).toHaveValue('00:00:00:01');
  await page.keyboard.press('Home');
  await expect(screen.time).toHaveValue('00:00:00:00');
  await screen.saved();
});
