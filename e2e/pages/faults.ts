import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';

const RULES = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'];
/** What depends on colours; all else is the same in both themes. */
const COLOUR_RULES = ['color-contrast', 'link-in-text-block'];

/** Shows the page in a theme, and waits until nothing fades: what fades in has its contrast only when it is there. */
async function settled(page: Page, theme: 'light' | 'dark'): Promise<void> {
  await page.evaluate(async (wanted) => {
    document.documentElement.dataset['theme'] = wanted;
    await Promise.all(
      document
        .getAnimations()
        .filter(({ effect }) => effect?.getTiming().iterations !== Infinity)
        .map(({ finished }) => finished.catch(() => undefined)),
    );
  }, theme);
}

/** Where axe is on the page already, nothing is to be read once more: it would be, twice for each look. */
async function sourceFor(page: Page): Promise<{ axeSource?: string }> {
  return (await page.evaluate(() => 'axe' in window)) ? { axeSource: 'void 0' } : {};
}

/** What axe finds in both themes, in words. */
async function faultsOf(page: Page, part: string | undefined): Promise<string[]> {
  const faults: string[] = [];
  for (const theme of ['light', 'dark'] as const) {
    await settled(page, theme);
    // One document without frames needs no second page to gather results; what passes need not be described node by node.
    const axe = new AxeBuilder({ page, ...(await sourceFor(page)) })
      .setLegacyMode(true)
      .options({ resultTypes: ['violations'] });
    if (part !== undefined) axe.include(part);
    const { violations } = await (theme === 'dark' ? axe.withRules(COLOUR_RULES) : axe.withTags(RULES)).analyze();
    for (const { id, nodes } of violations) {
      faults.push(`${theme}, ${id}: ${nodes.map(({ target }) => target.join(' ')).join(', ')}`);
    }
  }
  await settled(page, 'light');
  return faults;
}

/**
 * Nothing that axe finds against WCAG 2.2 AA and its best practices on the page as it stands, or in a part of it where
 * the rest has been looked at before; nor against its colours in the dark theme.
 */
export async function expectNoFaults(page: Page, part?: string): Promise<void> {
  const faults = await faultsOf(page, part);
  // What began to fade while it was looked at is looked at once more; what stays is a fault.
  if (faults.length > 0) expect(await faultsOf(page, part)).toEqual([]);
}
