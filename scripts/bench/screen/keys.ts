import type { Page } from '@playwright/test';
import { report } from '../measure';
import { keyedScene } from '../scenes';
import { framesWhile } from './frames';
import { ADDRESS, CHANGES, measureChange, store, TASK } from './page';

/** Keys that are picked and dragged, and the frames in which that is to be seen, milliseconds. */
const PICKED = 1_000;
const KEY_FRAME = 20;

/** Three hundred layers of forty keys in rows of channels: scrolled, a thousand picked, and dragged. */
export async function benchKeys(page: Page): Promise<void> {
  const { id: _id, ...scene } = keyedScene(300, 'few');
  const layers = scene.layers.map((layer) => ({
    ...layer,
    // Ten keys on each of four channels: those that are made twice, the second time in the other half of the scene.
    tracks: Object.fromEntries(
      Object.entries(layer.tracks)
        .slice(0, 4)
        .map(([channel, keys]) => [
          channel,
          [0, Math.round(scene.length / 2)].flatMap((from) =>
            keys.map((key) => ({ ...key, at: from + Math.floor(key.at / 2.2) })),
          ),
        ]),
    ),
  }));
  const id = await store(page, { ...scene, layers });
  await page.goto(`${ADDRESS}/scenes/${id}`);
  await page.getByRole('button', { name: 'Keys', exact: true }).click();
  const view = page.locator('wx-keys-view');
  await view.getByRole('row').first().waitFor();
  await page.waitForTimeout(1_000);
  const strip = await view.locator('.strip').nth(1).boundingBox();
  if (!strip) throw new Error('The keys are not there.');
  const told = (name: string, frames: readonly number[]): void => {
    const [middle, most] = [frames[frames.length >> 1] ?? 0, frames[frames.length - 1] ?? 0];
    const figure = `${middle.toFixed(0)} ms, at most ${most.toFixed(0)} ms`;
    report(name, figure, `${KEY_FRAME} ms, ${TASK} ms`, middle <= KEY_FRAME && most <= TASK);
  };
  await page.mouse.move(strip.x + 60, strip.y + 200);
  told(
    'keys of 300 layers: frames while scrolling',
    await framesWhile(page, async () => {
      for (let i = 0; i < 30; i++) {
        await page.mouse.wheel(0, i % 2 === 0 ? 600 : -300);
        await page.waitForTimeout(30);
      }
    }),
  );
  await page.evaluate(() =>
    (document.querySelector('wx-keys-view cdk-virtual-scroll-viewport') as HTMLElement).scrollTo(0, 0),
  );
  await page.waitForTimeout(300);
  // One moment of all layers: a key on each of four channels.
  await view.getByLabel('A press picks').selectOption('moment');
  const drag = await framesWhile(page, async () => {
    await page.mouse.move(strip.x + 1, strip.y + 14);
    await page.mouse.down();
    for (let i = 1; i <= 40; i++) {
      await page.mouse.move(strip.x + 1 + i * 3, strip.y + 14);
      await page.waitForTimeout(16);
    }
  });
  const picked = Number(/\d+/.exec((await view.getByText(/keys picked/).textContent()) ?? '')?.[0] ?? 0);
  await page.mouse.up();
  told(`  picking and dragging ${picked} keys`, picked >= PICKED ? drag : []);
  await benchAdjusted(page);
}

/** Keys that an adjustment is measured with at least, and the time until it is on screen, milliseconds. */
const ADJUSTED = 10_000;
const ADJUST_AIM = 100;

/** All keys of the scene adjusted by a sentence whose number is changed. */
async function benchAdjusted(page: Page): Promise<void> {
  const view = page.locator('wx-keys-view');
  await page.keyboard.press('Control+a');
  const picked = Number(/\d+/.exec((await view.getByText(/keys picked/).textContent()) ?? '')?.[0] ?? 0);
  await view.getByRole('button', { name: 'Adjust these…' }).click();
  await page.getByText('Dry run:').first().waitFor();
  await page.getByRole('button', { name: 'Run sheet', exact: true }).click();
  await page.waitForTimeout(1_500);
  const times: number[] = [];
  for (let i = 0; i < CHANGES; i++)
    times.push(await measureChange(page, { key: 'ArrowUp', on: '[data-field^="parameter:"]' }));
  times.sort((a, b) => a - b);
  const middle = times[times.length >> 1];
  report(
    `  an adjustment of ${picked} keys on screen`,
    `${middle.toFixed(0)} ms, at most ${times[times.length - 1].toFixed(0)} ms`,
    `${ADJUST_AIM} ms`,
    picked >= ADJUSTED && middle <= ADJUST_AIM,
  );
}

/** Five thousand layers of ten keys: opened, shown as keys, and all of them picked. */
export async function benchManyKeys(page: Page): Promise<void> {
  const { id: _id, layers: plain, ...scene } = keyedScene(5_000, 'few');
  const key = (at: number, value: number) => ({ at, value, ease: { type: 'linear' as const } });
  const layers = plain.map((layer, i) => ({
    ...layer,
    tracks: { opacity: Array.from({ length: 10 }, (_, n) => key((i + n * 7) * 1_000_000, n / 10)) },
  }));
  const id = await store(page, { ...scene, layers });
  await page.goto(`${ADDRESS}/scenes/${id}`);
  await page.getByText('as it stands').first().waitFor({ timeout: 60_000 });
  const took = async (work: () => Promise<void>): Promise<number> => {
    const began = performance.now();
    await work();
    return performance.now() - began;
  };
  const view = page.locator('wx-keys-view');
  const opening = await took(async () => {
    await page.getByRole('button', { name: 'Keys', exact: true }).click();
    await view.getByRole('row').nth(3).waitFor();
  });
  const picking = await took(async () => {
    await page.keyboard.press('Control+a');
    await view.getByText('50000 of 50000 keys picked').waitFor();
  });
  const figure = `${opening.toFixed(0)} ms, ${picking.toFixed(0)} ms`;
  report(
    '50,000 keys of 5,000 layers: shown, all picked',
    figure,
    '1,000 ms, 1,000 ms',
    opening < 1_000 && picking < 1_000,
  );
}
