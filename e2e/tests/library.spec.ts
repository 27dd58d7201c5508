import { readPack, STARTER_LIBRARY, STARTER_PRESETS } from '@wexikine/core';
import { LibraryScreen, saved, storedItem, storedLibrary } from '../pages/library-screen';
import { copyOf, SceneScreen } from '../pages/scene-screen';
import { expect, test, windowBeside } from '../pages/test';

test('the library is searched, narrowed down, tried, and used in a scene', async ({ page }) => {
  await copyOf(page, 'programme-board');
  await page.goto('/');
  await page.getByRole('link', { name: 'Library' }).click();
  const library = new LibraryScreen(page);
  await expect(library.status).toBeVisible();
  const total = (await storedLibrary(page)).length;
  const exits = STARTER_PRESETS.filter(({ body }) => body.phase === 'exit').length;
  await library.facet('exit').click();
  await expect(library.facet('exit')).toHaveAttribute('aria-pressed', 'true');
  await expect(library.status).toHaveText(new RegExp(`^(${exits}|\\d+) of ${total} items$`));
  await library.facet('exit').click();
  await library.search.fill('bumb');
  await expect(library.status).toHaveText(`1 of ${total} items`);
  await expect(library.drawer.getByRole('heading', { name: 'Bump' })).toBeVisible();
  await page.getByRole('slider', { name: 'Swell' }).fill('40');
  await expect(page.getByText('40 %', { exact: true })).toBeVisible();
  await library.search.fill('nothing like it');
  await expect(page.getByRole('heading', { name: 'Nothing fits' })).toBeVisible();
  await page.getByRole('button', { name: 'Show all' }).click();
  await library.choose('Fade out');
  await page.getByRole('button', { name: 'Use in a scene' }).click();
  await page.getByRole('menuitem', { name: 'Programme board (copy)' }).first().click();
  const scene = new SceneScreen(page);
  await scene.planned();
  await expect(scene.field('preset')).toHaveText('Fade out');
  await expect(scene.field('operation')).toHaveText('Send out');
});

test('several items are tagged, moved, exported and retired at once; a retired one is offered nowhere else', async ({
  page,
}) => {
  const library = new LibraryScreen(page);
  await library.open();
  await library.search.fill('slide edge');
  await library.select('Slide from top edge', 'Slide to top edge');
  const bar = page.getByRole('toolbar', { name: 'With the selected items' });
  await expect(bar).toContainText('2 items');

  await bar.getByRole('button', { name: 'Tag' }).click();
  await page.getByRole('dialog').getByRole('combobox').fill('vertical, <b>');
  await expect(page.getByRole('alert')).toContainText('plain text');
  await page.getByRole('dialog').getByRole('combobox').fill('vertical, strong');
  await page.getByRole('dialog').getByRole('button', { name: 'Tag', exact: true }).click();
  await expect(library.facet('vertical')).toContainText('2');

  await bar.getByRole('button', { name: 'Move' }).click();
  await page.getByRole('dialog').getByRole('combobox').fill('Edges');
  await page.getByRole('dialog').getByRole('button', { name: 'Move', exact: true }).click();
  await expect(library.facet('Edges')).toContainText('2');

  const file = await saved(page, () => bar.getByRole('button', { name: 'Export' }).click());
  expect(file.name).toBe('pack.zip');
  const pack = readPack(new Uint8Array(file.bytes));
  if (!pack.ok) throw new Error(JSON.stringify(pack.problems));
  expect(pack.records.map(({ id }) => id)).toEqual([
    'curve-arrive',
    'curve-soft',
    'slide-from-top-edge',
    'slide-to-top-edge',
  ]);
  expect(pack.records[3]).toMatchObject({ tags: ['edge', 'matching', 'vertical', 'strong'], collection: 'Edges' });

  await bar.getByRole('button', { name: 'Retire' }).click();
  await expect(page.getByText(/2 items retired/)).toBeVisible();
  await expect(library.tile('Slide from top edge')).toHaveCount(0);
  const { changes } = await storedItem(page, 'slide-from-top-edge');
  expect(changes.map(({ what }) => what)).toEqual(['Retired', 'Moved to “Edges”', 'Tagged vertical, strong']);

  // Not offered in the sentence of a scene.
  const other = await page.context().newPage();
  const scene = new SceneScreen(other);
  await scene.open(await copyOf(page, 'programme-board'));
  await scene.field('preset').click();
  await scene.editor.getByRole('searchbox', { name: 'Search presets' }).fill('slide top edge');
  await expect(scene.editor.getByText(/No preset is like/)).toBeVisible();
  await other.close();

  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(library.tile('Slide from top edge')).toHaveCount(1);
});

