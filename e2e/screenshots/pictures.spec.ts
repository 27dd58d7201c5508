import type { Page } from '@playwright/test';
import { expect, test } from '../pages/test';
import { recordOf, STARTER_LIBRARY, writePack } from '@wexikine/core';
import { join } from 'node:path';
import { BenchScreen } from '../pages/bench-screen';
import { LibraryScreen } from '../pages/library-screen';
import { copyOf, SceneScreen } from '../pages/scene-screen';

const FOLDER = join(import.meta.dirname, '../../docs/screenshots');

async function take(page: Page, name: string): Promise<void> {
  // What is said for a moment is not part of a view.
  await page.locator('mat-snack-bar-container').waitFor({ state: 'detached' });
  await page.waitForTimeout(600);
  await page.screenshot({ path: `${FOLDER}/${name}.png` });
}

test('scenes', async ({ page }) => {
  await page.goto('/scenes');
  await page.waitForTimeout(2000);
  await take(page, 'scenes');
});

test('scene with a dry run', async ({ page }) => {
  const screen = new SceneScreen(page);
  await screen.openAtRest('programme-board');
  await screen.dryRun();
  await screen.field('start').click();
  await screen.editor.getByText('At a time of the scene').click();
  await screen.editor.getByRole('textbox', { name: 'Time' }).fill('0:10');
  await screen.closeEditor();
  await page.getByRole('button', { name: 'Set another parameter' }).click();
  await screen.editor.getByRole('button', { name: /^Tilt/ }).click();
  await screen.editor.getByText('By turns').click();
  await take(page, 'scene-field');
  await screen.closeEditor();
  await screen.setTime('1:06');
  await take(page, 'scene-dry-run');
});

test('copies of layers', async ({ page }) => {
  const screen = new SceneScreen(page);
  await screen.openAtRest('sparks');
  await page.getByRole('tab', { name: /^Runs/ }).click();
  await page.getByRole('button', { name: 'Change run 1' }).click();
  await screen.setTime('2:05');
  await take(page, 'scene-multiply');
});

test('runs, cues and versions', async ({ page }) => {
  await page.goto('/');
  const screen = new SceneScreen(page);
  await screen.open(await copyOf(page, 'programme-board'));
  await screen.applyButton.click();
  await page.getByRole('tab', { name: /^cues/i }).click();
  await page.getByRole('button', { name: 'Add beats' }).click();
  await screen.saved();
  await page.getByRole('button', { name: 'Dry run' }).click();
  await screen.field('spacing').click();
  await screen.editor.getByRole('radio', { name: /^On the cues/ }).check();
  await screen.closeEditor();
  await take(page, 'scene-cues');
  await page.getByRole('tab', { name: /^runs/i }).click();
  await page.getByRole('button', { name: 'Change run 1' }).click();
  await screen.field('spacing').click();
  await screen.editor.getByLabel('Gap', { exact: true }).fill('7f');
  await screen.closeEditor();
  await page.waitForTimeout(6_000);
  await take(page, 'scene-runs');
  await page.getByRole('button', { name: 'Variants' }).click();
  await expect(page.getByRole('img', { name: 'Version 6' })).toBeVisible();
  await page.getByRole('button', { name: 'Pause' }).click();
  await take(page, 'variants');
});

test('library', async ({ page }) => {
  const library = new LibraryScreen(page);
  await library.open();
  await library.tile('Drop & bounce').getByRole('button').click();
  await page.mouse.move(1100, 760);
  await take(page, 'library');
});

test('bench', async ({ page }) => {
  const bench = new BenchScreen(page);
  await bench.open('pop-in-five-steps');
  await bench.openParameter('Past full size');
  await bench.field('Default').fill('28%');
  await bench.parameters.getByRole('button', { name: 'Past full size', exact: true }).click();
  await bench.kept();
  await page.getByRole('button', { name: 'Compare with r1' }).click();
  await page.locator('wx-specimen-view').getByRole('button', { name: 'Pause' }).click();
  await take(page, 'bench');
  await page.getByRole('button', { name: 'Use the dark theme' }).click();
  await bench.cell('scale at Dip').click();
  await page.keyboard.press('Control+a');
  await page.keyboard.type('rest × (1 - @');
  await take(page, 'bench-dark');
});

test('rigs: on the bench, and their dials in a scene', async ({ page }) => {
  const bench = new BenchScreen(page);
  await bench.open('rig-carry-and-settle');
  await page.getByRole('slider', { name: 'Carry' }).focus();
  for (let i = 0; i < 15; i++) await page.keyboard.press('ArrowUp');
  await bench.kept();
  await page.locator('wx-specimen-view').getByRole('button', { name: 'Pause' }).click();
  await take(page, 'rig-bench');
  const screen = new SceneScreen(page);
  const copy = await copyOf(page, 'programme-board');
  await screen.open(copy);
  await screen.applyButton.click();
  await expect.poll(async () => (await screen.stored(copy)).runs.length).toBe(1);
  await page.goto(`/scenes/${copy}?preset=rig-spring-to-keys`);
  await page.getByRole('button', { name: /^Apply to/ }).click();
  await page.getByRole('tab', { name: 'Dials' }).click();
  await page
    .getByRole('row', { name: /Meteor count/ })
    .getByText('Meteor count')
    .click();
  await page.getByRole('button', { name: 'Meteor count', exact: true }).click();
  await page.getByRole('slider', { name: 'Damping' }).focus();
  for (let i = 0; i < 12; i++) await page.keyboard.press('ArrowUp');
  await page.getByRole('button', { name: 'All', exact: true }).click();
  await page.getByRole('button', { name: 'Try the extremes of Damping' }).click();
  await screen.setTime('1:02');
  await page.waitForTimeout(6_000);
  await take(page, 'scene-dials');
});

