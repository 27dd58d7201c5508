import type { Page } from '@playwright/test';
import { expect, test, windowBeside } from '../pages/test';
import { frameTicks, programmeBoard, type Scene } from '@wexikine/core';
import { card, sceneWith } from '../pages/made-scenes';
import { copyOf, SceneScreen } from '../pages/scene-screen';

/** Stores a scene with a number of plain cards in a grid and gives its id. */
async function sceneOf(page: Page, count: number): Promise<string> {
  const { id: _id, layers, ...rest } = programmeBoard();
  const [pattern] = layers.filter((layer) => layer.id === 'moon');
  const cards = Array.from({ length: count }, (_, i) => ({
    ...pattern,
    id: `card-${i + 1}`,
    name: `Card ${i + 1}`,
    tags: ['card'],
    rest: {
      ...pattern.rest,
      'position.x': 60 + (i % 25) * 75,
      'position.y': 60 + Math.floor(i / 25) * 80,
      'size.x': 60,
      'size.y': 60,
    },
  }));
  const scene: Omit<Scene, 'id'> = { ...rest, name: `${count} cards`, layers: cards };
  const response = await page.request.post('/api/scenes', { data: { scene, by: 'Test' } });
  return ((await response.json()) as { scene: Scene }).scene.id;
}

/** Stores a scene with three cards beside each other and gives its id. */
async function threeBeside(page: Page): Promise<string> {
  return sceneWith(
    page,
    [0, 1, 2].map((i) =>
      card(`c${i}`, {
        name: `Card ${i}`,
        rest: { 'position.x': 400 + 500 * i, 'position.y': 500, 'size.x': 200, 'size.y': 200 },
      }),
    ),
  );
}

test('a number in the sentence is scrubbed by dragging, and the dry run follows', async ({ page }) => {
  const screen = new SceneScreen(page);
  await screen.open('programme-board');
  expect(await screen.times('Dark adaptation')).toEqual(['0:08', '20 f']);
  const box = await screen.field('spacing').boundingBox();
  if (!box) throw new Error();
  await page.mouse.move(box.x + 10, box.y + 10);
  await page.mouse.down();
  await page.mouse.move(box.x + 30, box.y + 10, { steps: 5 });
  await page.mouse.up();
  await expect(screen.field('spacing')).toHaveText('9 f');
  await expect(screen.editor).toHaveCount(0);
  await expect.poll(() => screen.times('Dark adaptation')).toEqual(['0:18', '20 f']);
});

test('values per layer: by turns, shown in a column of the sheet', async ({ page }) => {
  const screen = new SceneScreen(page);
  await screen.open('programme-board');
  await page.getByRole('button', { name: 'Set another parameter' }).click();
  await screen.editor.getByRole('button', { name: /^Tilt/ }).click();
  await screen.editor.getByText('By turns').click();
  await screen.closeEditor();
  await expect(screen.field('parameter:tilt')).toHaveText('6 °, −6 ° by turns'.replace(/ °/g, '°'));
  await expect(screen.row('Moonrise walk').getByRole('gridcell').nth(4)).toHaveText('6°');
  await expect(screen.row('First light: telescopes').getByRole('gridcell').nth(4)).toHaveText('−6°');
  // Another column on demand, and this one away.
  await page.getByRole('button', { name: 'Choose the columns' }).click();
  await page.getByRole('menuitemcheckbox', { name: 'Past its place' }).click();
  await expect(page.getByRole('columnheader', { name: 'Past its place' })).toBeVisible();
  await page.getByRole('menuitemcheckbox', { name: 'Tilt' }).click();
  await expect(page.getByRole('columnheader', { name: 'Tilt' })).toHaveCount(0);
  await page.keyboard.press('Escape');
});

test('a wrong value is told under its field, and the sentence keeps the last good one', async ({ page }) => {
  const screen = new SceneScreen(page);
  await screen.open('programme-board');
  await screen.field('spacing').click();
  await screen.editor.getByRole('textbox', { name: 'Gap' }).fill('1:99');
  await expect(screen.editor.getByRole('alert')).toContainText(
    'At 25 frames a second the last frame of a second is 24.',
  );
  await expect(screen.field('spacing')).toHaveText('4 f');
  await screen.editor.getByRole('textbox', { name: 'Gap' }).fill('0.5s');
  await expect(screen.editor).toContainText('Nearest frame 13; this is 0.5 f before it.');
  await screen.closeEditor();
  await screen.setTime('soon');
  await expect(page.getByRole('alert')).toContainText('This is not a time.');
});

test('findings name layers, go there, and errors keep the run from being applied', async ({ page }) => {
  const screen = new SceneScreen(page);
  await screen.open('programme-board');
  await screen.field('start').click();
  await screen.editor.getByText('At a time of the scene').click();
  await screen.editor.getByRole('textbox', { name: 'Time' }).fill('4:00');
  await screen.closeEditor();
  await page.getByRole('tab', { name: /^findings/i }).click();
  const finding = page.getByRole('listitem').filter({ hasText: 'outside the scene' });
  await expect(finding).toContainText('“Long exposure”');
  await finding.getByRole('button', { name: 'Go there' }).click();
  await expect(screen.row('Long exposure')).toHaveAttribute('aria-selected', 'true');
  await screen.field('pick').click();
  await screen.editor.getByRole('textbox', { name: /^Named/ }).fill('nobody*');
  await screen.closeEditor();
  await expect(screen.applyButton).toBeDisabled();
  await expect(page.getByRole('tabpanel')).toContainText('No layer is picked.');
});

