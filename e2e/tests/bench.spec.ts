import type { Page } from '@playwright/test';
import { expect, test, windowBeside } from '../pages/test';
import { frameTicks, type Key, type Preset, type Scene } from '@wexikine/core';
import { BenchScreen } from '../pages/bench-screen';
import { LibraryScreen, storedItem } from '../pages/library-screen';
import { copyOf, SceneScreen } from '../pages/scene-screen';

const FRAME = frameTicks({ num: 25, den: 1 });

function keysOf(scene: Scene, layer: string, channel: keyof Scene['layers'][number]['tracks']): [number, number][] {
  const keys = (scene.layers.find(({ id }) => id === layer)?.tracks[channel] ?? []) as Key[];
  return keys.map(({ at, value }) => [at / FRAME, Number(value.toFixed(9))]);
}

async function draftBody(page: Page, id: string): Promise<Preset> {
  const { entry } = await storedItem(page, id);
  return (entry.draft ?? entry.item).body as Preset;
}

test('a preset made from nothing is the five-step pop exactly, and follows a house value that changes afterwards', async ({
  page,
}, { retry, repeatEachIndex }) => {
  // Names of its own each time, as an attempt before has left its items in the library.
  const again = retry + repeatEachIndex > 0 ? ` ${retry}${repeatEachIndex}` : '';
  const [length, name] = [`pop length${again}`, `Hand-made pop${again}`];
  const library = new LibraryScreen(page);
  const bench = new BenchScreen(page);

  // A house value of 18 frames.
  await library.open();
  await library.begin('New house duration');
  await bench.name.fill(length);
  await page.getByRole('textbox', { name: /^Duration/ }).fill('18f');
  await bench.publish();
  const house = bench.id;

  // The preset: its length follows the house value, one parameter of its own.
  await library.open();
  await library.begin('New entrance');
  await bench.name.fill(name);
  await bench.openParameter('Lasts');
  await bench.field('House value').selectOption(length);
  await expect(bench.parameters).toContainText(length);
  await bench.addParameter('percent');
  await bench.field('Name').fill('Past full size');
  await bench.field('In formulas').fill('@over');
  await bench.field('In formulas').press('Enter');
  await expect(bench.parameters.getByText('@over')).toBeVisible();

  // Six moments and a channel; by the keyboard alone from the first cell on.
  await bench.addMoment('Peak', '@lasts × 8 ÷ 18');
  await bench.addMoment('Dip', '@lasts × 11 ÷ 18');
  // A number that is typed slowly is offered units, and is kept as it is.
  await bench.cell('Time of Dip').click();
  await page.getByRole('textbox', { name: 'Time of Dip', exact: true }).press('Control+a');
  await page.keyboard.insertText('@lasts × 11 ÷ 18');
  // Where the browser is busy, what was put in and what is typed come as one, and nothing is offered for that.
  await expect(async () => {
    await page.keyboard.press('Backspace');
    await page.keyboard.type('8');
    await expect(page.locator('.cm-tooltip-autocomplete')).toContainText('18px', { timeout: 1_500 });
  }).toPass();
  await bench.takeCompletion('18px');
  await expect(bench.cell('Time of Dip')).toContainText('@lasts × 11 ÷ 18');
  await expect(bench.cell('Time of Dip')).toContainText('11 f');
  await bench.addMoment('Echo', '@lasts × 14 ÷ 18');
  await bench.addMoment('Last dip', '@lasts × 16 ÷ 18');
  await bench.addChannel('scale');
  await expect(bench.cell('scale at Start')).toBeFocused();
  const formulas = [
    '0',
    'rest × (1 + @over)',
    'rest × (1 - @over)',
    'rest × (1 + @over ÷ 2)',
    'rest × (1 - @over ÷ 2)',
  ];
  for (const formula of formulas) {
    await page.keyboard.press('Enter');
    await page.keyboard.insertText(formula);
    await page.keyboard.press('Enter');
    await page.keyboard.press('ArrowRight');
  }
  await page.keyboard.type('rest');
  await page.keyboard.press('Enter');
  await expect(bench.cell('scale at Echo')).toContainText('110 %');
  await expect(bench.cell('Time of Last dip')).toContainText('16 f');
  await bench.publish('As agreed.');
  const preset = bench.id;

  // Applied to twelve rows, one every 8 frames.
  const copy = await copyOf(page, 'programme-board');
  const scene = new SceneScreen(page);
  await page.goto(`/scenes/${copy}?preset=${preset}`);
  await scene.planned();
  await scene.field('spacing').click();
  await scene.editor.getByRole('textbox', { name: 'Gap' }).fill('8f');
  await scene.closeEditor();
  await expect.poll(() => scene.times('Closing bell')).toEqual(['3:13', '18 f']);
  await scene.applyButton.click();
  await expect(scene.applyButton).toHaveText('Applied');
  await scene.saved();
  const pop = [0, 1.2, 0.8, 1.1, 0.9, 1];
  const frames = [0, 8, 11, 14, 16, 18];
  const expected = (from: number): [number, number][] => frames.map((frame, i) => [from + frame, pop[i]]);
  const stored = await scene.stored(copy);
  expect(keysOf(stored, 'row-01', 'scale.x')).toEqual(expected(0));
  expect(keysOf(stored, 'row-12', 'scale.y')).toEqual(expected(88));
  expect(stored.runs[0]).toMatchObject({
    preset: { id: preset, revision: 1 },
    uses: [{ id: house, revision: 1 }],
  });

  // The house value changes: first it is shown what would, then it is published.
  await bench.open(house);
  await page.getByRole('textbox', { name: /^Duration/ }).fill('36f');
  await expect(page.locator('wx-effects-list')).toContainText(name);
  await expect(page.locator('wx-effects-list')).toContainText('@lasts 18 f → 36 f');
  await bench.kept();
  await page.getByRole('button', { name: 'Send for review' }).click();
  await bench.publishButton.click();
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText(name);
  await expect(dialog).toContainText('Used in one scene on 12 layers.');
  await dialog.getByRole('button', { name: 'Publish', exact: true }).click();
  await expect(bench.note).toHaveText('as published');

  // Keys that were made stay; a new run has the new length, and the preset's own revision is the same as before.
  await page.goto(`/scenes/${copy}?preset=${preset}`);
  await scene.planned();
  await expect.poll(async () => (await scene.times('Moonrise walk'))[1]).toBe('36 f');
  expect(keysOf(await scene.stored(copy), 'row-01', 'scale.x')).toEqual(expected(0));
  expect((await storedItem(page, preset)).record.revisions).toHaveLength(1);
});

