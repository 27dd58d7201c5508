import { expect, type Page } from '@playwright/test';

/**
 * Waits until the first of some elements says something, looked at in each frame: an expectation looks again after up to a
 * second, and these are waited for hundreds of times.
 */
export async function untilText(page: Page, selector: string, text: RegExp): Promise<void> {
  const said = await page.evaluate(
    ({ where, pattern, patience }) =>
      new Promise<string>((done) => {
        const wanted = new RegExp(pattern);
        const end = performance.now() + patience;
        const look = (): void => {
          const now = document.querySelector(where)?.textContent?.trim() ?? '';
          if (wanted.test(now) || performance.now() > end) done(now);
          else requestAnimationFrame(look);
        };
        look();
      }),
    { where: selector, pattern: text.source, patience: 15_000 },
  );
  expect(said).toMatch(text);
}