test('layers are ticked in the sheet, groups opened, all by keyboard', async ({ page }) => {
  const screen = new SceneScreen(page);
  await screen.open('programme-board');
  await screen.showAll();
  await screen.row('Meteor count').click();
  await page.keyboard.press(' ');
  await expect(screen.field('pick')).toHaveText('11 layers');
  await expect(screen.applyButton).toHaveText('Apply to 11');
  await page.keyboard.press('ArrowRight');
  await expect(screen.row('Meteor count, card')).toBeVisible();
  await page.keyboard.press('ArrowDown');
  await expect(screen.row('Meteor count, card')).toBeFocused();
  // The focus goes with its layer, when that is moved in depth and when undoing puts it back.
  await page.keyboard.press('ArrowUp');
  const at = Number(await screen.row('Meteor count').getAttribute('aria-rowindex'));
  await page.keyboard.press('Control+Shift+ArrowUp');
  await expect(screen.row('Meteor count')).toHaveAttribute('aria-rowindex', String(at - 1));
  await expect(screen.row('Meteor count')).toBeFocused();
  await page.keyboard.press('Control+z');
  await expect(screen.row('Meteor count')).toHaveAttribute('aria-rowindex', String(at));
  await expect(screen.row('Meteor count')).toBeFocused();
});

test('layers are selected in the sheet: one more with Ctrl, several with Shift, all by keys; the preview and the rows show which', async ({
  page,
}) => {
  const id = await threeBeside(page);
  const screen = new SceneScreen(page);
  await screen.openAtRest(id);
  const isSelected = (): Promise<(string | null)[]> =>
    Promise.all([0, 1, 2].map((i) => screen.row(`Card ${i}`).getAttribute('aria-selected')));
  await screen.row('Card 0').click();
  await expect.poll(isSelected).toEqual(['true', 'false', 'false']);
  await screen.row('Card 2').click({ modifiers: ['Control'] });
  await expect.poll(isSelected).toEqual(['true', 'false', 'true']);
  await screen.row('Card 2').click({ modifiers: ['Control'] });
  await expect.poll(isSelected).toEqual(['true', 'false', 'false']);
  const wordsSelected = (): Promise<string> => page.evaluate(() => getSelection()?.toString() ?? '');
  await screen.row('Card 2').click({ modifiers: ['Shift'] });
  await expect.poll(isSelected).toEqual(['true', 'true', 'true']);
  expect(await wordsSelected()).toBe('');
  await screen.row('Card 1').click();
  await screen.row('Card 0').click({ modifiers: ['Shift'] });
  await expect.poll(isSelected).toEqual(['true', 'true', 'false']);
  await page.keyboard.press('Control+a');
  await expect.poll(isSelected).toEqual(['true', 'true', 'true']);
  // No text of the page is selected with them, and what is done next is done with all of them.
  expect(await wordsSelected()).toBe('');
  await page.locator('wx-preview > canvas').focus();
  await page.keyboard.press('ArrowRight');
  await expect
    .poll(async () => (await screen.stored(id)).layers.map(({ rest }) => rest['position.x']))
    .toEqual([401, 901, 1401]);
});

test('the exact places on screen: posts of the strip stand where the keys are', async ({ page }) => {
  const screen = new SceneScreen(page);
  await screen.open('programme-board');
  const strip = screen.row('Dark adaptation').locator('svg').last();
  const width = Number(await strip.getAttribute('width'));
  const marks = strip.locator('.mark.new');
  const path = (await marks.getAttribute('d')) ?? '';
  expect(path.match(/V26/g)).toHaveLength(5);
  const x = Number(/L([\d.]+) /.exec(path)?.[1]);
  expect(x).toBeCloseTo((8 / 150) * width, 1);
  expect(frameTicks({ num: 25, den: 1 }) * 150).toBe(programmeBoard().length);
});

test('two windows: the later one is told, sees what changed, and chooses; nothing is lost', async ({
  page,
  context,
}) => {
  // Without news the windows only learn of each other when they save.
  await context.route('**/api/events', (route) => route.abort());
  const id = await copyOf(page, 'programme-board');
  const other = await windowBeside(page);
  const [mine, theirs] = [new SceneScreen(page), new SceneScreen(other)];
  await mine.open(id);
  await theirs.open(id);
  await theirs.showAll();
  await theirs.row('Moon').click();
  await other.getByRole('tab', { name: 'layer' }).click();
  await other.getByRole('textbox', { name: 'Name' }).fill('Full moon');
  await other.getByRole('textbox', { name: 'Name' }).press('Tab');
  await theirs.saved();
  await expect.poll(async () => (await theirs.stored(id)).layers.some(({ name }) => name === 'Full moon')).toBe(true);

  await mine.applyButton.click();
  const dialog = page.getByRole('dialog', { name: 'This scene was changed in another window' });
  await expect(dialog).toContainText('Rename “Moon” to “Full moon”');
  await expect(dialog).toContainText('No layer was changed on both sides');
  await dialog.getByRole('button', { name: 'Keep both' }).click();
  await mine.saved();
  await expect.poll(async () => (await mine.stored(id)).runs.length).toBe(1);
  const merged = await mine.stored(id);
  expect(merged.layers.some(({ name }) => name === 'Full moon')).toBe(true);
  expect(merged.layers.find(({ id: layer }) => layer === 'row-01')?.tracks.opacity).toHaveLength(2);
});

