import { test, type Page } from '@playwright/test';
import { join } from 'node:path';
import { SceneScreen } from '../pages/scene-screen';

const FOLDER = join(import.meta.dirname, '../../docs/screenshots');

async function take(page: Page, name: string): Promise<void> {
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
  await screen.open('programme-board');
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
  await page.getByRole('button', { name: 'Use the dark theme' }).click();
  await page.getByRole('tab', { name: 'layer' }).click();
  await take(page, 'scene-dark');
});

test('library', async ({ page }) => {
  await page.goto('/library');
  await page.getByRole('button', { name: /^Pop in five steps/ }).click();
  await page.mouse.move(1100, 760);
  await take(page, 'library');
});

test('shortcuts', async ({ page }) => {
  await page.goto('/shortcuts');
  await take(page, 'shortcuts');
});
