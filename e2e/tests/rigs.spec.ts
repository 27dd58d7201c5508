import type { Page } from '@playwright/test';
import { expect, test } from '../pages/test';
import { expectNoFaults } from '../pages/faults';
import { frameTicks, type Key, type Layer, type Scene } from '@wexikine/core';
import { readFileSync } from 'node:fs';
import { BenchScreen } from '../pages/bench-screen';
import { SceneScreen } from '../pages/scene-screen';

const PAL = { num: 25, den: 1 };
const FRAME = frameTicks(PAL);

/** A scene with words that slide, turn, grow and fade in, one after the other, each arriving with speed. */
async function sliding(page: Page, count: number): Promise<{ id: string; scene: Scene }> {
  const layers = Array.from({ length: count }, (_, i): Layer => {
    const at = (frame: number): number => (i * 2 + frame) * FRAME;
    const keys = (from: number, to: number) => [
      { at: at(0), value: from, ease: { type: 'linear' as const } },
      { at: at(10), value: to, ease: { type: 'linear' as const } },
    ];
    const [x, y] = [160 + (i % 10) * 160, 100 + Math.floor(i / 10) * 140];
    return {
      id: `word-${i + 1}`,
      name: `Word ${i + 1}`,
      kind: 'word',
      parent: null,
      tags: ['word'],
      locked: false,
      hidden: false,
      span: { in: 0, out: 150 * FRAME },
      rest: { 'position.x': x, 'position.y': y, 'size.x': 120, 'size.y': 50 },
      tracks: {
        'position.x': keys(x - 400, x),
        'scale.x': keys(0.2, 1),
        'scale.y': keys(0.2, 1),
        rotation: keys(-40, 0),
        opacity: keys(0, 0.8),
      },
      look: { fill: '#f3c98b' },
      source: { type: 'text', text: 'tide', font: 'Spline Sans', weight: 600, size: 36, align: 'middle' },
      data: {},
    };
  });
  const scene = {
    format: 'wexikine-scene-2',
    name: 'Sliding words',
    project: 'Trial',
    width: 1920,
    height: 1080,
    rate: PAL,
    length: 150 * FRAME,
    cues: [],
    layers,
    runs: [],
  };
  const made = await page.request.post('/api/scenes', { data: { scene, by: 'Tester' } });
  const answer = (await made.json()) as { scene: Scene };
  return { id: answer.scene.id, scene: answer.scene };
}

async function applied(page: Page): Promise<void> {
  await page.getByRole('button', { name: /^Apply to/ }).click();
  await expect(page.getByRole('button', { name: 'Applied' })).toBeVisible();
}

