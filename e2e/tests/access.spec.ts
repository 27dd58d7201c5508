import { expect, test } from '../pages/test';
import { BenchScreen } from '../pages/bench-screen';
import { expectNoFaults } from '../pages/faults';
import { LibraryScreen } from '../pages/library-screen';
import { copyOf, SceneScreen } from '../pages/scene-screen';

test('scenes, shortcuts and help are accessible', async ({ page }) => {
  for (const [path, heading] of [
    ['/scenes', 'Scenes'],
    ['/shortcuts', 'Shortcuts'],
    ['/help', 'Help'],
  ]) {
    await page.goto(path);
    await expect(page.getByRole('heading', { name: heading, exact: true })).toBeVisible();
    await expectNoFaults(page);
  }
  await page.goto('/scenes');
  await page.getByRole('button', { name: 'New scene' }).click();
  await page.waitForTimeout(400);
  await expectNoFaults(page);
});

test('the library, with items ticked and with its dialogs, is accessible', async ({ page }) => {
  test.setTimeout(150_000);
  const library = new LibraryScreen(page);
  await library.open();
  await library.choose('Tip over');
  await expectNoFaults(page);
  await library.select('Tip over');
  await expectNoFaults(page);
  await page.getByRole('button', { name: 'Tag', exact: true }).click();
  await expectNoFaults(page);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Import & export' }).click();
  await page.getByRole('menuitem', { name: /^Import a pack/ }).click();
  await page.getByLabel('Choose a pack or a design tokens file').setInputFiles({
    name: 'values.json',
    mimeType: 'application/json',
    buffer: Buffer.from('{"quick":{"$type":"duration","$value":{"value":90,"unit":"ms"}}}'),
  });
  await expect(page.getByRole('dialog')).toContainText('90 ms');
  await expectNoFaults(page);
});

test('the benches, with their editors and dialogs, are accessible', async ({ page }) => {
  test.setTimeout(200_000);
  const bench = new BenchScreen(page);
  for (const item of ['look-print', 'palette-night']) {
    await bench.open(item);
    await expectNoFaults(page);
  }
  await bench.open('tip-over');
  await bench.openParameter('About');
  await expectNoFaults(page);
  await bench.cell('rotation at Past').click();
  await page.getByRole('textbox', { name: 'rotation at Past' }).press('Control+a');
  await page.keyboard.type('rest + 5px');
  await expect(page.getByRole('alert')).toBeVisible();
  await expectNoFaults(page);
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /^Easing of rotation after Lying/ }).click();
  for (const way of ['Bézier', 'Named', 'Family']) {
    await page.getByRole('dialog').getByRole('button', { name: way }).click();
    await expectNoFaults(page, '[role=dialog]');
  }
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'record from a layer' }).click();
  await page.waitForTimeout(800);
  await expectNoFaults(page);
  await page.keyboard.press('Escape');
  for (const id of ['curve-swing', 'house-arrival', 'house-lamplight']) {
    await bench.open(id);
    await expectNoFaults(page);
  }
});

test('a scene with each of its panels is accessible', async ({ page }) => {
  test.setTimeout(150_000);
  const screen = new SceneScreen(page);
  await screen.open('programme-board');
  for (const panel of ['curve', 'layer', 'runs', 'cues', 'findings', 'history']) {
    await page.getByRole('tab', { name: new RegExp(`^${panel}`, 'i') }).click();
    await expectNoFaults(page, panel === 'curve' ? undefined : '[role=tabpanel]');
  }
});

