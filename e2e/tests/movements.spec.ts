import { expect, test } from '../pages/test';
import { expectNoFaults } from '../pages/faults';
import {
  createEvenPath,
  frameTicks,
  pathPoint,
  READY_PATHS,
  sampleTrack,
  ticksFromSeconds,
  type Key,
  type Preset,
} from '@wexikine/core';
import { BenchScreen } from '../pages/bench-screen';
import { LibraryScreen, storedItem } from '../pages/library-screen';
import { copyOf, SceneScreen } from '../pages/scene-screen';

/** Where the browser puts an element that goes along a path (W3C Motion Path 1), and how it turns it. */
interface Placed {
  readonly x: number;
  readonly y: number;
  readonly angle: number;
}

test('places and turns along a path are those of the browser’s own offset-path', async ({ page }) => {
  const own = ['M0 0 H300 V200 Z', 'M20 30 C200 0 0 300 260 120 S 400 -80 500 40', 'M0 0 Q120 -90 240 0 T480 0'];
  const paths = [...own, ...READY_PATHS.map(({ d }) => d)];
  const shares = [0, 0.07, 0.25, 0.5, 0.61, 0.9, 1];
  await page.goto('about:blank');
  const placed = await page.evaluate(
    ([lines, parts]) =>
      lines.map((d) =>
        parts.map((share): Placed => {
          const element = document.createElement('div');
          element.style.cssText = `position: absolute; left: 0; top: 0; width: 0; height: 0; offset-path: path("${d}"); offset-distance: ${share * 100}%; offset-rotate: auto; offset-anchor: 0 0`;
          const arm = document.createElement('div');
          arm.style.cssText = 'position: absolute; left: 100px; top: 0; width: 0; height: 0';
          element.append(arm);
          document.body.append(element);
          const [at, tip] = [element.getBoundingClientRect(), arm.getBoundingClientRect()];
          element.remove();
          const angle = (Math.atan2(tip.y - at.y, tip.x - at.x) * 180) / Math.PI;
          return { x: at.x, y: at.y, angle };
        }),
      ),
    [paths, shares] as const,
  );
  paths.forEach((d, i) => {
    const even = createEvenPath(d);
    if (!even) throw new Error(d);
    shares.forEach((share, k) => {
      // The end of a closed path is its beginning to the browser, too; corners have two directions.
      const here = pathPoint(even, even.length * share);
      const there = placed[i][k];
      const miss = Math.hypot(here.x - there.x, here.y - there.y);
      // Browsers measure a path by pieces: within a thousandth of its length.
      expect(miss, `${d} at ${share}`).toBeLessThan(even.length / 1000);
      const isCorner = even.corners.some((at) => Math.abs(at - even.length * share) < 1);
      const turn = (((here.angle - there.angle) % 360) + 540) % 360;
      const isEnd = even.isClosed && (share === 0 || share === 1);
      if (!isCorner && !isEnd) expect(Math.abs(turn - 180), `${d} at ${share}`).toBeLessThan(1.5);
    });
  });
});

