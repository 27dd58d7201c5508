import type { Layer } from '@wexikine/core';
import { BenchScreen } from '../pages/bench-screen';
import { expectNoFaults } from '../pages/faults';
import { LibraryScreen } from '../pages/library-screen';
import { card, sceneWith } from '../pages/made-scenes';
import { SceneScreen } from '../pages/scene-screen';
import { expect, test } from '../pages/test';

const at = (id: string, x: number, more: Partial<Layer> = {}): Layer =>
  card(id, { rest: { 'position.x': x, 'position.y': 540, 'size.x': 400, 'size.y': 400 }, ...more });

async function chooseStyle(screen: SceneScreen): Promise<void> {
  await screen.field('operation').focus();
  await screen.page.keyboard.press('Enter');
  await screen.editor.getByRole('radio', { name: /^Style/ }).check();
  await screen.closeEditor();
}

test('a look is kept from a layer, put on others, changed on its bench, and its run takes the new revision', async ({
  page,
}) => {
  const screen = new SceneScreen(page);
  const edge = { 'border.width': 6, 'position.x': 400, 'position.y': 540, 'size.x': 400, 'size.y': 400 };
  const id = await sceneWith(page, [
    at('a', 400, { look: { fill: '#58a07c', border: { colour: '#ffffff', side: 'inside' } }, rest: edge }),
    at('b', 960, { look: { fill: '#222222' } }),
    at('c', 1500, { look: { fill: '#333333' } }),
  ]);
  await screen.openAtRest(id);
  await page.getByText('Card a', { exact: true }).first().click();
  await page.getByRole('tab', { name: 'Layer' }).click();
  await page.getByRole('button', { name: 'Keep it in the library…' }).click();
  const dialog = page.getByRole('dialog', { name: 'A look in the library' });
  await expect(dialog).toContainText('It sets fill and border, as “Card a” has them.');
  await dialog.getByLabel('Name').fill('Test edge');
  await dialog.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByText('“Test edge” is in the library, for every scene.')).toBeVisible();

  await chooseStyle(screen);
  await screen.field('from').click();
  await screen.editor.getByLabel('With this look of the library').selectOption('Test edge');
  await screen.closeEditor();
  await expect(screen.sentence).toContainText('with the look “Test edge”, in fill and border');
  await screen.apply();
  const looks = async (): Promise<unknown[]> =>
    (await screen.stored(id)).layers.map(({ look, rest }) => [look.fill, look.border?.side, rest['border.width']]);
  await expect.poll(looks).toEqual(Array.from({ length: 3 }, () => ['#58a07c', 'inside', 6]));

  const library = new LibraryScreen(page);
  await library.open();
  await library.choose('Test edge');
  await library.drawer.getByRole('button', { name: 'Open' }).click();
  const bench = new BenchScreen(page);
  await expect(bench.name).toHaveValue('Test edge');
  await expectNoFaults(page);
  const width = page.getByRole('textbox', { name: 'Border, width' });
  await width.fill('14');
  await width.press('Enter');
  await expect(page.getByText('draft of r2', { exact: true })).toBeVisible();
  await bench.publish('wider');

  await screen.openAtRest(id);
  await page.getByRole('tab', { name: /^runs/i }).click();
  await expect(page.locator('wx-runs-panel')).toContainText('Revision 2');
  await page.getByRole('tab', { name: /^findings/i }).click();
  await expect(page.getByText('“Test edge” has a newer revision: 2, this run uses 1.')).toBeVisible();
  await page.getByRole('button', { name: 'Look at it' }).click();
  await page.getByRole('button', { name: 'Change 3' }).click();
  await expect.poll(looks).toEqual(Array.from({ length: 3 }, () => ['#58a07c', 'inside', 14]));
});

test('a look has parameters, which its bench makes and a run sets along the order', async ({ page }) => {
  const screen = new SceneScreen(page);
  const id = await sceneWith(page, [at('a', 400), at('b', 960), at('c', 1500)]);
  const bench = new BenchScreen(page);
  await page.goto('/library/look-raised');
  await expect(bench.name).toHaveValue('Raised');
  await expectNoFaults(page);
  await page.getByRole('button', { name: 'Remove the formula for shadow opacity' }).click();
  const drop = page.getByRole('button', { name: /^Formula for shadow y/ });
  await drop.click();
  await page.keyboard.press('Control+a');
  await page.keyboard.type('@height × @');
  await expect(page.locator('wx-look-parameters [role=alert]')).not.toHaveCount(0);
  await page.keyboard.press('Backspace');
  await page.keyboard.type('2');
  await page.keyboard.press('Escape');
  await expect(page.getByText('draft of r2', { exact: true })).toBeVisible();
  await bench.publish('falls twice as far');

  await screen.openAtRest(id);
  await chooseStyle(screen);
  await screen.field('order').click();
  await screen.editor.getByRole('radio', { name: /^Across/ }).check();
  await screen.closeEditor();
  await screen.field('from').click();
  await screen.editor.getByLabel('With this look of the library').selectOption('Raised');
  await screen.closeEditor();
  await page
    .getByRole('button', { name: 'Set another parameter' })
    .or(page.locator('[data-field="add-parameter"]'))
    .first()
    .click();
  await screen.editor.getByRole('button', { name: /^Height usually 12px/ }).click();
  await screen.editor.getByRole('radio', { name: /^Along the order/ }).check();
  await screen.editor.getByRole('textbox', { name: 'From' }).fill('10px');
  await page.keyboard.press('Tab');
  await screen.editor.getByRole('textbox', { name: 'To' }).fill('30px');
  await page.keyboard.press('Tab');
  await screen.closeEditor();
  await expect(screen.sentence).toContainText(
    'with the look “Raised”, in shadows, height 10 px to 30 px along the order',
  );
  await screen.apply();
  const shadows = async (): Promise<unknown[]> =>
    (await screen.stored(id)).layers.map(({ rest }) => [rest['shadow.y'], rest['shadow.blur'], rest['shadow.opacity']]);
  await expect.poll(shadows).toEqual([
    [20, 13, 0.5],
    [40, 26, 0.5],
    [60, 39, 0.5],
  ]);
});