test('a wrong formula is told under its cell, names are completed, and undo takes it back', async ({ page }) => {
  const bench = new BenchScreen(page);
  await bench.open('rise-and-settle');
  await bench.write('position y at Start', 'rest + 5deg');
  await expect(bench.cell('position y at Start')).toContainText(
    'A length and an angle cannot be added. Did you mean 5px?',
  );
  // It cannot be published, and says so before it is tried.
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Publish without review…' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByRole('alert')).toContainText('It cannot be published yet.');
  await expect(dialog.getByRole('alert')).toContainText('A length and an angle cannot be added.');
  await expect(dialog.getByRole('button', { name: 'Publish', exact: true })).toBeDisabled();
  await dialog.getByRole('button', { name: 'Cancel' }).click();
  await expect(dialog).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(bench.cell('position y at Start')).toContainText('rest + @rise');
  await expect(bench.cell('position y at Start')).not.toContainText('cannot be added');

  // Completion: a parameter after @, a unit after a number.
  await bench.cell('rotation at Rest').click();
  const editor = page.getByRole('textbox', { name: 'rotation at Rest' });
  await editor.press('Control+a');
  await page.keyboard.type('rest + @ti');
  await bench.takeCompletion('@tilt');
  await page.keyboard.type(' - 3d');
  await bench.takeCompletion('3deg');
  await page.keyboard.press('Enter');
  await expect(bench.cell('rotation at Rest')).toContainText('rest + @tilt - 3deg');
  await expect(bench.cell('rotation at Rest')).toContainText('3°');
  await bench.kept();

  // The draft is there again after a reload, beside the published revision.
  await page.reload();
  await expect(bench.cell('rotation at Rest')).toContainText('rest + @tilt - 3deg');
  await page.getByRole('button', { name: 'Compare with r1' }).click();
  await expect(page.locator('wx-differences-list')).toContainText('rest → rest + @tilt - 3deg');
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Discard the draft…' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Discard' }).click();
  await expect(bench.note).toHaveText('as published');
  await expect(bench.cell('rotation at Rest')).not.toContainText('3deg');
});

