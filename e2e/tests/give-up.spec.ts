import type { Locator, Page } from '@playwright/test';
import { frameTicks, type Key, type Layer } from '@wexikine/core';
import { card, PAL, sceneWith } from '../pages/made-scenes';
import { copyOf, SceneScreen } from '../pages/scene-screen';
import { expect, test } from '../pages/test';

const FRAME = frameTicks(PAL);
const key = (frame: number, value: number): Key => ({ at: frame * FRAME, value, ease: { type: 'linear' } });

const moving: Layer = card('a', {
  rest: { 'position.x': 600, 'position.y': 540, 'size.x': 300, 'size.y': 300 },
  tracks: { 'position.x': [key(50, 600), key(100, 900)] },
});

async function middleOf(place: Locator): Promise<{ x: number; y: number }> {
  await place.scrollIntoViewIfNeeded();
  const box = (await place.boundingBox()) ?? { x: 0, y: 0, width: 0, height: 0 };
  return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
}

/** Drags from a place, shows that something is dragged, presses Escape, goes on with the pointer and lets go. */
async function giveUp(
  page: Page,
  from: { x: number; y: number },
  by: { x: number; y: number },
  seen: () => Promise<void>,
) {
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move(from.x + by.x, from.y + by.y, { steps: 5 });
  await seen();
  await page.keyboard.press('Escape');
  await page.mouse.move(from.x + by.x + 20, from.y + by.y + 8, { steps: 3 });
  await page.mouse.up();
}

test('Escape gives up what is dragged on the stage, in rows of keys, on curves and among the cues', async ({
  page,
}) => {
  const scene = new SceneScreen(page);
  const id = await sceneWith(page, [moving, card('b', { rest: { 'position.x': 1400, 'position.y': 540 } })]);
  await scene.openAtRest(id);
  const undo = page.getByRole('button', { name: /^Undo/ });
  const before = await scene.stored(id);
  await scene.row('Card a').click();

  // On the stage: the outline goes along, and is back.
  const outline = page.locator('wx-stage-handles .edge');
  const stood = await outline.getAttribute('points');
  const isDragged = () => expect(outline).not.toHaveAttribute('points', stood ?? '');
  const on = await scene.onScreen(600 / 1920, 0.5);
  await giveUp(page, on, { x: 80, y: 30 }, isDragged);
  await expect(outline).toHaveAttribute('points', stood ?? '');
  await giveUp(page, await middleOf(page.locator('[data-grip=corner-2]')), { x: 50, y: 50 }, isDragged);
  await expect(outline).toHaveAttribute('points', stood ?? '');

  // A row that is carried elsewhere, and the line between the sheet and the preview.
  const carried = await middleOf(scene.row('Card b').getByText('Card b', { exact: true }));
  await giveUp(page, carried, { x: 0, y: -40 }, () => expect(page.locator('wx-run-sheet .drop-line')).toBeVisible());
  await expect(page.locator('wx-run-sheet .drop-line')).toHaveCount(0);
  const line = page.getByRole('separator').first();
  const share = (await line.getAttribute('aria-valuenow')) ?? '';
  await giveUp(page, await middleOf(line), { x: -90, y: -60 }, () =>
    expect(line).not.toHaveAttribute('aria-valuenow', share),
  );
  await expect(line).toHaveAttribute('aria-valuenow', share);

  // A cue.
  await page.getByRole('tab', { name: 'Cues' }).click();
  await scene.setTime('1:00');
  await page.getByRole('button', { name: 'At the playhead' }).click();
  await scene.saved();
  const cue = page.locator('[data-cue]');
  const mark = await cue.getAttribute('d');
  await giveUp(page, await middleOf(cue), { x: 60, y: 0 }, () => expect(cue).not.toHaveAttribute('d', mark ?? ''));
  await expect(cue).toHaveAttribute('d', mark ?? '');

  // Keys in their rows.
  await page.keyboard.press('k');
  const strip = page.locator('[data-key-row="a position.x"]').getByRole('gridcell').nth(1);
  const svg = (await strip.boundingBox()) ?? { x: 0, y: 0, width: 0, height: 0 };
  const at = { x: svg.x + ((50 * FRAME) / before.length) * (svg.width - 14), y: svg.y + 14 };
  await giveUp(page, at, { x: 90, y: 0 }, () => expect(page.getByText(/^\+\d+ f, to/)).toBeVisible());
  await expect(page.getByText(/^\+\d+ f, to/)).toHaveCount(0);
  await expect(page.getByText(/^1 of \d+ keys picked$/)).toBeVisible();

  // A key on its curve.
  await page.keyboard.press('c');
  const dot = page.getByRole('checkbox', { name: /^Card a, position x at 2:00/ });
  await giveUp(page, await middleOf(dot), { x: 30, y: -30 }, () =>
    expect(page.getByText(/^Move .* by /)).toBeVisible(),
  );
  await expect(page.getByText(/^Move .* by /)).toHaveCount(0);

  // Nothing but the cue was done.
  await expect(undo.first()).toHaveAccessibleName(/^Undo Add a cue/);
  expect((await scene.stored(id)).layers).toEqual(before.layers);
});

test('Escape puts a number that is scrubbed back, and a line that is dragged point by point', async ({ page }) => {
  const scene = new SceneScreen(page);
  const id = await copyOf(page, 'programme-board');
  await scene.open(id);
  const spacing = scene.field('spacing');
  const text = (await spacing.innerText()).trim();
  const from = await middleOf(spacing);
  await giveUp(page, from, { x: 40, y: 0 }, () => expect(spacing).not.toHaveText(text));
  await expect(spacing).toHaveText(text);
  // The press that ended so opened nothing.
  await expect(scene.editor).toHaveCount(0);

  await page.keyboard.press('w');
  await scene.row('Moonrise walk').first().click();
  await page.getByRole('tab', { name: /^Layer/ }).click();
  const chooser = page.getByLabel('Motion path', { exact: true });
  await chooser.selectOption({ label: 'Loop' });
  const point = page.locator('wx-path-editor').getByRole('slider', { name: /^Point 2/ });
  const words = (await point.getAttribute('aria-valuetext')) ?? '';
  await giveUp(page, await middleOf(point), { x: 60, y: 10 }, () =>
    expect(point).not.toHaveAttribute('aria-valuetext', words),
  );
  await expect(point).toHaveAttribute('aria-valuetext', words);
  await expect(chooser).not.toHaveValue('own');
});