test('a palette is made, its names and ramps hold together, and a style takes its colours by turns', async ({
  page,
}) => {
  const library = new LibraryScreen(page);
  await library.open();
  await library.begin('New palette');
  const bench = new BenchScreen(page);
  await bench.name.fill('Test colours');
  await page.getByRole('button', { name: '+ colour' }).click();
  const third = page.getByRole('textbox', { name: 'Name of colour 3' });
  await third.fill('dark');
  await third.press('Enter');
  await expect(page.getByRole('alert')).toHaveText('Two colours have the same name.');
  await third.fill('red');
  await third.press('Enter');
  await page.getByRole('textbox', { name: 'red, as text' }).fill('#ff0000');
  await page.keyboard.press('Tab');
  // A ramp follows the new name of a colour, and the colour cannot go while the ramp needs it.
  await page.getByRole('textbox', { name: 'Name of colour 1' }).fill('night');
  await page.keyboard.press('Tab');
  await expect(page.getByRole('combobox', { name: 'From' })).toHaveValue('night');
  await page.getByRole('button', { name: 'Remove night' }).click();
  await expect(page.getByRole('alert')).toContainText('goes through night');
  await expect(page.locator('wx-palette-bench aside')).toContainText('too near for words');
  await expectNoFaults(page);
  await bench.publish();

  const screen = new SceneScreen(page);
  const id = await sceneWith(page, [at('a', 400), at('b', 960), at('c', 1500)]);
  await screen.openAtRest(id);
  await chooseStyle(screen);
  await screen.field('order').click();
  await screen.editor.getByRole('radio', { name: /^Across/ }).check();
  await screen.closeEditor();
  await screen.field('vary:fill').click();
  await screen.editor.getByRole('radio', { name: /^From a palette/ }).check();
  await screen.editor.getByRole('combobox', { name: 'Palette' }).selectOption('Test colours');
  await screen.closeEditor();
  await expect(screen.sentence).toContainText('fill from “Test colours” by turns');
  await screen.apply();
  const fills = async (): Promise<unknown[]> => (await screen.stored(id)).layers.map(({ look }) => look.fill);
  await expect.poll(fills).toEqual(['#1f2a33', '#f3c98b', '#ff0000']);
});

test('the preview is seen with other eyes, and the scene stays as it is', async ({ page }) => {
  const screen = new SceneScreen(page);
  const id = await sceneWith(page, [at('a', 960, { look: { fill: '#ff0000' } })]);
  await screen.openAtRest(id);
  const canvas = page.locator('wx-preview > canvas');
  const middle = async (): Promise<number[]> => {
    const { x, y } = await screen.onScreen(0.46, 0.46);
    const shot = await page.screenshot({ clip: { x: x - 1, y: y - 1, width: 2, height: 2 } });
    return page.evaluate(async (base64) => {
      const bytes = Uint8Array.from(atob(base64), (sign) => sign.charCodeAt(0));
      const context = new OffscreenCanvas(2, 2).getContext('2d') as OffscreenCanvasRenderingContext2D;
      context.drawImage(await createImageBitmap(new Blob([bytes])), 0, 0);
      return [...context.getImageData(0, 0, 1, 1).data].slice(0, 3);
    }, shot.toString('base64'));
  };
  await expect.poll(middle).toEqual([255, 0, 0]);
  await canvas.click({ button: 'right', position: { x: 60, y: 60 } });
  await page.getByRole('menuitem', { name: 'See it with other eyes' }).click();
  await page.getByRole('menuitemradio', { name: 'without red cones' }).click();
  // Linear 0.152, 0.115 and below 0 in sRGB: 109, 95, 0. Source: Machado et al. 2009; the sRGB transfer function.
  await expect
    .poll(async () => (await middle()).map((part, i) => Math.abs(part - [109, 95, 0][i]) <= 2))
    .toEqual([true, true, true]);
  expect((await screen.stored(id)).layers[0].look.fill).toBe('#ff0000');
});