test('cells that are typed faster than the page draws are all kept', async ({ page }) => {
  const bench = new BenchScreen(page);
  await bench.open('rise-and-settle');
  const labels = ['position y at Start', 'opacity at Start', 'rotation at Start'];
  const cells = await Promise.all(labels.map((label) => bench.cell(label).elementHandle()));
  // In one task of the page: nothing is drawn in between.
  await page.evaluate((given) => {
    const press = (on: Element, key: string) =>
      on.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
    given.forEach((cell, index) => {
      if (!cell) return;
      press(cell, String(index + 5));
      const editor = cell.querySelector('.cm-content');
      if (editor) press(editor, 'Enter');
    });
  }, cells);
  for (const [index, label] of labels.entries()) {
    await expect(bench.page.getByRole('gridcell', { name: `${label}: ${index + 5}`, exact: true })).toBeVisible();
  }
});

test('parameters are renamed everywhere, and removing one that is used says where', async ({ page }) => {
  const bench = new BenchScreen(page);
  await bench.open('drop-and-squash');
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Duplicate' }).click();
  await expect(bench.name).toHaveValue('Drop & squash (copy)');
  await bench.openParameter('Squash');
  await bench.field('In formulas').fill('@lasts');
  await bench.field('In formulas').press('Enter');
  await expect(page.getByRole('alert')).toContainText('@lasts is the name of “Lasts” already.');
  await bench.field('In formulas').fill('@press');
  await bench.field('In formulas').press('Enter');
  await expect(bench.cell('scale y at Flat')).toContainText('rest × (1 - @press)');
  await expect(bench.cell('position y at Flat')).toContainText('@press');

  await page.getByRole('button', { name: 'More for Squash' }).click();
  await page.getByRole('menuitem', { name: 'Remove' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('@press is used');
  await expect(dialog).toContainText('scale y at Flat');
  await dialog.getByRole('button', { name: 'Remove it' }).click();
  await expect(bench.cell('scale y at Flat')).toContainText('rest × (1 - 30%)');
  await bench.kept();
  const body = await draftBody(page, bench.id);
  expect(body.parameters.map(({ name }) => name)).toEqual(['lasts', 'fall']);
});

test('an easing is dragged by its handles, set by numbers, as text, by family and by name', async ({ page }) => {
  const bench = new BenchScreen(page);
  await bench.open('grow-from-anchor');
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Duplicate' }).click();
  await expect(bench.name).toHaveValue('Grow from anchor (copy)');
  const id = bench.id;
  const ease = async (): Promise<unknown> => (await draftBody(page, id)).rows[0].cells[0].ease;
  await page.getByRole('button', { name: /^Easing of scale after Start: Arrive/ }).click();
  const popover = page.getByRole('dialog', { name: 'Easing of scale after Start' });
  await popover.getByRole('button', { name: 'Bézier' }).click();

  // By pointer: the departure handle to the middle of the plot.
  const handle = popover.getByRole('slider', { name: 'Departure handle' });
  const plot = await popover.locator('wx-easing-plot svg').boundingBox();
  const from = await handle.boundingBox();
  if (!plot || !from) throw new Error('no plot');
  await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2);
  await page.mouse.down();
  await page.mouse.move(plot.x + plot.width / 2, plot.y + plot.height / 2, { steps: 5 });
  await expect(popover.getByLabel('leaves, time')).toHaveValue(/^0\.(49|5)/);
  // Escape gives the drag up, and the popover stays.
  await page.keyboard.press('Escape');
  await expect(popover.getByLabel('leaves, time')).not.toHaveValue(/^0\.(49|5)/);
  await page.mouse.up();
  await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2);
  await page.mouse.down();
  await page.mouse.move(plot.x + plot.width / 2, plot.y + plot.height / 2, { steps: 5 });
  await page.mouse.up();
  await expect(popover.getByLabel('leaves, time')).toHaveValue(/^0\.(49|5)/);
  await bench.kept();
  await expect.poll(ease).toMatchObject({ type: 'bezier', x2: 0.3, y2: 1 });

  // By keyboard and by number.
  await handle.focus();
  await page.keyboard.press('Shift+ArrowRight');
  await popover.getByRole('textbox', { name: 'value', exact: true }).first().fill('0.25');
  await popover.getByRole('textbox', { name: 'value', exact: true }).first().press('Enter');
  await expect.poll(ease).toMatchObject({ y1: 0.25 });

  // As text: what is wrong is said and changes nothing; what is right is taken.
  const text = popover.getByLabel('As text');
  await text.fill('cubic-bezier(2, 0, 0, 1)');
  await expect(popover.getByRole('alert')).toContainText('out of range');
  await text.fill('linear(0, 0.9 20%, 1)');
  await expect.poll(ease).toMatchObject({ type: 'points', points: [{ input: 0 }, { input: 0.2, output: 0.9 }, {}] });
  await popover.getByRole('button', { name: 'Spring' }).click();
  await expect.poll(ease).toMatchObject({ type: 'spring', damping: 0.4 });
  await popover.getByRole('button', { name: 'Family' }).click();
  await popover.getByLabel('Family').selectOption('back');
  await expect.poll(ease).toMatchObject({ type: 'bezier', y2: 1 });
  await popover.getByRole('button', { name: 'Named' }).click();
  await popover.getByRole('button', { name: /^Swing home/ }).click();
  await expect.poll(ease).toMatchObject({ type: 'curve', id: 'curve-swing', revision: 1 });
  await page.keyboard.press('Escape');
  await expect(popover).toHaveCount(0);
  await expect(page.getByRole('button', { name: /^Easing of scale after Start: Swing home/ })).toBeFocused();
});

