import { chromium, test as base, type BrowserContext, type Page } from '@playwright/test';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { LAUNCH } from '../browser';
import { portOf } from './ports';

export { expect } from '@playwright/test';

const SEEN = { viewport: { width: 1280, height: 800 }, acceptDownloads: true };

/**
 * Tests that each run against the server of their worker. They share a profile of the browser in a folder, as a person has
 * one: it keeps what it compiled of the application, which takes a third of an opening otherwise. Each test begins with
 * nothing stored, no page open and no leave given.
 */
export const test = base.extend<object, { profile: BrowserContext }>({
  baseURL: async ({}, use, { parallelIndex }) => use(`http://127.0.0.1:${portOf(parallelIndex)}`),
  profile: [
    async ({}, use, { parallelIndex }) => {
      const folder = mkdtempSync(join(tmpdir(), 'wexikine-profile-'));
      const baseURL = `http://127.0.0.1:${portOf(parallelIndex)}`;
      const profile = await chromium.launchPersistentContext(folder, { ...LAUNCH, ...SEEN, baseURL });
      await use(profile);
      await profile.close();
      rmSync(folder, { recursive: true, force: true });
    },
    { scope: 'worker' },
  ],
  context: async ({ playwright, profile, hasTouch, baseURL }, use) => {
    if (hasTouch) {
      const browser = await playwright.chromium.launch(LAUNCH);
      await use(await browser.newContext({ ...SEEN, hasTouch, baseURL }));
      return browser.close();
    }
    const before = new Set(profile.pages());
    await use(profile);
    for (const page of profile.pages()) if (!before.has(page)) await page.close();
    await profile.unrouteAll();
    await profile.clearPermissions();
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

/** Another window of the browser. A tab that another one covers draws once a second, so two tabs would not do for two windows. */
export async function windowBeside(page: Page): Promise<Page> {
  const devtools = await page.context().newCDPSession(page);
  const opened = page.context().waitForEvent('page');
  await devtools.send('Target.createTarget', { url: 'about:blank', newWindow: true });
  await devtools.detach();
  return opened;
}
