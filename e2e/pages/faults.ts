import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';

const RULES = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'];
/** What depends on colours; all else is the same in both themes and is looked at in the light one. */
const COLOUR_RULES = ['color-contrast', 'link-in-text-block'];

/**
 * Nothing that axe finds against WCAG 2.2 AA and its best practices on the page as it stands, or in a part of it where
 * the rest has been looked at before.
 */
export async function expectNoFaults(page: Page, part?: string): Promise<void> {
  // What fades in has its contrast only when it is there.
  const isDark = await page.evaluate(async () => {
    await Promise.all(
      document
        .getAnimations()
        .filter(({ effect }) => effect?.getTiming().iterations !== Infinity)
        .map(({ finished }) => finished.catch(() => undefined)),
    );
    return localStorage.getItem('wexikine.theme') === 'dark';
  });
  // One document without frames needs no second page to gather results; what passes need not be described node by node.
  const axe = new AxeBuilder({ page }).setLegacyMode(true).options({ resultTypes: ['violations'] });
  if (part !== undefined) axe.include(part);
  const { violations } = await (isDark ? axe.withRules(COLOUR_RULES) : axe.withTags(RULES)).analyze();
  expect(violations.map(({ id, nodes }) => `${id}: ${nodes.map(({ target }) => target.join(' ')).join(', ')}`)).toEqual(
    [],
  );
}
