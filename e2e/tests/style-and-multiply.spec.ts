import type { Page } from '@playwright/test';
import { expect, test } from '../pages/test';
import { expectNoFaults } from '../pages/faults';
import { oklabFromCss, TICKS_PER_SECOND, type Layer, type Scene } from '@wexikine/core';
import { card, sceneWith } from '../pages/made-scenes';
import { SceneScreen } from '../pages/scene-screen';

const at = (id: string, x: number, more: Partial<Layer> = {}): Layer =>
  card(id, { rest: { 'position.x': x, 'position.y': 540, 'size.x': 200, 'size.y': 200 }, ...more });

/** Chooses another operation in the sentence by the keyboard alone. */
async function choose(page: Page, screen: SceneScreen, operation: string): Promise<void> {
  await screen.field('operation').focus();
  await page.keyboard.press('Enter');
  await page
    .getByRole('dialog')
    .getByRole('radio', { name: new RegExp(`^${operation}`) })
    .check();
  await screen.closeEditor();
}

async function openField(page: Page, screen: SceneScreen, field: string): Promise<void> {
  await screen.field(field).click();
  await expect(page.getByRole('dialog')).toBeVisible();
}

test('three panels a step darker each, and a border from the first one that the others follow', async ({ page }) => {
  const screen = new SceneScreen(page);
  const id = await sceneWith(page, [
    at('a', 400, { look: { fill: '#58a07c', border: { colour: '#ffffff', side: 'inside' } } }),
    at('b', 960, { look: { fill: '#222222' } }),
    at('c', 1500, { look: { fill: '#222222' } }),
  ]);
  await screen.openAtRest(id);
  await choose(page, screen, 'Style');
  await openField(page, screen, 'order');
  await page.getByRole('radio', { name: /^Across/ }).check();
  await screen.closeEditor();
  await openField(page, screen, 'from');
  await page.getByRole('dialog').getByLabel('As this layer is').selectOption('Card a');
  await page
    .getByRole('dialog')
    .getByLabel(/They follow it/)
    .check();
  await screen.closeEditor();
  await openField(page, screen, 'style-parts');
  await page.getByRole('dialog').getByRole('button', { name: 'border' }).click();
  await expectNoFaults(page, '.popover');
  await screen.closeEditor();
  await expect(screen.sentence).toContainText('following it, in fill and border, fill each 6 % darker');
  await page.getByRole('button', { name: 'Apply to 2' }).click();
  const looks = async (): Promise<Layer['look'][]> => (await screen.stored(id)).layers.map(({ look }) => look);
  const lightness = async (): Promise<number[]> =>
    (await looks()).map(({ fill }) => Number((oklabFromCss(String(fill))?.l ?? 0).toFixed(2)));
  const first = Number((oklabFromCss('#58a07c')?.l ?? 0).toFixed(2));
  await expect
    .poll(async () => (await lightness()).map((one) => Number((first - one).toFixed(2))))
    .toEqual([0, 0.06, 0.12]);
  // The first one is changed by hand: all follow, in one step that is undone as one.
  await page.getByText('Card a', { exact: true }).first().click();
  await page.getByRole('tab', { name: 'Layer' }).click();
  const border = page
    .getByRole('group', { name: 'Border, colour' })
    .getByRole('textbox', { name: 'Colour', exact: true });
  await border.fill('#ff8800');
  await border.press('Enter');
  await expect
    .poll(async () => (await looks()).map((look) => look.border?.colour))
    .toEqual(['#ff8800', '#ff8800', '#ff8800']);
  await page.locator('wx-preview > canvas').focus();
  await page.keyboard.press('Control+z');
  await expect
    .poll(async () => (await looks()).map((look) => look.border?.colour))
    .toEqual(['#ffffff', '#ffffff', '#ffffff']);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await looks()).map((look) => look.fill)).toEqual(['#58a07c', '#222222', '#222222']);
});

test('thirty squares from left to right, exchanged and rolled again, made, changed, and undone to the start', async ({
  page,
}) => {
  const screen = new SceneScreen(page);
  const id = await sceneWith(page, [at('square', 960, { look: { fill: '#f3c98b' } })]);
  await screen.openAtRest(id);
  const before = await screen.stored(id);
  await choose(page, screen, 'Multiply');
  const half = async (field: string, middle: string): Promise<void> => {
    await openField(page, screen, field);
    const dialog = page.getByRole('dialog');
    await dialog.getByRole('radio', { name: /^A spread/ }).check();
    await dialog.getByLabel('Its middle, from the left').fill(middle);
    await dialog.getByLabel('Width of it').fill('50%');
    await dialog.getByLabel('Width of it').press('Enter');
    await screen.closeEditor();
  };
  await half('begin', '25%');
  await half('end', '75%');
  await expect(screen.sentence).toContainText('from a spread over the left half to a spread over the right half');
  await expect(page.getByRole('img', { name: 'They begin: a spread over the left half' })).toBeVisible();
  await expect(page.getByText('30 of 30').or(page.getByRole('button', { name: 'Apply to 30' }))).toBeVisible();
  await page.getByRole('button', { name: 'Exchange beginning and end' }).click();
  await expect(screen.sentence).toContainText('from a spread over the right half to a spread over the left half');
  await page.getByRole('group', { name: 'Roll the copies again' }).getByRole('button', { name: 'all' }).click();
  await expect(screen.sentence).toContainText('seed 2');
  await expectNoFaults(page, 'wx-copies-panel');
  await page.getByRole('button', { name: 'Apply to 30' }).click();
  await expect(page.getByText('Made 30 copies.')).toBeVisible();
  const copiesIn = ({ layers }: Scene): Layer[] => layers.filter(({ copy }) => copy?.of === 'square');
  await expect.poll(async () => copiesIn(await screen.stored(id)).length).toBe(30);
  const made = copiesIn(await screen.stored(id));
  for (const { tracks, span } of made) {
    const [from, to] = tracks['position.x']?.map(({ value }) => value) ?? [];
    expect([from > 960, to < 960]).toEqual([true, true]);
    expect(span.out - span.in).toBe(TICKS_PER_SECOND);
    expect(span.out).toBeLessThanOrEqual(2 * TICKS_PER_SECOND);
  }
  // The run is opened again and changed: the first ones stay the same layers.
  await page.getByRole('tab', { name: /^Runs/ }).click();
  await page.getByRole('button', { name: 'Change run 1' }).click();
  await expect(page.getByText('Changing run 1.')).toBeVisible();
  await openField(page, screen, 'copies');
  await page.getByRole('dialog').getByLabel('Copies', { exact: true }).fill('40');
  await page.getByRole('dialog').getByLabel('Copies', { exact: true }).press('Enter');
  await screen.closeEditor();
  await page.getByRole('button', { name: 'Change 40' }).click();
  await expect.poll(async () => copiesIn(await screen.stored(id)).length).toBe(40);
  expect(
    copiesIn(await screen.stored(id))
      .slice(0, 30)
      .map((layer) => layer.id),
  ).toEqual(made.map((layer) => layer.id));
  await page.locator('wx-preview > canvas').focus();
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await screen.stored(id)).layers).toEqual(before.layers);
});