test('a retired preset keeps working where it is used', async ({ page }) => {
  const copy = await copyOf(page, 'programme-board');
  const scene = new SceneScreen(page);
  await page.goto(`/scenes/${copy}?preset=spin-in`);
  await scene.planned();
  await scene.apply();
  await scene.saved();
  await page.request.patch('/api/library', { data: { by: 'Test', ids: ['spin-in'], retired: true } });
  await page.goto(`/scenes/${copy}?preset=spin-in`);
  await scene.planned();
  await expect(scene.field('preset')).toHaveText('Spin in');
  const library = new LibraryScreen(page);
  await library.open();
  await library.facet('retired').click();
  await library.tile('Spin in').getByRole('button').click();
  await expect(library.drawer).toContainText('retired r1');
  await expect(library.drawer).toContainText('Used in scenes');
  await expect(library.drawer).toContainText('12 layers · r1');
  await library.drawer.getByRole('button', { name: 'More for Spin in' }).click();
  await page.getByRole('menuitem', { name: 'Bring back' }).click();
  await expect.poll(async () => (await storedItem(page, 'spin-in')).entry.item.state).toBe('published');
});

test('tiles are gone through, ticked, marked and opened by the keyboard alone', async ({ page }) => {
  const library = new LibraryScreen(page);
  await library.open();
  await page.getByRole('combobox', { name: 'Order' }).selectOption('by name');
  await library.search.focus();
  const first = library.tiles.first().getByRole('button');
  await first.focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowDown');
  const focused = page.locator('wx-item-tile .open:focus');
  await expect(focused).toHaveCount(1);
  const name = (await focused.locator('.name').textContent()) ?? '';
  await page.keyboard.press('f');
  await expect(library.facet('favourites')).toContainText('1');
  await page.keyboard.press(' ');
  await expect(page.getByRole('toolbar', { name: 'With the selected items' })).toContainText('1 item');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('textbox', { name: 'Name', exact: true })).toHaveValue(name);
  await page.getByRole('link', { name: 'Back to the library' }).click();
  await expect(library.facet('recent')).toContainText('1');
});

test('what one window changes is in every other one at once', async ({ page, context }) => {
  const library = new LibraryScreen(page);
  await library.open();
  const other = await windowBeside(page);
  const second = new LibraryScreen(other);
  await second.open();
  await library.begin('New curve');
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill('Seen at once');
  await second.search.fill('seen at once');
  await expect(second.tile('Seen at once')).toBeVisible();
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Discard the draft…' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Discard' }).click();
  await expect(second.tile('Seen at once')).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(second.tile('Seen at once')).toBeVisible();

  // The window that held the connection closes; the other one takes it over.
  await second.search.fill('');
  await page.close();
  const api = await context.newPage();
  await expect
    .poll(async () => {
      await api.request.patch('/api/library', { data: { by: 'Test', ids: ['nod'], collection: `C${Date.now()}` } });
      await other.waitForTimeout(300);
      return second.facets.textContent();
    })
    .toMatch(/C\d{13}/);
  await api.request.patch('/api/library', { data: { by: 'Test', ids: ['nod'], collection: null } });
  await other.close();
});

test('the starter library is all there, each with its picture', async ({ page }) => {
  const library = new LibraryScreen(page);
  await library.open();
  const stored = await storedLibrary(page);
  for (const { id } of STARTER_LIBRARY) expect(stored.some(({ item }) => item.id === id)).toBe(true);
  const ids = STARTER_PRESETS.map(({ id }) => id);
  await expect
    .poll(() =>
      library.tiles.evaluateAll((tiles, known) => {
        const canvases = tiles
          .filter((tile) => known.includes((tile as HTMLElement).dataset['item'] ?? ''))
          .map((tile) => tile.querySelector('canvas') as HTMLCanvasElement);
        const isDrawn = (canvas: HTMLCanvasElement): boolean => {
          const data = canvas.getContext('2d')?.getImageData(0, 0, canvas.width, canvas.height).data ?? [];
          return data.some((value) => value > 0);
        };
        return canvases.length >= 8 && canvases.every(isDrawn);
      }, ids),
    )
    .toBe(true);
});
