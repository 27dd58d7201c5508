import type { Page } from '@playwright/test';
import { expect, test } from '../pages/test';
import { ticksFromSeconds, type Scene } from '@wexikine/core';
import { expectNoFaults } from '../pages/faults';
import { applied, card, openWith, PAL, say, sceneWith } from '../pages/made-scenes';
import { copyOf, SceneScreen } from '../pages/scene-screen';

async function stored(page: Page, id: string): Promise<Scene> {
  return ((await (await page.request.get(`/api/scenes/${id}`)).json()) as { scene: Scene }).scene;
}

test('a scene opens at rest; a field that is opened, the button or W make it a dry run, and it says so everywhere', async ({
  page,
}) => {
  const screen = new SceneScreen(page);
  const id = await copyOf(page, 'programme-board');
  await screen.openAtRest(id);
  const badge = page.getByText('Dry run, not applied');
  await expect(badge).toBeHidden();
  await expect(page.getByText('has no keys. Apply a run to it')).toBeVisible();
  await screen.setTime('0:00');
  const rest = await screen.pixel(0.3, 0.2535);
  await screen.field('spacing').click();
  await screen.planned();
  await expect(badge).toBeVisible();
  await screen.closeEditor();
  await expect.poll(() => screen.pixel(0.3, 0.2535)).not.toEqual(rest);
  await expect(page.locator('wx-curve-panel').getByText('dry run', { exact: true })).toBeVisible();
  await page.getByRole('tab', { name: /^layer/i }).click();
  await page.getByRole('button', { name: 'As planned' }).click();
  await expect(page.locator('wx-layer-panel')).toContainText('9 keys on 3 channels.');
  await page.getByRole('button', { name: 'As it stands' }).click();
  await expect(page.locator('wx-layer-panel')).toContainText('No keys.');
  await page.locator('canvas').first().click();
  await page.keyboard.press('w');
  await expect(badge).toBeHidden();
  await expect(screen.applyButton).toHaveText('Dry run on 12');
  await page.keyboard.press('w');
  await screen.planned();
});

test('applying from within a field closes it, says so, and Space plays', async ({ page }) => {
  const screen = new SceneScreen(page);
  const id = await copyOf(page, 'programme-board');
  await screen.openAtRest(id);
  await screen.field('spacing').click();
  await expect(screen.editor.getByRole('textbox', { name: 'Gap' })).toBeFocused();
  // Digits typed at once take the number's place.
  await page.keyboard.type('8');
  await expect(screen.field('spacing')).toHaveText('8 f');
  await screen.planned();
  await page.keyboard.press('Control+Enter');
  await expect(screen.editor).toBeHidden();
  await expect(screen.applyButton).toHaveText('Applied');
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'Pause' })).toBeVisible();
  await expect.poll(async () => (await stored(page, id)).runs.length).toBe(1);
});

test('another operation keeps what is common, and one that is come back to is as it was left', async ({ page }) => {
  const { screen } = await openWith(page, [card('1'), card('2', { rest: { 'position.x': 300 } }), card('3')]);
  await say(screen, 'spacing', 'One every', { Gap: '7f' });
  const sentence = (): Promise<string> => screen.sentence.locator('.sentence').innerText();
  // The dry run with that gap is there.
  await expect(screen.sentence).toContainText('the last done at 1:02');
  const before = await sentence();
  const choose = async (name: string): Promise<void> => {
    await screen.field('operation').click();
    await screen.editor.getByRole('radio', { name: new RegExp(`^${name}`) }).check();
    await screen.closeEditor();
  };
  await choose('Arrange');
  await choose('Bring in');
  await screen.planned();
  await expect.poll(sentence).toBe(before);
  await screen.setTime('2:00');
  await choose('Accent');
  await expect(screen.field('start')).toHaveText('2:00');
  await expect(screen.field('spacing')).toHaveText('7 f');
  await expect(screen.field('existing')).toHaveText('add to');
  await choose('Send out');
  await expect(screen.field('start')).toHaveText('each out point');
  await expect(screen.field('existing')).toHaveText('take the place of');
});

