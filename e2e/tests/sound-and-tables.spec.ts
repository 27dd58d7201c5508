import type { Page } from '@playwright/test';
import { expect, test } from '../pages/test';
import { TICKS_PER_SECOND, type Layer } from '@wexikine/core';
import { card, sceneWith } from '../pages/made-scenes';
import { copyOf, SceneScreen } from '../pages/scene-screen';

const RATE = 22_050;

/** A WAV file (RIFF, 16 bit, one channel) with a click of noise at each time. */
function clicks(times: readonly number[], seconds: number): number[] {
  const samples = new Int16Array(seconds * RATE);
  let seed = 1;
  const noise = (): number => ((seed = (seed * 16_807) % 2_147_483_647) / 2_147_483_647) * 2 - 1;
  for (const at of times) {
    for (let i = 0; i < 2_000; i++) samples[Math.round(at * RATE) + i] = noise() * 20_000 * Math.exp(-i / 400);
  }
  const bytes = new DataView(new ArrayBuffer(44 + samples.length * 2));
  const text = (at: number, word: string): void => [...word].forEach((c, i) => bytes.setUint8(at + i, c.charCodeAt(0)));
  text(0, 'RIFF');
  bytes.setUint32(4, 36 + samples.length * 2, true);
  text(8, 'WAVEfmt ');
  bytes.setUint32(16, 16, true);
  bytes.setUint16(20, 1, true);
  bytes.setUint16(22, 1, true);
  bytes.setUint32(24, RATE, true);
  bytes.setUint32(28, RATE * 2, true);
  bytes.setUint16(32, 2, true);
  bytes.setUint16(34, 16, true);
  text(36, 'data');
  bytes.setUint32(40, samples.length * 2, true);
  samples.forEach((sample, i) => bytes.setInt16(44 + i * 2, sample, true));
  return [...new Uint8Array(bytes.buffer)];
}

async function dropBytes(page: Page, files: readonly { name: string; bytes: readonly number[] }[]): Promise<void> {
  await page.locator('wx-preview > canvas').evaluate((target, given) => {
    const data = new DataTransfer();
    for (const { name, bytes } of given) data.items.add(new File([new Uint8Array(bytes)], name));
    const made = { bubbles: true, cancelable: true, clientX: 900, clientY: 300, dataTransfer: data };
    target.dispatchEvent(new DragEvent('drop', made));
  }, files);
}

test('a sound is dropped: it is heard, its loudness is seen, and its beats become cues', async ({ page }) => {
  const scene = new SceneScreen(page);
  const id = await copyOf(page, 'programme-board');
  await scene.openAtRest(id);
  const before = await scene.stored(id);
  const times = Array.from({ length: 11 }, (_, i) => 0.5 + i * 0.5);
  await dropBytes(page, [
    { name: 'Drums.wav', bytes: clicks(times, 6) },
    { name: 'broken.wav', bytes: [...'RIFF....WAVEfmt '].map((c) => c.charCodeAt(0)) },
  ]);
  await expect(page.getByText(/1 sound came in; “broken” did not: this browser cannot decode it/)).toBeVisible();
  const stored = await (await scene.saved(), scene.stored(id));
  const sound = stored.layers.at(-1);
  expect(sound).toMatchObject({ name: 'Drums', kind: 'sound', span: { in: 0, out: 6 * TICKS_PER_SECOND } });
  await expect(page.getByRole('img', { name: 'Loudness of Drums' })).toBeVisible();
  await page.getByRole('tab', { name: /Layer/ }).click();
  await expect(page.getByText(/11 in the scene, about 120\.\d a minute/)).toBeVisible();
  await page.getByLabel('Cues on').selectOption('every 2nd beat');
  await page.getByRole('button', { name: 'Add 6 cues' }).click();
  await scene.saved();
  const frame = TICKS_PER_SECOND / 25;
  const cues = (await scene.stored(id)).cues.slice(before.cues.length).map(({ at }) => at / frame);
  const wanted = [12.5, 37.5, 62.5, 87.5, 112.5, 137.5];
  expect(cues).toHaveLength(6);
  cues.forEach((at, i) => expect(Math.abs(at - wanted[i])).toBeLessThanOrEqual(1));
  // A run on every layer leaves the sound alone, and playing goes on with it.
  await page.locator('wx-preview > canvas').focus();
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'Pause' })).toBeVisible();
  await page.keyboard.press('Space');
});

test('rows of a table become copies of a group, and bring them up to date', async ({ page }) => {
  const scene = new SceneScreen(page);
  const words = (name: string, y: number): Layer =>
    card(name, {
      name,
      kind: 'word',
      parent: 'caption',
      source: { type: 'text', text: name, font: 'Spline Sans', weight: 500, size: 40, align: 'left' },
      rest: { 'position.x': 200, 'position.y': y, 'size.x': 400, 'size.y': 50 },
    });
  const id = await sceneWith(page, [
    card('caption', {
      name: 'Caption',
      kind: 'group',
      source: { type: 'none' },
      rest: { 'position.x': 500, 'position.y': 200, 'size.x': 400, 'size.y': 100 },
    }),
    words('name', 25),
    words('role', 75),
  ]);
  await scene.openAtRest(id);
  const rowsOf = async (text: string): Promise<void> => {
    await page.getByRole('button', { name: 'Data', exact: true }).click();
    const dialog = page.getByRole('dialog', { name: 'Data of the layers' });
    await dialog.getByLabel('Cells of a spreadsheet').fill(text);
    await dialog.getByRole('radio', { name: 'One copy of a group each' }).check();
  };
  await rowsOf('name,role\nIda Marsh,Astronomer\nOle Reed,Keeper\nUna Tide,Guide');
  await page.getByRole('button', { name: 'Make 2, update 1' }).click();
  await expect(page.getByText('Copies: 2 made, 1 up to date.')).toBeVisible();
  const texts = async (): Promise<string[]> =>
    (await scene.stored(id)).layers.flatMap(({ source }) => (source.type === 'text' ? [source.text] : []));
  await expect.poll(texts).toEqual(['Ida Marsh', 'Astronomer', 'Ole Reed', 'Keeper', 'Una Tide', 'Guide']);
  await rowsOf('name,role\nOle Reed,Head keeper\nTom Weir,Pilot');
  const dialog = page.getByRole('dialog', { name: 'Data of the layers' });
  await expect(dialog.getByText('No row any more for: Una Tide. They stay.')).toBeVisible();
  await dialog.getByLabel('Take away copies whose row is gone').check();
  await dialog.getByRole('button', { name: 'Make 1, update 1' }).click();
  await expect.poll(texts).toEqual(['Ida Marsh', 'Astronomer', 'Tom Weir', 'Pilot', 'Ole Reed', 'Head keeper']);
});