test('a lost connection is said, work goes on, and it is saved when the server answers again', async ({ page }) => {
  const id = await copyOf(page, 'constellations');
  const screen = new SceneScreen(page);
  await screen.open(id);
  await page.route('**/api/scenes/**', (route) =>
    route.request().method() === 'PUT' ? route.abort() : route.continue(),
  );
  await screen.applyButton.click();
  await expect(page.getByText('not saved: no connection, trying again')).toBeVisible();
  expect((await screen.stored(id)).runs).toEqual([]);
  await page.unroute('**/api/scenes/**');
  await expect.poll(async () => (await screen.stored(id)).runs.length, { timeout: 15_000 }).toBe(1);
  await screen.saved();
});

for (const count of [0, 1, 300]) {
  test(`a scene with ${count} layers works`, async ({ page }) => {
    const screen = new SceneScreen(page);
    const id = await sceneOf(page, count);
    await page.goto(`/scenes/${id}`);
    if (count === 0) {
      await expect(page.getByText('This scene has no layers yet')).toBeVisible();
      await expect(screen.applyButton).toBeDisabled();
      await page.getByRole('button', { name: 'Add layers' }).click();
      await page.getByRole('textbox', { name: 'Names, one a line' }).fill('One\nTwo\nThree');
      await page.getByRole('button', { name: 'Add 3 layers' }).click();
      // They stand at rest, in one row, selected; the sentence is about them.
      await expect(screen.applyButton).toHaveText('Dry run on 3');
      for (const name of ['One', 'Two', 'Three'])
        await expect(screen.row(name)).toHaveAttribute('aria-selected', 'true');
      const { layers } = await screen.saved().then(async () => screen.stored(id));
      expect(new Set(layers.map(({ rest }) => rest['position.y'])).size).toBe(1);
      await screen.dryRun();
      await expect(screen.applyButton).toHaveText('Apply to 3');
      return;
    }
    await screen.dryRun();
    await expect(screen.applyButton).toHaveText(`Apply to ${count}`);
    await screen.applyButton.click();
    await expect.poll(async () => (await screen.stored(id)).runs.length).toBe(1);
    await page.getByRole('searchbox', { name: 'Find layers' }).fill(`card ${count}`);
    await expect(screen.row(`Card ${count}`)).toBeVisible();
  });
}

test('layers that stand level share one place: it is told, and a press orders them by what tells them apart', async ({
  page,
}) => {
  const id = await threeBeside(page);
  const screen = new SceneScreen(page);
  await screen.openAtRest(id);
  await screen.dryRun();
  await expect(screen.field('order')).toHaveText('top to bottom');
  const starts = async (): Promise<(string | undefined)[]> =>
    (await Promise.all([0, 1, 2].map((i) => screen.times(`Card ${i}`)))).map(([start]) => start);
  expect(await starts()).toEqual(['0:00', '0:00', '0:00']);
  await page.getByRole('tab', { name: /^Findings/ }).click();
  await expect(page.getByText('share one place in the order, so they start together')).toBeVisible();
  await page.getByRole('button', { name: 'Take them left to right' }).click();
  await expect(screen.field('order')).toHaveText('left to right');
  await expect.poll(starts).toEqual(['0:00', '0:04', '0:08']);
  await expect(page.getByText('share one place in the order')).toHaveCount(0);
});

test('a scene that flashes too often is told so, with where; one click goes there', async ({ page }) => {
  const frame = frameTicks(programmeBoard().rate);
  const flashing = Array.from({ length: 30 }, (_, i) => ({
    at: (10 + 2 * i) * frame,
    value: i % 2,
    ease: { type: 'hold' as const },
  }));
  const id = await sceneWith(page, [
    card('lamp', {
      name: 'Lamp',
      rest: { 'position.x': 960, 'position.y': 540, 'size.x': 900, 'size.y': 900 },
      look: { fill: '#ffffff' },
      tracks: { opacity: flashing },
    }),
  ]);
  const screen = new SceneScreen(page);
  await screen.openAtRest(id);
  await page.getByRole('tab', { name: /^Findings/ }).click();
  const told = page.getByText(/flashes more than three times in a second .* first at 1:01: “Lamp”/);
  await expect(told).toBeVisible();
  await page.getByRole('button', { name: /^Go there/ }).click();
  await expect(screen.time).toHaveValue('00:00:01:01');
});
