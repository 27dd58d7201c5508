import type { Page } from '@playwright/test';
import { portOf } from '../pages/ports';
import { expect, test } from '../pages/test';
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { LibraryScreen, saved, storedLibrary } from '../pages/library-screen';

/** Beside those of the workers. */
const PORT = portOf(0) + 1;
const ADDRESS = `http://127.0.0.1:${PORT}`;
const FILES = mkdtempSync(join(tmpdir(), 'wexikine-packs-'));

/** A server of its own over a folder of its own. */
async function serve(folder: string): Promise<ChildProcess> {
  const child = spawn('node', ['../server/dist/main.js'], {
    cwd: import.meta.dirname.replace(/\/tests$/, ''),
    env: { ...process.env, PORT: String(PORT), WEXIKINE_DATA: folder },
  });
  await expect
    .poll(
      () =>
        fetch(`${ADDRESS}/api/health`).then(
          ({ ok }) => ok,
          () => false,
        ),
      { timeout: 60_000, intervals: [100] },
    )
    .toBe(true);
  return child;
}

async function stop(child: ChildProcess): Promise<void> {
  const ended = new Promise((done) => child.once('exit', done));
  child.kill('SIGTERM');
  await ended;
}

async function canonical(): Promise<string> {
  return (await fetch(`${ADDRESS}/api/library/canonical`)).text();
}

/** Opens the import dialog and gives it a file. */
async function give(page: Page, name: string, bytes: Uint8Array | string): Promise<void> {
  const path = join(FILES, name);
  writeFileSync(path, bytes);
  await page.getByRole('button', { name: 'Import & export' }).click();
  await page.getByRole('menuitem', { name: /^Import a pack/ }).click();
  await page.getByLabel('Choose a pack or a design tokens file').setInputFiles(path);
}

test('a pack exported, the database folder deleted, the pack imported: the same library, byte for byte', async ({
  page,
}) => {
  test.slow();
  const folder = mkdtempSync(join(tmpdir(), 'wexikine-restore-'));
  let server = await serve(folder);
  const library = new LibraryScreen(page);
  await page.goto(`${ADDRESS}/library`);
  await expect(library.tiles.first()).toBeVisible();

  // A library of one's own: a new revision, a draft, tags, a collection, something retired.
  const send = (path: string, method: string, data: object): Promise<unknown> =>
    fetch(`${ADDRESS}/api/library${path}`, {
      method,
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ by: 'Ada', ...data }),
    }).then((response) => response.json());
  const house = { kind: 'house', body: { type: 'duration', value: '12f' } };
  await send('/house-steady/draft', 'PUT', { base: 0, name: 'steady', note: 'Shorter.', content: house });
  await send('/house-steady/draft/move', 'POST', { base: 1, to: 'published', summary: 'shorter' });
  await send('/house-slow/draft', 'PUT', { base: 0, name: 'slow', note: '', content: house });
  await send('', 'PATCH', { ids: ['nod', 'bump'], addTags: ['ours'], collection: 'Small things' });
  await send('', 'PATCH', { ids: ['shake'], retired: true });
  const before = await canonical();

  const file = await saved(page, async () => {
    await page.getByRole('button', { name: 'Import & export' }).click();
    await page.getByRole('menuitem', { name: 'Export the whole library' }).click();
  });
  expect(file.name).toBe('library.zip');
  await stop(server);
  rmSync(folder, { recursive: true });

  server = await serve(folder);
  expect(await canonical()).not.toBe(before);
  await page.goto(`${ADDRESS}/library`);
  await expect(library.tiles.first()).toBeVisible();
  await give(page, 'library.zip', file.bytes);
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByRole('status')).toContainText('conflicting');
  await expect(dialog).toContainText('other tags, collection');
  await dialog.getByRole('button', { name: 'take all' }).click();
  await dialog.getByRole('button', { name: /^Import \d+ items$/ }).click();
  await expect(dialog).toHaveCount(0);
  expect(await canonical()).toBe(before);
  await stop(server);
  rmSync(folder, { recursive: true });
});

test('broken packs are reported, each in its own words, and change nothing', async ({ page }) => {
  const library = new LibraryScreen(page);
  await library.open();
  const before = JSON.stringify(await storedLibrary(page));
  await library.choose('Bump');
  await page.getByRole('button', { name: 'More for Bump' }).click();
  const file = await saved(page, () => page.getByRole('menuitem', { name: 'Export as a pack' }).click());
  const dialog = page.getByRole('dialog');
  const broken: readonly (readonly [string, Uint8Array, string])[] = [
    ['cut.zip', file.bytes.subarray(0, 600), 'The zip file is cut off: its end is missing.'],
    ['text.zip', Buffer.from('not a zip file at all'), 'This is not a zip file.'],
    ['empty.zip', Buffer.alloc(0), 'The file is empty.'],
  ];
  for (const [name, bytes, sentence] of broken) {
    await give(page, name, bytes);
    await expect(dialog.getByRole('alert')).toContainText(sentence);
    await expect(dialog.getByRole('button', { name: /^(Nothing to i|I)mport/ })).toBeDisabled();
    await page.keyboard.press('Escape');
    await expect(dialog).toHaveCount(0);
  }
  await give(page, 'huge.zip', Buffer.alloc(33 * 1024 * 1024));
  await expect(dialog.getByRole('alert')).toContainText('a pack has at most 32 MB');
  await page.keyboard.press('Escape');
  await expect(dialog).toHaveCount(0);
  await give(page, 'sound.zip', file.bytes);
  await expect(dialog.getByRole('status')).toHaveText('3 the same');
  await expect(dialog.getByRole('button', { name: 'Nothing to import' })).toBeDisabled();
  await page.keyboard.press('Escape');
  expect(JSON.stringify(await storedLibrary(page))).toBe(before);
});

test('design tokens are read with a report, become house values, and are written back', async ({ page }) => {
  const library = new LibraryScreen(page);
  await library.open();
  const tokens = {
    brand: {
      quick: { $type: 'duration', $value: { value: 120, unit: 'ms' }, $description: 'For small things.' },
      ease: { $type: 'cubicBezier', $value: [0.3, 0, 0.1, 1] },
      gap: { $type: 'dimension', $value: { value: 4, unit: 'px' } },
    },
  };
  await give(page, 'brand.tokens.json', JSON.stringify(tokens));
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('brand.quick');
  await expect(dialog).toContainText('120 ms');
  await expect(dialog).toContainText('brand.gap: the type dimension is not a house value.');
  await dialog.getByRole('button', { name: 'Import 2 items' }).click();
  await expect(library.facets.getByRole('button', { name: /^quick 120 ms$/ })).toBeVisible();

  const file = await saved(page, async () => {
    await page.getByRole('button', { name: 'Import & export' }).click();
    await page.getByRole('menuitem', { name: 'House values as design tokens' }).click();
  });
  expect(file.name).toBe('house-values.tokens.json');
  const { gap: _gap, ...kept } = tokens.brand;
  expect(JSON.parse(file.bytes.toString('utf8'))).toMatchObject({ brand: kept });

  await give(page, 'nothing.json', '{"name":"something else"}');
  await expect(dialog.getByRole('alert')).toContainText('This file has no design tokens');
  await page.keyboard.press('Escape');
  expect(readFileSync(join(FILES, 'nothing.json'), 'utf8')).toContain('something else');
});
