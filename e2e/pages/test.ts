import { test as base, type BrowserContext } from '@playwright/test';
import { portOf } from './ports';

export { expect } from '@playwright/test';

const SEEN = { viewport: { width: 1280, height: 800 }, acceptDownloads: true };

/**
 * Tests that each run against the server of their worker. They share a profile of the browser, which compiles the
 * application once instead of once a test; each begins with nothing stored, no page open and no leave given.
 */
export const test = base.extend<object, { profile: BrowserContext }>({
  baseURL: async ({}, use, { parallelIndex }) => use(`http://127.0.0.1:${portOf(parallelIndex)}`),
  profile: [
    async ({ browser }, use, { parallelIndex }) => {
      const profile = await browser.newContext({ ...SEEN, baseURL: `http://127.0.0.1:${portOf(parallelIndex)}` });
      await use(profile);
      await profile.close();
    },
    { scope: 'worker' },
  ],
  context: async ({ browser, profile, hasTouch, baseURL }, use) => {
    const context = hasTouch ? await browser.newContext({ ...SEEN, hasTouch, baseURL }) : profile;
    await use(context);
    for (const page of context.pages()) await page.close();
    await context.unrouteAll();
    await context.clearPermissions();
    if (context !== profile) await context.close();
  },
  page: async ({ context, baseURL }, use) => {
    const page = await context.newPage();
    const devtools = await context.newCDPSession(page);
    await devtools.send('Storage.clearDataForOrigin', {
      origin: baseURL ?? '',
      storageTypes: 'local_storage,indexeddb',
    });
    await devtools.detach();
    await use(page);
  },
});
