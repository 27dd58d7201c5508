import type { Page } from '@playwright/test';
import type { Layer } from '@wexikine/core';
import { card, sceneWith } from '../pages/made-scenes';
import { SceneScreen } from '../pages/scene-screen';
import { expect, test } from '../pages/test';
import { expectNoFaults } from '../pages/faults';

const at = (id: string, x: number, more: Partial<Layer> = {}): Layer =>
  card(id, { rest: { 'position.x': x, 'position.y': 540, 'size.x': 400, 'size.y': 400 }, ...more });

test('borders, shadows, masks and colours are added to many layers, changed and taken away in the panel', async ({
  page,
}) => {
  const scene = new SceneScreen(page);
  const id = await sceneWith(page, [at('a', 400), at('b', 960), at('c', 1500)]);
  await scene.openAtRest(id);
  await page.getByText('Card a', { exact: true }).first().click();
  await page.locator('wx-preview > canvas').focus();
  await page.keyboard.press('Control+a');
  await page.getByRole('tab', { name: 'Layer' }).click();
  const panel = page.locator('wx-layer-look');
  await panel.getByRole('button', { name: '+ border', exact: true }).click();
  await panel.getByRole('textbox', { name: 'Border, width' }).fill('40');
  await panel.getByRole('textbox', { name: 'Border, width' }).press('Enter');
  await panel.getByRole('combobox', { name: 'Lies' }).selectOption('inside');
  await panel.getByRole('button', { name: '+ mask', exact: true }).click();
  await panel.getByRole('textbox', { name: 'Mask 1, width' }).fill('50 %');
  await panel.getByRole('textbox', { name: 'Mask 1, width' }).press('Enter');
  await panel.getByRole('button', { name: '+ colours' }).click();
  await panel.getByRole('textbox', { name: 'Colours, to greys' }).fill('100 %');
  await panel.getByRole('textbox', { name: 'Colours, to greys' }).press('Enter');
  const looks = async (): Promise<unknown[]> =>
    (await scene.stored(id)).layers.map(({ look, rest }) => [
      look.border?.side,
      look.masks?.map(({ width }) => width),
      rest['border.width'],
      rest['colour.grey'],
    ]);
  await expect.poll(looks).toEqual(Array.from({ length: 3 }, () => ['inside', [0.5], 40, 1]));
  await expectNoFaults(page, 'wx-layer-look');
  const colour = panel
    .getByRole('group', { name: 'Border, colour' })
    .getByRole('textbox', { name: 'Colour', exact: true });
  await colour.fill('nonsense');
  await page.keyboard.press('Tab');
  await expect(panel.getByText(/“nonsense” is not a colour/)).toBeVisible();
  await panel.getByRole('button', { name: 'Take the border away' }).click();
  await panel.getByRole('button', { name: 'Take mask 1 away' }).click();
  await expect.poll(looks).toEqual(Array.from({ length: 3 }, () => [undefined, undefined, undefined, 1]));
});

