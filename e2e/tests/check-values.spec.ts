import { expect, test } from '../pages/test';
import { ticksFromSeconds } from '@wexikine/core';
import { applied, card, choosePreset, frames, openWith, PAL, say, starts } from '../pages/made-scenes';

test.describe('check values (common practice)', () => {
  test('half-second beats at 30 fps: whole layers on the cues, then a common end that keeps every entrance at 15 f', async ({
    page,
  }) => {
    const layers = ['1', '2', '3', '4', '5'].map((id) => card(id, { span: { in: 0, out: ticksFromSeconds(1) } }));
    const { id, screen } = await openWith(page, layers, { num: 30, den: 1 });
    await page.getByRole('tab', { name: /cues/i }).click();
    await page.getByLabel('Beats from').fill('3:00');
    await page.getByLabel('How many').fill('5');
    await page.getByRole('button', { name: 'Add beats' }).click();
    await expect(page.getByRole('textbox', { name: 'Time of Beat 5' })).toHaveValue('5:00');
    await choosePreset(screen, 'Fade in');
    await say(screen, 'order', 'As layered');
    await say(screen, 'spacing', 'On the cues');
    await say(screen, 'moves', 'Whole layers');
    await say(screen, 'length', 'A fixed length', { Length: '15f' });
    await expect.poll(() => screen.times('Card 5')).toEqual(['5:00', '15 f']);
    await applied(screen);
    expect(starts(await screen.stored(id))).toEqual([90, 105, 120, 135, 150]);

    await say(screen, 'operation', 'Line up');
    await screen.field('way').click();
    await screen.editor.getByLabel('End at').selectOption('scene');
    await screen.closeEditor();
    await applied(screen);
    const scene = await screen.stored(id);
    expect(starts(scene)).toEqual([90, 105, 120, 135, 150]);
    for (const { span, tracks } of scene.layers) {
      expect(span.out).toBe(scene.length);
      const [first, last] = tracks.opacity ?? [];
      expect([frames(scene, first.at - span.in), frames(scene, last.at - first.at)]).toEqual([0, 15]);
    }
  });

  test('three panels at 60 fps with their matching exit: in by 1:10, out from 1:40, gone by 2:50', async ({ page }) => {
    const { id, screen } = await openWith(
      page,
      ['1', '2', '3'].map((name) => card(name)),
      { num: 60, den: 1 },
    );
    await choosePreset(screen, 'Slide from left edge');
    await say(screen, 'spacing', 'One every', { Gap: '5f' });
    await say(screen, 'length', 'A fixed length', { Length: '60f' });
    await screen.field('order').click();
    await screen.editor.getByRole('radio', { name: /^As layered/ }).check();
    await screen.closeEditor();
    await expect(screen.field('finish')).toHaveText('1:10');
    await applied(screen);

    await page.getByRole('tab', { name: /runs/i }).click();
    await page.getByRole('button', { name: 'More for run 1' }).click();
    await page.getByRole('menuitem', { name: 'Make the matching exit' }).click();
    const dialog = page.getByRole('dialog', { name: 'The matching exit' });
    await dialog.getByText('All gone at one time').click();
    await dialog.getByRole('textbox', { name: 'All gone at' }).fill('2:50');
    await dialog.getByRole('button', { name: 'Show it as a dry run' }).click();
    await expect(screen.field('preset')).toHaveText('Slide to left edge');
    await expect.poll(() => screen.times('Card 1')).toEqual(['1:40', '60 f']);
    await expect.poll(() => screen.times('Card 3')).toEqual(['1:50', '60 f']);
    await applied(screen);
    const scene = await screen.stored(id);
    const exits = scene.layers.map(({ tracks }) => frames(scene, tracks['position.x']?.at(-1)?.at ?? 0));
    expect(Math.max(...exits)).toBe(170);
  });

  test('three rows of three stills of 9 s, rows 3 s apart: starts 0, 3 … 24 s, all over at 33 s', async ({ page }) => {
    const { id, screen } = await openWith(
      page,
      Array.from({ length: 9 }, (_, i) => card(`${i + 1}`)),
      PAL,
      40,
    );
    await say(screen, 'operation', 'Line up');
    await say(screen, 'order', 'As layered');
    await say(screen, 'way', 'Rows that are replaced', { 'From row to row': '3s', 'Each for': '9s' });
    await applied(screen);
    const scene = await screen.stored(id);
    expect(starts(scene).map((frame) => frame / 25)).toEqual([0, 3, 6, 9, 12, 15, 18, 21, 24]);
    expect(Math.max(...scene.layers.map(({ span }) => span.out))).toBe(ticksFromSeconds(33));
  });

  test('a picture of the frame’s size, turned by 45°, covers it at × 1.9642', async ({ page }) => {
    const rest = { 'position.x': 900, 'position.y': 500, 'size.x': 1920, 'size.y': 1080, rotation: 45 };
    const { id, screen } = await openWith(page, [card('1', { rest })]);
    await say(screen, 'operation', 'Arrange');
    await say(screen, 'way', 'Cover the frame');
    await applied(screen);
    const [layer] = (await screen.stored(id)).layers;
    expect(layer.rest['scale.x']).toBeCloseTo(1.9642, 4);
    expect([layer.rest['position.x'], layer.rest['position.y']].map(Number)).toEqual([
      expect.closeTo(960, 6),
      expect.closeTo(540, 6),
    ]);
  });
});