test('an accent leaves an entrance as it is, and a second entrance takes the place of the first', async ({ page }) => {
  const { id, screen } = await openWith(page, [card('1'), card('2')]);
  await applied(screen);
  const entrance = (await stored(page, id)).layers[0].tracks;
  await screen.setTime('3:00');
  await screen.field('operation').click();
  await screen.editor.getByRole('radio', { name: /^Accent/ }).check();
  await screen.closeEditor();
  await applied(screen);
  const accented = (await stored(page, id)).layers[0].tracks;
  for (const [channel, keys] of Object.entries(entrance)) {
    expect(accented[channel as 'opacity']?.slice(0, keys.length).map(({ at, value }) => [at, value])).toEqual(
      keys.map(({ at, value }) => [at, value]),
    );
  }
  await screen.field('operation').click();
  await screen.editor.getByRole('radio', { name: /^Bring in/ }).check();
  await screen.closeEditor();
  await say(screen, 'start', 'At a time of the scene', { Time: '1:00' });
  await expect(screen.status).toContainText('−');
  await applied(screen);
  const [run] = (await stored(page, id)).runs;
  const after = (await stored(page, id)).layers[0].tracks;
  expect(
    Object.values(after)
      .flat()
      .some((key) => key.by?.run === run.id),
  ).toBe(false);
});

test('rows: those that take part in run order, the others one click away; the place is kept', async ({ page }) => {
  const layers = Array.from({ length: 60 }, (_, i) =>
    card(`${i}`, { name: `Layer ${i}`, tags: i >= 50 ? ['late'] : [] }),
  );
  const { screen } = await openWith(page, layers);
  await expect(screen.sheet.getByRole('row')).toHaveCount(11);
  await screen.row('Layer 52').click();
  await page.getByRole('button', { name: 'All 60' }).click();
  // The selected row stays in sight, though fifty others are now before it.
  await expect(screen.row('Layer 52')).toBeInViewport();
  await expect(screen.row('Layer 49')).toBeVisible();
  await page.getByRole('button', { name: 'Taking part 10' }).click();
  await expect(screen.row('Layer 52')).toBeInViewport();
  await expect(screen.row('Layer 49')).toBeHidden();
});

test('time zooms by keys, wheel and overview; the run is fitted', async ({ page }) => {
  const { screen } = await openWith(page, [card('1'), card('2')], PAL, 60);
  const strip = screen.row('Card 1').locator('wx-strip-view');
  const overview = page.getByRole('scrollbar', { name: 'Stretch of the scene that is shown' });
  const span = (): Promise<number> => strip.locator('rect.span').evaluate((rect) => Number(rect.getAttribute('width')));
  const whole = await span();
  await page.getByRole('button', { name: 'Show the run' }).click();
  await expect.poll(span).toBeGreaterThan(whole * 4);
  await overview.focus();
  for (let i = 0; i < 5; i++) await page.keyboard.press('ArrowRight');
  await expect(overview).toHaveAttribute('aria-valuenow', /[1-9]/);
  await page.getByRole('button', { name: 'Whole scene' }).click();
  await expect.poll(span).toBe(whole);
  await strip.hover({ position: { x: 12, y: 10 } });
  await page.keyboard.down('Control');
  await page.mouse.wheel(0, -400);
  await page.keyboard.up('Control');
  await expect.poll(span).toBeGreaterThan(whole * 1.5);
});

test('the parts of the screen are dragged and remembered, panels fold, the preview has the window and gives it back', async ({
  page,
}) => {
  const { id, screen } = await openWith(page, [card('1')]);
  const preview = page.locator('wx-preview');
  const before = await preview.boundingBox();
  const line = page.getByRole('separator', { name: 'Between the run sheet and the preview' });
  const box = await line.boundingBox();
  await page.mouse.move(box?.x ?? 0, (box?.y ?? 0) + 200);
  await page.mouse.down();
  await page.mouse.move((box?.x ?? 0) - 150, (box?.y ?? 0) + 200, { steps: 4 });
  await page.mouse.up();
  const wider = await preview.boundingBox();
  expect((wider?.width ?? 0) - (before?.width ?? 0)).toBeGreaterThan(120);
  await screen.openAtRest(id);
  expect((await preview.boundingBox())?.width).toBeCloseTo(wider?.width ?? 0, 0);
  await page.getByRole('button', { name: 'Panels' }).click();
  await expect(page.getByRole('tabpanel')).toBeHidden();
  expect((await preview.boundingBox())?.height).toBeGreaterThan((wider?.height ?? 0) + 100);
  await page.locator('canvas').first().click();
  await page.keyboard.press('v');
  await expect.poll(async () => (await preview.boundingBox())?.width).toBe(1280);
  await page.keyboard.press('Escape');
  await expect(screen.sheet).toBeVisible();
});