test('a shadow, a border and a mask are dragged on the stage by handles of their own', async ({ page }) => {
  const scene = new SceneScreen(page);
  const id = await sceneWith(page, [
    at('a', 960, {
      look: {
        fill: '#f3c98b',
        shadow: '#000000',
        border: { colour: '#ffffff', side: 'outside' },
        masks: [{ shape: 'ellipse', how: 'add', x: 0.5, y: 0.5, width: 0.5, height: 0.5, turn: 0, soft: 0 }],
      },
      rest: {
        'position.x': 960,
        'position.y': 540,
        'size.x': 400,
        'size.y': 400,
        'border.width': 40,
        'shadow.x': 60,
        'shadow.y': 60,
        'shadow.opacity': 1,
      },
    }),
  ]);
  await scene.openAtRest(id);
  await page.getByText('Card a', { exact: true }).first().click();
  await page.getByRole('button', { name: 'the rest pose', exact: true }).click();
  const grip = (name: string) => page.locator(`[data-grip="${name}"]`);
  await expect(grip('Shadow')).toHaveCount(0);
  await page.getByRole('button', { name: 'Handles of the look' }).click();
  const canvas = (await page.locator('wx-preview > canvas').boundingBox()) ?? { width: 0 };
  expect(canvas.width).toBeGreaterThan(0);
  const middleOf = async (name: string) => {
    const box = await grip(name).boundingBox();
    if (!box) throw new Error(`no handle ${name}`);
    return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  };
  // Page px for one of the scene, from two handles that are 100 scene px apart.
  const [first, second] = [await middleOf('Mask 1'), await middleOf('Mask 1, size')];
  const zoom = (second.x - first.x) / 100;
  const drag = async (name: string, x: number, y: number): Promise<void> => {
    const from = await middleOf(name);
    await page.mouse.move(from.x, from.y);
    await page.mouse.down();
    await page.mouse.move(from.x + (x * zoom) / 2, from.y + (y * zoom) / 2);
    await page.mouse.move(from.x + x * zoom, from.y + y * zoom);
    await expect(page.locator('wx-stage-handles .words')).toContainText(name.replace(/,.*/, ''));
    await page.mouse.up();
  };
  await drag('Shadow', 40, -60);
  await drag('Border', 40, 0);
  await drag('Mask 1, size', 50, 50);
  await drag('Mask 1', 40, 0);
  const stands = async (): Promise<number[]> => {
    const [{ rest, look }] = (await scene.stored(id)).layers;
    const [mask] = look.masks ?? [];
    return [rest['shadow.x'], rest['shadow.y'], rest['border.width'], mask.width * 100, mask.x * 100].map((value) =>
      Math.round(value ?? -1),
    );
  };
  await expect
    .poll(async () => (await stands()).map((value, i) => Math.abs(value - [100, 0, 80, 75, 60][i]) <= 3))
    .toEqual([true, true, true, true, true]);
  for (let i = 0; i < 4; i++) await page.keyboard.press('Control+z');
  await expect.poll(stands).toEqual([60, 60, 40, 50, 50]);

  // Where a drag sets keys, the mask gets one of its own, and its number stays; by the panel it is made half as wide.
  await page.getByRole('button', { name: 'a key here', exact: true }).click();
  await drag('Mask 1', 40, 0);
  const own = async (): Promise<unknown[]> => {
    const [{ tracks, look, rest }] = (await scene.stored(id)).layers;
    return [Math.round((tracks['mask1.x']?.[0].value ?? 0) * 50), look.masks?.[0].x, rest['mask1.width']];
  };
  await expect.poll(own).toEqual([5, 0.5, undefined]);
  const shown = [0xf3, 0xc9, 0x8b];
  await expect.poll(() => scene.pixel((960 + 40 + 80) / 1920, 0.5)).toEqual(shown);
  await page.getByRole('tab', { name: 'Layer' }).click();
  // It stands open, as something is keyed there.
  const width = page.getByRole('textbox', { name: 'Mask 1, by itself, width' });
  await width.fill('50 %');
  await width.press('Enter');
  await expect.poll(own).toEqual([5, 0.5, 0.5]);
  await expect.poll(() => scene.pixel((960 + 40 + 80) / 1920, 0.5)).not.toEqual(shown);
  await expectNoFaults(page, 'wx-layer-look');
});

test('the frame gets a background from the stage menu', async ({ page }) => {
  const scene = new SceneScreen(page);
  const id = await sceneWith(page, [at('a', 400)]);
  await scene.openAtRest(id);
  await page.locator('wx-preview > canvas').click({ button: 'right', position: { x: 60, y: 60 } });
  await page.getByRole('menuitem', { name: 'Background of the frame…' }).click();
  const dialog = page.getByRole('dialog', { name: 'Background of the frame' });
  await dialog.getByRole('radio', { name: 'one colour' }).check();
  await dialog.getByRole('textbox', { name: 'Colour', exact: true }).fill('#204060');
  await dialog.getByRole('button', { name: 'Set the background' }).click();
  await expect.poll(async () => (await scene.stored(id)).background).toBe('#204060');
  await expect.poll(() => scene.pixel(0.9, 0.9)).toEqual([0x20, 0x40, 0x60]);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await scene.stored(id)).background ?? null).toBeNull();
});

