import type { Page } from '@playwright/test';

/** Milliseconds of a frame at sixty a second. */
export const SCREEN_FRAME = 1_000 / 60;

/** Frames while something goes on, milliseconds each. */
export async function framesWhile(page: Page, work: () => Promise<void>): Promise<number[]> {
  await page.evaluate(() => {
    const frames: number[] = [];
    let last = performance.now();
    const tick = (): void => {
      const now = performance.now();
      frames.push(now - last);
      last = now;
      requestAnimationFrame(tick);
    };
    requestAnimationFrame(tick);
    Object.assign(window, { frames });
  });
  await work();
  const frames = await page.evaluate(() => (window as unknown as { frames: number[] }).frames);
  return frames.sort((a, b) => a - b);
}