test('a palette', async ({ page }) => {
  await page.goto('/library/palette-night');
  await expect(page.getByRole('heading', { name: 'Seen by other eyes' })).toBeVisible();
  await take(page, 'palette');
});

test('a pack is looked at before it is imported', async ({ page }) => {
  const starter = STARTER_LIBRARY.map(recordOf);
  const changed = starter.map((record) =>
    record.id === 'house-slow' ? { ...record, tags: ['house', 'calm'] } : { ...record, draft: null },
  );
  const more = {
    ...starter[0],
    id: 'rise-of-the-tide',
    revisions: [{ ...starter[0].revisions[0], name: 'Rise of the tide' }],
  };
  const library = new LibraryScreen(page);
  await library.open();
  await page.getByRole('button', { name: 'Import & export' }).click();
  await page.getByRole('menuitem', { name: /^Import a pack/ }).click();
  await page.getByLabel('Choose a pack or a design tokens file').setInputFiles({
    name: 'night-pack.zip',
    mimeType: 'application/zip',
    buffer: Buffer.from(writePack([...changed, more as (typeof starter)[number]])),
  });
  await expect(page.getByRole('dialog').getByRole('status')).toContainText('conflicting');
  await take(page, 'import');
});

test('a movement on the bench', async ({ page }) => {
  const bench = new BenchScreen(page);
  await bench.open('arc-home');
  await page.locator('wx-specimen-view').getByRole('button', { name: 'Pause' }).click();
  await page.locator('wx-path-editor').getByRole('slider', { name: 'Point 1 of 2' }).click();
  await take(page, 'bench-movement');
});

test('keys in rows of channels', async ({ page }) => {
  const screen = new SceneScreen(page);
  const id = await copyOf(page, 'programme-board');
  await screen.open(id);
  await screen.apply();
  await screen.saved();
  await page.keyboard.press('k');
  const view = page.locator('wx-keys-view');
  await view.getByRole('row').nth(2).focus();
  await page.keyboard.press('Enter');
  await view.getByRole('row').nth(3).focus();
  await page.keyboard.press('Shift+Enter');
  await take(page, 'scene-keys');
});

test('curves by hand, and when layers move', async ({ page }) => {
  const screen = new SceneScreen(page);
  const id = await copyOf(page, 'programme-board');
  await screen.open(id);
  await screen.apply();
  await screen.saved();
  await page.getByRole('tab', { name: 'Timing' }).click();
  await page.keyboard.press('c');
  const view = page.locator('wx-curve-panel.wide');
  await view.getByRole('button', { name: 'rotation' }).click({ modifiers: ['Shift'] });
  await view.getByRole('button', { name: 'Fit the curves' }).click();
  await view.getByRole('checkbox', { name: /position y at 0:16/ }).click();
  await take(page, 'scene-curves');
});

test('layers set out by hand', async ({ page }) => {
  const screen = new SceneScreen(page);
  const id = await copyOf(page, 'programme-board');
  await screen.openAtRest(id);
  await page.keyboard.press('v');
  await page.waitForTimeout(800);
  const place = (await page.locator('wx-preview').boundingBox()) ?? { x: 0, y: 0, width: 0, height: 0 };
  await page.mouse.click(place.x + place.width * 0.805, place.y + place.height * 0.277);
  await page.waitForTimeout(200);
  const corners = await Promise.all([0, 2].map((n) => page.locator(`[data-grip=corner-${n}]`).boundingBox()));
  const [a, b] = corners.map((box) => box ?? { x: 0, y: 0, width: 0, height: 0 });
  await page.mouse.move((a.x + b.x + a.width) / 2, (a.y + b.y + a.height) / 2);
  await page.mouse.down();
  await page.mouse.move((a.x + b.x) / 2 - 390, (a.y + b.y) / 2 + 60, { steps: 5 });
  await take(page, 'scene-stage');
  await page.mouse.up();
});

const EMBLEM = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 400 240"><g id="Tower"><rect id="Body" x="40" y="90" width="60" height="120" fill="#3f5d7d"/><path id="Dome" d="M30 90 a40 40 0 0 1 80 0 z" fill="#8a6a4f"/><g id="Windows"><rect x="55" y="110" width="12" height="20" fill="#f3c98b"/><rect x="75" y="110" width="12" height="20" fill="#f3c98b"/></g></g>
  <g id="Stars" fill="#f4ecdc"><circle id="Star one" cx="200" cy="40" r="5"/><circle id="Star two" cx="330" cy="30" r="4"/><path id="Bright star" d="M300 120 l6 14 14 2 -10 10 2 14 -12 -7 -12 7 2 -14 -10 -10 14 -2 z"/></g><g id="Glow" filter="url(#f)"><circle cx="260" cy="80" r="20" fill="#f3c98b" opacity=".6"/></g><filter id="f"><feGaussianBlur stdDeviation="6"/></filter><text id="Name" x="200" y="210" font-family="Bricolage Grotesque" font-size="34" font-weight="700" fill="#f4ecdc">Saltmarsh</text></svg>`;

test('a drawing that is brought in', async ({ page }) => {
  const screen = new SceneScreen(page);
  await screen.openAtRest(await copyOf(page, 'programme-board'));
  await page.getByRole('button', { name: 'Layers', exact: true }).click();
  await page
    .getByLabel('Files to bring in')
    .setInputFiles({ name: 'Observatory.svg', mimeType: 'image/svg+xml', buffer: Buffer.from(EMBLEM) });
  const dialog = page.getByRole('dialog', { name: /Bring in/ });
  await dialog.getByRole('button', { name: 'Open Tower' }).click();
  await page.waitForTimeout(600);
  await take(page, 'drawing');
});
