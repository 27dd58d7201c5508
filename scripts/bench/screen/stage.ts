import type { Page } from '@playwright/test';
import { report } from '../measure';
import { keyedScene } from '../scenes';
import { framesWhile, SCREEN_FRAME } from './frames';
import { ADDRESS, store, TASK } from './page';

/** One layer dragged by hand among three hundred that have keys. */
export async function benchStage(page: Page): Promise<void> {
  const { id: _id, ...scene } = keyedScene(300, 'few');
  const id = await store(page, scene);
  await page.goto(`${ADDRESS}/scenes/${id}`);
  await page.getByText('as it stands').first().waitFor();
  await page.getByRole('tab', { name: 'Cues' }).click();
  await page.locator('wx-run-sheet [role=row][data-layer]').nth(3).click();
  const corners = page.locator('[data-grip^=corner]');
  await corners.first().waitFor();
  const [a, b] = [await corners.nth(0).boundingBox(), await corners.nth(2).boundingBox()];
  if (!a || !b) throw new Error('Nothing is selected.');
  const [x, y] = [(a.x + b.x + a.width) / 2, (a.y + b.y + a.height) / 2];
  await page.waitForTimeout(800);
  const frames = await framesWhile(page, async () => {
    await page.mouse.move(x, y);
    await page.mouse.down();
    for (let i = 1; i <= 60; i++) {
      await page.mouse.move(x + i, y + Math.sin(i / 6) * 20);
      await page.waitForTimeout(12);
    }
  });
  await page.mouse.up();
  const [middle, most] = [frames[frames.length >> 1] ?? 0, frames[frames.length - 1] ?? 0];
  report(
    'a layer dragged among 300: frames',
    `${middle.toFixed(1)} ms, at most ${most.toFixed(0)} ms`,
    `${SCREEN_FRAME.toFixed(1)} ms, ${TASK} ms`,
    middle <= SCREEN_FRAME + 1 && most <= TASK,
  );
}
