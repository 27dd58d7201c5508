import { TICKS_PER_SECOND, type Layer } from '@wexikine/core';
import { dropClip, greyOfFrame } from '../pages/made-clip';
import { sceneWith } from '../pages/made-scenes';
import { saved } from '../pages/library-screen';
import { SceneScreen } from '../pages/scene-screen';
import { expect, test } from '../pages/test';

const clipsOf = (layers: readonly Layer[]): Layer[] => layers.filter(({ source }) => source.type === 'clip');

test('a clip is dropped, shown at the scene’s exact times, paced, split, frozen and looped', async ({ page }) => {
  const scene = new SceneScreen(page);
  const id = await sceneWith(page, []);
  await scene.openAtRest(id);
  await dropClip(page, { frames: 50, rate: 25, width: 320, height: 180 });
  await expect(page.getByText('1 clip came in, without sound.')).toBeVisible({ timeout: 20_000 });
  const stored = async (): Promise<Layer[]> => clipsOf((await scene.stored(id)).layers);
  await expect
    .poll(async () => (await stored()).map(({ span }) => span))
    .toEqual([{ in: 0, out: 2 * TICKS_PER_SECOND }]);

  /** The grey in the middle of the frame, once it is what it should be within what coding loses. */
  const shows = async (time: string, frame: number): Promise<void> => {
    await scene.setTime(time);
    await expect
      .poll(async () => Math.abs((await scene.pixel(0.5, 0.5))[0] - greyOfFrame(frame)), {
        timeout: 15_000,
        message: `${time} shows frame ${frame}`,
      })
      .toBeLessThan(6);
  };
  // Forwards, backwards, far and near.
  for (const [time, frame] of [
    ['0:00', 0],
    ['0:07', 7],
    ['1:20', 45],
    ['1:19', 44],
    ['0:03', 3],
    ['1:24', 49],
  ] as const)
    await shows(time, frame);

  await page.getByText('Waves', { exact: true }).first().click();
  await page.getByRole('tab', { name: 'Layer' }).click();
  const panel = page.locator('wx-layer-clip');
  await expect(panel).toContainText('320 × 180 px, 2:00 long');
  // Twice as fast: it takes half the time, and each frame of the scene shows every other one.
  await panel.getByRole('textbox', { name: 'Pace, %' }).fill('200');
  await panel.getByRole('textbox', { name: 'Pace, %' }).press('Enter');
  await expect.poll(async () => (await stored()).map(({ span }) => span.out / TICKS_PER_SECOND)).toEqual([1]);
  await shows('0:10', 20);
  await page.locator('wx-preview > canvas').focus();
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await stored()).map(({ span }) => span.out / TICKS_PER_SECOND)).toEqual([2]);

  // Frozen from frame 15 on: before it nothing changes, behind it that frame stands.
  await scene.setTime('0:15');
  await panel.getByRole('button', { name: 'Freeze from the playhead on' }).click();
  await expect
    .poll(async () =>
      (await stored()).map(({ span, source }) => [
        span.in / TICKS_PER_SECOND,
        source.type === 'clip' ? source.pace : null,
      ]),
    )
    .toEqual([
      [0, 1],
      [0.6, 0],
    ]);
  await shows('0:14', 14);
  await shows('0:15', 15);
  await shows('1:10', 15);
  await panel.getByRole('button', { name: 'Split at the playhead' }).click();
  await expect.poll(async () => (await stored()).length).toBe(3);
  await page.locator('wx-preview > canvas').focus();
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await stored()).length).toBe(1);
  await shows('1:10', 35);
});

test('an exported page plays the clip along with its time', async ({ page }) => {
  const scene = new SceneScreen(page);
  const id = await sceneWith(page, []);
  await scene.openAtRest(id);
  await dropClip(page, { frames: 50, rate: 25, width: 320, height: 180 });
  await expect(page.getByText('1 clip came in, without sound.')).toBeVisible({ timeout: 20_000 });
  await scene.saved();
  const { bytes } = await saved(page, async () => {
    await page.getByRole('button', { name: 'Export' }).click();
    await page.getByRole('menuitem', { name: /^Web page/ }).click();
  });
  await page.route('**/exported.html*', (route) => route.fulfill({ contentType: 'text/html', body: bytes }));
  await page.goto('/exported.html');
  await page.getByRole('button', { name: 'Pause' }).click();
  const slider = page.getByRole('slider', { name: 'Time' });
  const time = (): Promise<number> => page.locator('video').evaluate((video: HTMLVideoElement) => video.currentTime);
  await slider.fill('1200');
  await expect.poll(time).toBeCloseTo(1.2, 2);
  await slider.fill('400');
  await expect.poll(time).toBeCloseTo(0.4, 2);
  await page.getByRole('button', { name: 'Play' }).click();
  await expect.poll(time).toBeGreaterThan(0.6);
});

test('what is no clip that can be decoded is told', async ({ page }) => {
  const scene = new SceneScreen(page);
  const id = await sceneWith(page, []);
  await scene.openAtRest(id);
  await page.locator('wx-preview > canvas').evaluate((target) => {
    const data = new DataTransfer();
    const head = new Uint8Array([0x1a, 0x45, 0xdf, 0xa3, 0x9f, 0x42, 0x82, 0x84, 0x77, 0x65, 0x62, 0x6d, 1, 2, 3]);
    data.items.add(new File([head], 'Cut.webm', { type: 'video/webm' }));
    target.dispatchEvent(new DragEvent('drop', { bubbles: true, cancelable: true, dataTransfer: data }));
  });
  await expect(page.getByText(/Nothing came in; “Cut” did not/)).toBeVisible();
  expect(clipsOf((await scene.stored(id)).layers)).toEqual([]);
});