test('keys made by hand on one layer become a preset that lands on ten others of other sizes and rest poses', async ({
  page,
}) => {
  const copy = await copyOf(page, 'programme-board');
  const scene = new SceneScreen(page);
  await scene.open(copy);

  // By hand on the moon: from 80 px below at half size, landing at frame 20.
  await page.getByRole('button', { name: 'Hide dry run' }).click();
  await scene.row('Moon').click();
  await page.getByRole('tab', { name: 'layer' }).click();
  const panel = page.locator('wx-hand-keys');
  for (const channel of ['position.y', 'scale.x']) await panel.getByLabel('Another channel').selectOption(channel);
  const key = async (label: string, value: string): Promise<void> => {
    await panel.getByRole('textbox', { name: label }).fill(value);
    await panel.getByRole('textbox', { name: label }).press('Enter');
  };
  await scene.setTime('0:00');
  await key('position y', '360 px');
  await key('scale x', '50 %');
  await scene.setTime('0:20');
  await key('position y', '280 px');
  await key('scale x', '100 %');
  await scene.saved();
  await expect
    .poll(async () => keysOf(await scene.stored(copy), 'moon', 'position.y'))
    .toEqual([
      [0, 360],
      [20, 280],
    ]);

  // Recorded, with the distance as a parameter.
  await panel.getByRole('button', { name: 'Record as a preset…' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByLabel('It is')).toHaveValue('entrance');
  await dialog.getByRole('textbox', { name: /^Name for 80 px/ }).fill('Rise');
  await dialog.getByRole('button', { name: 'Record', exact: true }).click();
  const bench = new BenchScreen(page);
  await expect(bench.name).toHaveValue('From Moon');
  await expect(bench.cell('position y at Start')).toContainText('rest + @rise');
  await expect(bench.cell('scale x at Start')).toContainText('rest × 50%');
  await bench.publish();
  const preset = bench.id;

  // On ten layers of other sizes, places and rest scales.
  const { id: _id, ...base } = await scene.stored(copy);
  const moon = base.layers.find((layer) => layer.id === 'moon') as Scene['layers'][number];
  const layers = Array.from({ length: 10 }, (_, i) => ({
    ...moon,
    id: `copy-${i}`,
    name: `Copy ${i}`,
    tags: ['copies'],
    tracks: {},
    rest: { ...moon.rest, 'position.y': 100 + i * 70, 'size.x': 30 + i * 40, 'scale.x': 1 + i * 0.25 },
  }));
  const response = await page.request.post('/api/scenes', {
    data: { by: 'Test', scene: { ...base, name: 'Ten', runs: [], layers } },
  });
  const ten = ((await response.json()) as { scene: Scene }).scene.id;
  await page.goto(`/scenes/${ten}?preset=${preset}`);
  await scene.planned();
  await expect(scene.applyButton).toHaveText('Apply to 10');
  await scene.apply();
  await scene.saved();
  await expect.poll(async () => (await scene.stored(ten)).runs.length).toBe(1);
  const after = await scene.stored(ten);
  layers.forEach(({ id, rest }, i) => {
    const [start] = keysOf(after, id, 'position.y');
    expect(keysOf(after, id, 'position.y')).toEqual([
      [start[0], rest['position.y'] + 80],
      [start[0] + 20, rest['position.y']],
    ]);
    const scale = 1 + i * 0.25;
    expect(keysOf(after, id, 'scale.x').map(([, value]) => value)).toEqual([scale / 2, scale]);
  });
});

test('a draft is tried on a scene without being applied, and the matching exit is made and linked by name', async ({
  page,
}) => {
  const copy = await copyOf(page, 'programme-board');
  const bench = new BenchScreen(page);
  await bench.open('unfold');
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Make the matching exit' }).click();
  await expect(bench.name).toHaveValue('Unfold (exit)');
  await expect(bench.cell('Time of Rest')).toContainText('0f');
  await expect(bench.cell('Time of Gone')).toContainText('@lasts');
  await expect(page.getByRole('button', { name: /^Easing of scale x after Rest: Arrive, backwards/ })).toBeVisible();
  await page.getByRole('button', { name: 'Try on a scene' }).click();
  await page.getByRole('menuitem', { name: 'Programme board (copy)' }).first().click();
  const scene = new SceneScreen(page);
  await scene.planned();
  await expect(scene.field('preset')).toHaveText('Unfold (exit)');
  await expect(page.getByRole('button', { name: 'Publish it to apply' })).toBeDisabled();
  await page.getByRole('tab', { name: /^findings/i }).click();
  await expect(page.getByRole('tabpanel')).toContainText('“Unfold (exit)” is a draft. It can be tried here');
  await page.goBack();
  await bench.publish();
  const library = new LibraryScreen(page);
  await library.open();
  await library.choose('Unfold');
  await expect(library.drawer).toContainText('Mirrored by');
  await expect(library.drawer.getByRole('link', { name: 'Unfold (exit)' })).toBeVisible();
  expect(copy).not.toBe('');
});

test('a second window is told that the draft was changed; nothing of either is lost', async ({ page }) => {
  const bench = new BenchScreen(page);
  await bench.open('shrink-away');
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Duplicate' }).click();
  await expect(bench.name).toHaveValue('Shrink away (copy)');
  const { id } = bench;
  const other = await windowBeside(page);
  const second = new BenchScreen(other);
  await second.open(id);
  await expect(second.name).toHaveValue('Shrink away (copy)');

  // What is kept in one window appears in the other.
  await bench.name.fill('Mine');
  await bench.kept();
  await expect(second.name).toHaveValue('Mine');

  // Both change it while the second cannot reach the server.
  await other.route('**/api/library/*/draft', (route) => route.abort());
  await other.route('**/api/events', (route) => route.abort());
  await second.name.fill('Theirs');
  await expect(second.note).toContainText('not kept');
  await bench.name.fill('Mine again');
  await bench.kept();
  await other.unroute('**/api/library/*/draft');
  await second.name.fill('Theirs again');
  const dialog = other.getByRole('dialog');
  await expect(dialog).toContainText('changed this draft in another window');
  await dialog.getByRole('button', { name: /^Take theirs/ }).click();
  await expect(second.name).toHaveValue('Mine again');
  await other.getByRole('button', { name: /^Undo Take what the other window has/ }).click();
  await expect(second.name).toHaveValue('Theirs again');
  await second.kept();
  await expect.poll(async () => (await storedItem(page, id)).entry.item.name).toBe('Theirs again');
  await other.close();
});

test('the specimen is a word, a picture, twelve in a row, or the layers of a scene', async ({ page }) => {
  const bench = new BenchScreen(page);
  await bench.open('rise-and-settle');
  const kinds = page.getByRole('group', { name: 'Shown on' });
  const picture = async (): Promise<string> =>
    page.locator('wx-specimen-view canvas').evaluate((canvas: HTMLCanvasElement) => canvas.toDataURL());
  await page.locator('wx-specimen-view').getByRole('button', { name: 'Pause' }).click();
  const seen = new Set([await picture()]);
  for (const kind of ['word', 'picture', '12 in a row']) {
    await kinds.getByRole('button', { name: kind }).click();
    await expect(kinds.getByRole('button', { name: kind })).toHaveAttribute('aria-pressed', 'true');
    await expect.poll(picture).not.toBe([...seen].pop());
    seen.add(await picture());
  }
  await kinds.getByRole('button', { name: 'a scene…' }).click();
  await page.getByRole('menuitem', { name: 'Constellations' }).first().click();
  await expect(page.locator('wx-specimen-view')).toContainText('30 fps');
  await expect(kinds.getByRole('combobox', { name: 'Layers of the scene' })).toHaveValue('star');
});