test('a colour is chosen by hue with the keyboard, or from the library', async ({ page }) => {
  const scene = new SceneScreen(page);
  const id = await sceneWith(page, [at('a', 400, { look: { fill: '#ff0000' } })]);
  await scene.openAtRest(id);
  await page.getByText('Card a', { exact: true }).first().click();
  await page.getByRole('tab', { name: 'Layer' }).click();
  const fill = async (): Promise<unknown> => (await scene.stored(id)).layers[0].look.fill;
  await page.getByRole('button', { name: 'Fill, picked' }).click();
  const chooser = page.getByRole('dialog', { name: 'Fill, picked' });
  await expectNoFaults(page, '.chooser');
  // Half way round from red, at the same lightness: a blue green.
  await chooser.getByRole('slider', { name: /^Hue/ }).fill('209');
  await expect
    .poll(async () => {
      const [r, g, b] = (String(await fill()).match(/[0-9a-f]{2}/g) ?? []).map((part) => parseInt(part, 16));
      return r < 80 && g > 100 && b > 100;
    })
    .toBe(true);
  await chooser.getByRole('button', { name: 'lamplight' }).click();
  await expect.poll(fill).toBe('#f3c98b');
  await page.keyboard.press('Escape');
  await expect(chooser).toBeHidden();
});

/** A sign on green, as a camera or a program gives it: a white disc in the middle with a soft edge. */
async function signOnGreen(page: Page): Promise<string> {
  return page.evaluate(() => {
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [200, 200];
    const context = canvas.getContext('2d') as CanvasRenderingContext2D;
    context.fillStyle = '#00b140';
    context.fillRect(0, 0, 200, 200);
    context.fillStyle = '#fff';
    context.beginPath();
    context.arc(100, 100, 60, 0, 7);
    context.fill();
    return canvas.toDataURL('image/png');
  });
}

test('a sign is cut out of its green by a press on it, and what lies above is seen around it', async ({ page }) => {
  const scene = new SceneScreen(page);
  await page.goto('/scenes');
  const href = await signOnGreen(page);
  const sign = at('sign', 960, { source: { type: 'picture', href, width: 200, height: 200 }, look: {} });
  const ground = card('ground', {
    rest: { 'position.x': 960, 'position.y': 540, 'size.x': 1920, 'size.y': 1080 },
    look: { fill: '#204060' },
  });
  const cover = at('cover', 960, { look: { fill: '#c03020' } });
  const id = await sceneWith(page, [ground, cover, sign]);
  await scene.openAtRest(id);
  await page.getByText('Card sign', { exact: true }).first().click();
  await page.getByRole('tab', { name: 'Layer' }).click();
  const panel = page.locator('wx-layer-look');
  await panel.getByRole('button', { name: '+ cut-out' }).click();
  // It begins with the colour of the picture's edge.
  const cutout = async (): Promise<unknown> =>
    (await scene.stored(id)).layers.find((one) => one.id === 'sign')?.look.cutout;
  await expect.poll(cutout).toEqual({ by: 'colour', colour: '#00b140' });
  await panel.getByRole('combobox', { name: 'Takes out' }).selectOption('what is dark');
  await expect.poll(cutout).toEqual({ by: 'dark' });
  await panel.getByRole('combobox', { name: 'Takes out' }).selectOption('a colour');

  await panel.getByRole('button', { name: 'Pick on the picture' }).click();
  // The green at the upper left of the picture, a tenth into it.
  const { x, y } = await scene.onScreen(800 / 1920, 380 / 1080);
  await page.mouse.move(x, y);
  await expect(page.locator('wx-colour-picker')).toContainText('#00b140');
  await page.mouse.click(x, y);
  await expect(page.locator('wx-colour-picker')).toBeHidden();
  await expect.poll(() => scene.pixel(800 / 1920, 380 / 1080)).toEqual([0xc0, 0x30, 0x20]);
  await expect.poll(() => scene.pixel(0.5, 0.5)).toEqual([255, 255, 255]);
  await panel.getByRole('button', { name: 'Show what is kept' }).click();
  await expect.poll(() => scene.pixel(800 / 1920, 380 / 1080)).toEqual([0, 0, 0]);
  await panel.getByRole('button', { name: 'Show the picture' }).click();
  await expect.poll(() => scene.pixel(800 / 1920, 380 / 1080)).toEqual([0xc0, 0x30, 0x20]);

  // A cover that the sign is cut out of: seen where the sign is not.
  await page.getByText('Card cover', { exact: true }).first().click();
  await panel.getByRole('combobox', { name: 'Seen through' }).selectOption({ label: 'Card sign' });
  await panel.getByRole('combobox', { name: 'Which' }).selectOption('hides');
  await expect.poll(() => scene.pixel(800 / 1920, 380 / 1080)).toEqual([0xc0, 0x30, 0x20]);
  await expect.poll(() => scene.pixel(0.5, 0.5)).toEqual([0x20, 0x40, 0x60]);
});