test('number fields: relative, by a factor, arithmetic, limits with the reason in the page; the anchor keeps the picture', async ({
  page,
}) => {
  const id = await sceneWith(page, [
    card('1', { rest: { 'position.x': -100, 'position.y': 540, 'size.x': 200, 'size.y': 100, rotation: 90 } }),
  ]);
  const screen = new SceneScreen(page);
  await screen.openAtRest(id);
  await screen.row('Card 1').click();
  await page.getByRole('tab', { name: /^layer/i }).click();
  const field = (name: string) => page.locator('wx-layer-panel').getByRole('textbox', { name, exact: true });
  const put = async (name: string, text: string): Promise<void> => {
    await field(name).fill(text);
    await page.keyboard.press('Enter');
  };
  await put('position x', '+50');
  await expect(field('position x')).toHaveValue('-50 px');
  await put('position x', '=-20');
  await expect(field('position x')).toHaveValue('-20 px');
  await put('position x', '1920/2');
  await expect(field('position x')).toHaveValue('960 px');
  await put('scale x', '×0.5');
  await expect(field('scale x')).toHaveValue('50 %');
  await field('opacity').fill('150');
  await expect(page.getByRole('alert')).toHaveText('Give a number from 0 % to 100 %.');
  await page.keyboard.press('Enter');
  await expect(field('opacity')).toHaveValue('100 %');
  await field('rotation').focus();
  await page.keyboard.press('Shift+ArrowUp');
  await page.keyboard.press('Enter');
  await expect(field('rotation')).toHaveValue('100°');
  await put('rotation', '90');
  await put('scale x', '100');
  await put('anchor x', '0');
  await screen.saved();
  const { rest } = (await stored(page, id)).layers[0];
  expect([rest['anchor.x'], rest['position.x'], rest['position.y']]).toEqual([0, 960, expect.closeTo(440, 6)]);
});

test('an empty scene says what to do, and has no playhead over it', async ({ page }) => {
  await page.goto('/scenes');
  await page.getByRole('button', { name: 'New scene' }).click();
  const name = page.getByRole('textbox', { name: 'Name' });
  await expect(name).toBeFocused();
  await page.keyboard.type('Fresh');
  await expect(name).toHaveValue('Fresh');
  await page.getByRole('button', { name: 'Create scene' }).click();
  await expect(page.getByText('This scene has no layers yet')).toBeVisible();
  await expect(page.locator('.playhead')).toHaveCount(0);
  await expect(page.getByRole('status').last()).not.toContainText('planning');
});

/** A scene in which the list of presets is open. */
async function presetsOpened(page: Page): Promise<SceneScreen> {
  const screen = new SceneScreen(page);
  await screen.open('programme-board');
  await screen.field('preset').click();
  await expect(screen.editor.getByRole('searchbox', { name: 'Search presets' })).toBeFocused();
  return screen;
}

test('pictures of presets are drawn where they are seen, and further ones once one has scrolled to them', async ({
  page,
}) => {
  const screen = await presetsOpened(page);
  const choices = screen.editor.locator('.choice');
  const isDrawn = (nth: number): Promise<boolean> =>
    choices.nth(nth).evaluate((choice) => {
      const canvas = choice.querySelector('canvas');
      const context = canvas?.getContext('2d');
      if (!canvas || !context) return false;
      return context.getImageData(0, 0, canvas.width, canvas.height).data.some((part) => part !== 0);
    });
  const [first, last] = [0, (await choices.count()) - 1];
  await choices.nth(first).scrollIntoViewIfNeeded();
  await expect.poll(() => isDrawn(first)).toBe(true);
  expect(await isDrawn(last)).toBe(false);
  await choices.nth(last).scrollIntoViewIfNeeded();
  await expect.poll(() => isDrawn(last)).toBe(true);
});