test('a bounce is made on the bench by the keyboard, refused where it would never rest, and applied to twelve rows', async ({
  page,
}) => {
  const library = new LibraryScreen(page);
  const bench = new BenchScreen(page);
  await library.open();
  await library.begin('New entrance');
  await bench.name.fill('Dropped in');
  await page.getByRole('button', { name: 'movement', exact: true }).click();
  await page.getByRole('menuitem', { name: /^Bounce/ }).click();
  const list = page.locator('wx-movement-list');
  const field = (label: string) => list.getByRole('button', { name: new RegExp(`^Bounce of position y, ${label}:`) });
  await expect(field('let go from')).toBeFocused();

  // From the keyboard alone: what is typed takes the place of what is there, however fast, and Tab goes on.
  await page.keyboard.type('400px');
  await page.keyboard.press('Tab');
  await expect(field('gravity')).toBeFocused();
  await field('gives back').focus();
  await page.keyboard.press('Enter');
  await page.keyboard.press('Control+a');
  await page.keyboard.insertText('70deg');
  await expect(list.getByRole('alert')).toContainText('an angle');
  await page.keyboard.press('Control+a');
  await page.keyboard.insertText('70%');
  await page.keyboard.press('Enter');
  await expect(list.getByRole('alert')).toHaveCount(0);
  await expect(page.locator('wx-preset-bench aside').getByText('position y', { exact: true })).toBeVisible();
  await expectNoFaults(page);

  await bench.publish();
  const made = bench.id;
  const { entry } = await storedItem(page, made);
  const [movement] = (entry.item.body as Preset).movements ?? [];
  expect(movement).toMatchObject({ type: 'bounce', numbers: { height: '400px', restitution: '70%' } });

  const scene = new SceneScreen(page);
  const id = await copyOf(page, 'programme-board');
  await page.goto(`/scenes/${id}?preset=${made}`);
  await scene.planned();
  await scene.apply();
  await scene.saved();
  const stored = await scene.stored(id);
  const rows = stored.layers.filter(({ tags }) => tags.includes('row'));
  const layer = rows.find(({ tracks }) => tracks['position.y']) ?? rows[0];
  const keys = layer.tracks['position.y'] as Key[];
  const rest = layer.rest['position.y'] ?? 0;
  expect(keys[0].value).toBeCloseTo(rest - 400, 6);
  expect(keys.at(-1)?.value).toBeCloseTo(rest, 6);
  // From 400 px under 5000 px/s² it falls for 0.4 s (any mechanics handbook), ten frames of 25 a second.
  const contact = keys[0].at + ticksFromSeconds(0.4);
  expect(sampleTrack(keys, contact)).toBeCloseTo(rest, 6);
  expect(keys.every(({ at }) => at % frameTicks(stored.rate) === 0)).toBe(true);

  // A wrong share is told with its reason, and nothing can be applied.
  await page.goto(`/library/${made}`);
  await field('gives back').click();
  await page.keyboard.press('Control+a');
  await page.keyboard.insertText('100%');
  await page.keyboard.press('Enter');
  await expect(page.locator('wx-movement-list').getByText(/never come to rest/)).toBeVisible();
});

test('a line is edited point by point, by pointer and keyboard, and a layer goes along it', async ({ page }) => {
  const scene = new SceneScreen(page);
  const id = await copyOf(page, 'programme-board');
  await scene.openAtRest(id);
  const board = (await scene.stored(id)).layers.find(({ tags }) => tags.includes('row'));
  if (!board) throw new Error('no row');
  await scene.row(board.name).first().click();
  await page.getByRole('tab', { name: /^Layer/ }).click();
  const chooser = page.getByLabel('Motion path', { exact: true });
  await chooser.selectOption({ label: 'Loop' });
  const editor = page.locator('wx-path-editor');
  const points = editor.getByRole('slider', { name: /^Point/ });
  const count = await points.count();

  // A point by the pointer, another one by the keyboard.
  await points.nth(1).scrollIntoViewIfNeeded();
  const box = await points.nth(1).boundingBox();
  if (!box) throw new Error('no point');
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  // However far: the picture keeps its scale meanwhile, so that the point stays under the pointer.
  const held = async (): Promise<number> => {
    const now = await points.nth(1).boundingBox();
    return now ? Math.hypot(now.x + now.width / 2 - box.x - 130, now.y + now.height / 2 - box.y - 12) : Infinity;
  };
  await page.mouse.move(box.x + 130, box.y + 12, { steps: 5 });
  await expect.poll(held).toBeLessThan(2);
  await page.mouse.up();
  await expect(chooser).toHaveValue('own');
  await editor.getByRole('button', { name: 'point' }).first().click();
  await expect(points).toHaveCount(count + 1);
  await points.nth(0).focus();
  await page.keyboard.press('Shift+ArrowRight');
  await expect(points.nth(0)).toHaveAttribute('aria-valuetext', /^10 across/);
  await scene.saved();

  // A quarter of the way set by hand: the layer stands where the line is then.
  const stored = await scene.stored(id);
  const path = stored.layers.find((layer) => layer.id === board.id)?.path;
  const even = path && createEvenPath(path.d);
  expect(even && pathPoint(even, 0)).toMatchObject({ x: 10 });

  // Undone to the start.
  const undo = page.getByRole('button', { name: /^Undo/ });
  await expect(async () => {
    if (await undo.isEnabled()) await undo.click({ timeout: 1000 });
    await expect(undo).toBeDisabled({ timeout: 200 });
  }).toPass();
  await expect(chooser).toHaveValue('');
});