test('ten layers are rigged, a dial is keyed, one layer breaks away, five become keys, and undo takes all of it back', async ({
  page,
}) => {
  const { id, scene } = await sliding(page, 10);
  const screen = new SceneScreen(page);
  await page.goto(`/scenes/${id}?preset=rig-carry-and-settle`);
  await expect(page.getByRole('region', { name: 'The run as a sentence' })).toContainText(
    'Rig 10 layers tagged “word” with Carry and settle, on position, scale, rotation and opacity',
  );
  await applied(page);
  await page.getByRole('tab', { name: 'Dials' }).click();
  await expect(page.getByText('shared by all 10')).toBeVisible();
  await expectNoFaults(page);

  // One dial calms all of them, by the keyboard; quick keys each count.
  const calm = page.getByRole('slider', { name: 'Calm' });
  await calm.focus();
  for (let i = 0; i < 20; i++) await page.keyboard.press('ArrowUp');
  await expect(calm).toHaveAttribute('aria-valuenow', '5');
  // By the pointer.
  const carry = page.getByRole('slider', { name: 'Carry' });
  const box = await carry.boundingBox();
  if (!box) throw new Error('no knob');
  await page.mouse.move(box.x + 20, box.y + 20);
  await page.mouse.down();
  await page.mouse.move(box.x + 60, box.y + 20, { steps: 5 });
  await page.mouse.up();
  await expect.poll(async () => Number(await carry.getAttribute('aria-valuenow'))).toBeGreaterThan(1);

  // A dial is keyed at the playhead, and once more a second later.
  await page.getByRole('button', { name: 'Key Pace at the playhead' }).click();
  await expect(page.getByText('keyed, one key')).toBeVisible();

  // Its key stands among the keys of the scene, and is moved and set there.
  const dialKeys = async (): Promise<Key[]> => {
    const recipe = (await screen.stored(id)).runs[0]?.recipe;
    const pace = recipe?.operation === 'rig' ? recipe.parameters['pace'] : undefined;
    return pace?.by === 'keys' ? pace.keys : [];
  };
  await expect.poll(async () => (await dialKeys()).length).toBe(1);
  const [before] = await dialKeys();
  await page.getByRole('button', { name: 'Keys', exact: true }).first().click();
  const row = page.locator('wx-keys-view').getByRole('row', { name: /^Pace/ });
  await row.scrollIntoViewIfNeeded();
  await row.focus();
  await page.keyboard.press('Enter');
  await page.keyboard.press('Shift+ArrowRight');
  await page.getByRole('textbox', { name: 'Set values to, or change by' }).fill('×2');
  await page.keyboard.press('Enter');
  await expectNoFaults(page);
  await expect
    .poll(dialKeys)
    .toEqual([{ ...before, at: before.at + 10 * frameTicks(scene.rate), value: before.value * 2 }]);
  // It is copied and pasted as keys of layers are, and takes a curve in the panel, where its own is drawn.
  await row.focus();
  await page.keyboard.press('Control+c');
  await expect(page.getByText('1 key copied.')).toBeVisible();
  await page.keyboard.press('Control+v');
  await expect(page.getByText('1 key pasted on the dial “Pace” of Carry and settle.')).toBeVisible();
  await expect
    .poll(async () => (await dialKeys()).map(({ at }) => at))
    .toEqual([before.at, before.at + 10 * frameTicks(scene.rate)]);
  await row.focus();
  await page.keyboard.press('Enter');
  await page.getByRole('tab', { name: 'Curve' }).click();
  const panel = page.getByRole('tabpanel');
  await expect(panel.getByText('Pace', { exact: true })).toBeVisible();
  await panel.getByRole('textbox', { name: 'Leaves: strength in per cent' }).fill('80');
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await dialKeys())[0]?.ease).toMatchObject({ type: 'bezier', x1: 0.8, y1: 0 });
  await expectNoFaults(page);
  // All keys are picked with one press, those of the dial, too, and go with them.
  await page.keyboard.press('Escape');
  await page.locator('wx-keys-view').getByRole('row').first().focus();
  await page.keyboard.press('Control+a');
  const picked = /^(\d+) of \1 keys picked$/;
  await expect(page.locator('wx-keys-view').getByText(picked)).toBeVisible();
  await page.getByRole('tab', { name: 'Dials' }).click();
  await page.getByRole('button', { name: 'Run sheet', exact: true }).first().click();

  // One layer breaks away, and can come back.
  await page
    .getByRole('row', { name: /Word 4 / })
    .getByText('Word 4')
    .click();
  await page.getByRole('button', { name: 'Word 4', exact: true }).click();
  await calm.focus();
  await page.keyboard.press('End');
  await expect(page.getByText('Word 4 has a calm of its own')).toBeVisible();
  await expect(page.getByText('shared by 9 of 10')).toBeVisible();

  await page.getByRole('button', { name: 'All', exact: true }).click();
  await page.getByRole('button', { name: 'Try the extremes of Carry' }).click();
  await expect(page.getByRole('img', { name: 'carry at its most' })).toBeVisible();
  await expect(page.getByRole('img', { name: 'carry at its least' })).toBeVisible();

  await expect
    .poll(async () => (await screen.stored(id)).runs[0]?.recipe)
    .toMatchObject({
      operation: 'rig',
      parameters: { calm: { by: 'fixed', value: '5' }, pace: { by: 'keys' } },
      overrides: { 'word-4': { parameters: { calm: '12' } } },
    });
  // No keys were made by it.
  expect((await screen.stored(id)).layers.map(({ tracks }) => tracks)).toEqual(
    scene.layers.map(({ tracks }) => tracks),
  );

  // Five of them become keys.
  await page.getByRole('button', { name: 'More for these dials' }).click();
  await page.getByRole('menuitem', { name: 'Turn into keys…' }).click();
  const sentence = page.getByRole('region', { name: 'The run as a sentence' });
  await expect(sentence).toContainText('Turn into keys what rigs give 10 layers');
  for (const name of ['Word 6', 'Word 7', 'Word 8', 'Word 9', 'Word 10']) {
    await page.getByRole('checkbox', { name: `${name} takes part` }).click();
  }
  await expect(page.getByRole('button', { name: 'Apply to 5' })).toBeEnabled();
  await page.getByRole('tab', { name: /^Findings/ }).click();
  await expect(page.getByText(/keys; at worst .* off, on “Word/)).toBeVisible();
  await applied(page);
  await expect
    .poll(
      async () =>
        (await screen.stored(id)).layers.filter(({ tracks }) => (tracks['position.x'] ?? []).length > 2).length,
    )
    .toBe(5);

  // All of it is taken back, and the scene is as before.
  const undo = page.getByRole('button', { name: /^Undo/ }).first();
  await expect(async () => {
    if (await undo.isEnabled()) await undo.click({ timeout: 1_000 });
    await expect(undo).toBeDisabled({ timeout: 100 });
  }).toPass({ intervals: [50], timeout: 30_000 });
  await expect.poll(async () => (await screen.stored(id)).runs).toEqual([]);
  expect((await screen.stored(id)).layers).toEqual(scene.layers);
});

