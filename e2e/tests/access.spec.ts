import AxeBuilder from '@axe-core/playwright';
import { expect, test, type Page } from '@playwright/test';
import { SceneScreen } from '../pages/scene-screen';

async function expectNoFaults(page: Page): Promise<void> {
  const { violations } = await new AxeBuilder({ page })
    .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'])
    .analyze();
  expect(violations.map(({ id, nodes }) => `${id}: ${nodes.map(({ target }) => target.join(' ')).join(', ')}`)).toEqual(
    [],
  );
}

for (const theme of ['light', 'dark'] as const) {
  test.describe(`in the ${theme} theme`, () => {
    test.beforeEach(async ({ page }) => {
      await page.addInitScript((value) => localStorage.setItem('wexikine.theme', value), theme);
    });

    test('scenes, library and shortcuts are accessible', async ({ page }) => {
      for (const [path, heading] of [
        ['/scenes', 'Scenes'],
        ['/library', 'Rise & settle'],
        ['/shortcuts', 'Shortcuts'],
      ]) {
        await page.goto(path);
        if (path === '/library') await page.getByRole('button', { name: /^Rise & settle/ }).click();
        await expect(page.getByRole('heading', { name: heading, exact: true })).toBeVisible();
        await expectNoFaults(page);
      }
      await page.goto('/scenes');
      await page.getByRole('button', { name: 'New scene' }).click();
      await page.waitForTimeout(400);
      await expectNoFaults(page);
    });

    test('a scene with each of its panels is accessible', async ({ page }) => {
      test.setTimeout(150_000);
      const screen = new SceneScreen(page);
      await screen.open('programme-board');
      for (const panel of ['curve', 'layer', 'findings', 'history']) {
        await page.getByRole('tab', { name: new RegExp(`^${panel}`) }).click();
        await expectNoFaults(page);
      }
    });

    test('the editors of the sentence are accessible', async ({ page }) => {
      test.setTimeout(150_000);
      const screen = new SceneScreen(page);
      await screen.open('programme-board');
      for (const field of ['preset', 'pick', 'order', 'length']) {
        await screen.field(field).click();
        await expect(screen.editor).toBeVisible();
        await expectNoFaults(page);
        await screen.closeEditor();
      }
    });
  });
}