test('the editors of the sentence are accessible', async ({ page }) => {
  test.setTimeout(150_000);
  const screen = new SceneScreen(page);
  await screen.open('programme-board');
  const look = async (fields: readonly string[]): Promise<void> => {
    for (const field of fields) {
      await screen.field(field).click();
      await expect(screen.editor).toBeVisible();
      await expectNoFaults(page, '[role=dialog]');
      // Nothing of it is cut off at its side.
      expect(await screen.editor.evaluate(({ scrollWidth, clientWidth }) => scrollWidth - clientWidth)).toBe(0);
      await screen.closeEditor();
    }
  };
  await screen.field('preset').click();
  await expectNoFaults(page);
  await screen.closeEditor();
  await look(['pick', 'order', 'spacing', 'length', 'finish']);
  for (const verb of ['Line up', 'Arrange', 'Clear']) {
    await screen.field('operation').click();
    await screen.editor.getByRole('radio', { name: new RegExp(`^${verb}`) }).check();
    await screen.closeEditor();
    await look(['way']);
  }
  await screen.field('operation').click();
  await screen.editor.getByRole('radio', { name: /^Adjust/ }).check();
  await screen.closeEditor();
  await look(['keys', 'step:s1', 'parameter:s1_by', 'add-parameter']);
  await screen.field('operation').click();
  await screen.editor.getByRole('radio', { name: /^Multiply/ }).check();
  await screen.closeEditor();
  await look(['end']);
});

test('runs, cues, data and versions are accessible', async ({ page }) => {
  test.setTimeout(150_000);
  const screen = new SceneScreen(page);
  await screen.open(await copyOf(page, 'programme-board'));
  await page.getByRole('button', { name: 'Variants' }).click();
  await expect(page.getByRole('img', { name: 'Version 6' })).toBeVisible();
  await expectNoFaults(page);
  await page.getByRole('button', { name: 'Keep none of them' }).click();
  await page.getByRole('button', { name: /^Start of Moonrise walk/ }).click();
  await page.getByRole('textbox', { name: 'Start of Moonrise walk, by hand' }).fill('1:00');
  await page.keyboard.press('Enter');
  await expectNoFaults(page);
  await screen.applyButton.click();
  await page.getByRole('tab', { name: /^runs/i }).click();
  await expectNoFaults(page);
  await page.getByRole('button', { name: 'More for run 1' }).click();
  await page.getByRole('menuitem', { name: 'Make the matching exit' }).click();
  await expectNoFaults(page);
  await page.getByRole('button', { name: 'Cancel' }).click();
  await page.getByRole('button', { name: 'More for run 1' }).click();
  await page.getByRole('menuitem', { name: 'Save as a recipe in the library' }).click();
  await expectNoFaults(page);
  await page.getByRole('button', { name: 'Cancel' }).click();
  await page.getByRole('tab', { name: /^cues/i }).click();
  await page.getByRole('button', { name: 'Add beats' }).click();
  await expectNoFaults(page);
  await page.getByRole('button', { name: 'Data', exact: true }).click();
  await page.getByRole('textbox', { name: 'Cells of a spreadsheet' }).fill('name\tx\nMoon\t2');
  await expectNoFaults(page);
});

test('where less motion is asked for, specimens and versions stand still until they are played', async ({ page }) => {
  await page.emulateMedia({ reducedMotion: 'reduce' });
  const bench = new BenchScreen(page);
  await bench.open('rise-and-settle');
  const specimen = page.locator('wx-specimen-view');
  await expect(specimen.getByRole('button', { name: 'Play', exact: true })).toBeVisible();
  const time = await specimen.locator('output').innerText();
  await specimen.getByRole('button', { name: 'Play', exact: true }).click();
  await expect(specimen.locator('output')).not.toHaveText(time);

  const screen = new SceneScreen(page);
  await screen.open(await copyOf(page, 'programme-board'));
  await page.getByRole('button', { name: 'Variants' }).click();
  const version = page.getByRole('img', { name: 'Version 6' });
  await expect(version).toBeVisible();
  const drawn = (): Promise<string> => version.evaluate((canvas: HTMLCanvasElement) => canvas.toDataURL());
  // Planned one after the other: the common time is what it is once all of them are there.
  await expect.poll(async () => (await drawn()) === (await drawn())).toBe(true);
  await page.waitForTimeout(1_000);
  const still = await drawn();
  await page.waitForTimeout(500);
  expect(await drawn()).toBe(still);
  await page.getByRole('dialog').getByRole('button', { name: 'Play', exact: true }).click();
  await expect.poll(drawn).not.toBe(still);
});