test('sixty words carry and settle by one sentence, the exported page too, and one dial calms all of them', async ({
  page,
}) => {
  const { id } = await sliding(page, 60);
  await page.goto(`/scenes/${id}?preset=rig-carry-and-settle`);
  await expect(page.getByText('Dry run: 60 layers rigged, no keys')).toBeVisible();
  await applied(page);
  await page.getByRole('tab', { name: 'Curve' }).click();
  await expect(page.getByText('keys alone', { exact: true }).last()).toBeVisible();
  await page.getByRole('tab', { name: 'Dials' }).click();
  await page.getByRole('slider', { name: 'Calm' }).focus();
  await page.keyboard.press('End');
  await expect(page.getByText(/within 1 % after 0\.\d\d s/)).toBeVisible();
  await page.getByRole('button', { name: 'Export' }).click();
  const waiting = page.waitForEvent('download');
  await page.getByRole('menuitem', { name: /^Web page/ }).click();
  const text = readFileSync(await (await waiting).path(), 'utf8');
  expect(text).toContain('What rigs drive, and motion along paths, stands here as keyframes');
  await expect(page.getByText(/cannot carry formulas/)).toBeVisible();
});

test('a rig is made on the bench: dials, parts, formulas with problems under the line, figures, and its revision', async ({
  page,
}) => {
  const bench = new BenchScreen(page);
  await page.goto('/library');
  await page.getByRole('button', { name: 'New preset' }).click();
  await page.getByRole('menuitem', { name: 'New rig' }).click();
  await expect(bench.name).toHaveValue('New rig');
  await bench.name.fill('Late answer');
  const editor = page.getByRole('textbox', { name: 'Formula for position y' });
  await editor.click();
  await page.keyboard.press('Control+a');
  await page.keyboard.insertText('keyed + @amount + 5deg');
  await expect(page.getByRole('alert')).toContainText('A length and an angle cannot be added. Did you mean 5px?');
  await page.keyboard.press('Control+a');
  await page.keyboard.insertText('let late = 2f\nkeyed + arrival × min(since, late) + @amount × 0');
  await expect(page.getByRole('alert')).toHaveCount(0);
  await expect(page.getByText(/passes by \d/)).toBeVisible();
  // A dial is turned by its knob; its default follows, and the draft keeps it.
  const knob = page.getByRole('slider', { name: 'Amount' });
  await knob.focus();
  await page.keyboard.press('Home');
  await expect(knob).toHaveAttribute('aria-valuetext', '0 px');
  // A part that another layer plays, under another name, which formulas follow.
  await page.getByRole('button', { name: 'Add a part' }).click();
  await page.getByRole('textbox', { name: 'Name of the part leader' }).fill('moon');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'formula for another channel' }).click();
  await page.getByRole('menuitem', { name: 'rotation', exact: true }).click();
  await page.getByRole('textbox', { name: 'Formula for rotation' }).click();
  await page.keyboard.press('Control+a');
  await page.keyboard.insertText('follow(moon.rotation, 3f)');
  await expect(page.locator('wx-rig-map')).toContainText('moon.rotation');
  await expectNoFaults(page);
  await bench.publish('As agreed.');
  await page.reload();
  await expect(page.getByRole('textbox', { name: 'Formula for rotation' })).toContainText('follow(moon.rotation, 3f)');
});

test('completions that are still looked for do not open once the formula is left', async ({ page }) => {
  const bench = new BenchScreen(page);
  await page.goto('/library');
  await page.getByRole('button', { name: 'New preset' }).click();
  await page.getByRole('menuitem', { name: 'New rig' }).click();
  await expect(bench.name).toHaveValue('New rig');
  const editor = page.getByRole('textbox', { name: 'Formula for position y' });
  const list = page.locator('.cm-tooltip-autocomplete');
  await editor.click();
  await page.keyboard.press('Control+a');
  await page.keyboard.type('12');
  await expect(list).toContainText('12px');
  await page.keyboard.press('Escape');
  await expect(list).toHaveCount(0);
  // Typed and left at once: what is offered after a moment comes too late.
  await editor.evaluate(async (element: HTMLElement) => {
    document.execCommand('insertText', false, '3');
    // The editor reads what was typed in between.
    await new Promise((read) => setTimeout(read));
    element.blur();
  });
  await expect(editor).toHaveText('123');
  await page.evaluate(() => new Promise((later) => setTimeout(later, 400)));
  await expect(list).toHaveCount(0);
  await editor.click();
  await page.keyboard.press('End');
  await page.keyboard.type('4');
  await expect(list).toContainText('1234px');
});

test('a dial is set by what one wants to see, and what cannot be is said', async ({ page }) => {
  const bench = new BenchScreen(page);
  await bench.open('rig-carry-and-settle');
  const wish = page.getByRole('textbox', { name: 'Per cent of the way' });
  await wish.fill('8');
  await page.keyboard.press('Enter');
  await expect(page.getByText('passes by 8.0 % of the way')).toBeVisible();
  await wish.fill('900');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('cannot do that between its soft limits');
});