test('an editor begins where one works: a preset is searched at once, the choice that stands has the arrow keys', async ({
  page,
}) => {
  const screen = await presetsOpened(page);
  // The one that stands is in view, well down in the list.
  await expect(screen.editor.getByRole('button', { name: /^Rise & settle/, pressed: true })).toBeInViewport();
  await page.keyboard.type('fade in');
  await page.keyboard.press('Enter');
  await expect(screen.field('preset')).toHaveText('Fade in');
  await expect(screen.editor).toBeHidden();
  await expect(screen.field('preset')).toBeFocused();

  await screen.field('existing').focus();
  await page.keyboard.press('Enter');
  const chosen = screen.editor.getByRole('radio', { checked: true });
  await expect(chosen).toBeFocused();
  const labels = await screen.editor.getByRole('radio').evaluateAll((all) => all.map((one) => one.matches(':checked')));
  await page.keyboard.press('ArrowDown');
  const after = await screen.editor.getByRole('radio').evaluateAll((all) => all.map((one) => one.matches(':checked')));
  expect(after.indexOf(true)).toBe((labels.indexOf(true) + 1) % labels.length);
  await page.keyboard.press('Escape');
  await expect(screen.field('existing')).toBeFocused();

  await screen.field('spacing').click();
  await page.keyboard.press('Control+a');
  await page.keyboard.type('8f');
  await page.keyboard.press('Escape');
  await expect(screen.field('spacing')).toHaveText('8 f');
});

test('the guided first batch: five steps in a copy, and then it is not offered again', async ({ page }) => {
  await page.goto('/scenes');
  await page.getByRole('button', { name: 'Show me' }).click();
  const guide = page.getByRole('region', { name: 'Your first batch' });
  await expect(guide).toContainText('step 1 of 5');
  const screen = new SceneScreen(page);
  await screen.dryRun();
  await expect(guide).toContainText('step 2 of 5');
  await screen.field('preset').click();
  // Each field explains itself, with a moving picture.
  await screen.editor.getByRole('button', { name: 'What is this?' }).click();
  await expect(screen.editor).toContainText('Which animation of the library each layer gets');
  await expectNoFaults(page);
  await screen.editor.getByRole('searchbox', { name: 'Search presets' }).fill('pop in five');
  await screen.editor
    .getByRole('button', { name: /^Pop in five steps/ })
    .first()
    .click();
  await expect(guide).toContainText('step 3 of 5');
  await say(screen, 'spacing', 'One every', { Gap: '8' });
  await expect(guide).toContainText('step 4 of 5');
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await expect(guide).toContainText('step 5 of 5');
  await screen.applyButton.click();
  await expect(guide).toContainText('That was a batch');
  await guide.getByRole('button', { name: 'Done' }).click();
  await page.goto('/scenes');
  await expect(page.getByRole('link', { name: 'Open Programme board', exact: true })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Show me' })).toBeHidden();
});

test('rows with replacements that run past the end offer to lengthen, to take fewer, or to begin again', async ({
  page,
}) => {
  const layers = Array.from({ length: 6 }, (_, i) =>
    card(`${i}`, {
      span: { in: 0, out: ticksFromSeconds(30) },
      rest: { 'position.x': 960, 'position.y': 100 + 150 * i },
    }),
  );
  const { screen } = await openWith(page, layers);
  await say(screen, 'spacing', 'Rows that are replaced', {
    Rows: '2',
    'From row to row': '1s',
    'Replaced after': '5s',
  });
  await page.getByRole('tab', { name: /^findings/i }).click();
  const panel = page.locator('wx-findings-panel');
  await expect(panel.getByRole('button', { name: /^Lengthen the scene by/ })).toBeVisible();
  await expect(panel.getByRole('button', { name: 'Take only the 4 that fit' })).toBeVisible();
  await panel.getByRole('button', { name: 'Begin again with the first' }).click();
  await expect(screen.field('spacing')).toContainText('then again from the first');
  await expect(panel.getByRole('button', { name: 'Begin again with the first' })).toBeHidden();
});
