import { expect, type Page } from '@playwright/test';
import { frameTicks, ticksFromSeconds, type Layer, type Rate, type Scene } from '@wexikine/core';
import { SceneScreen } from './scene-screen';

export const PAL: Rate = { num: 25, den: 1 };

/** A card in the middle of the frame, over ten seconds. */
export function card(id: string, more: Partial<Layer> = {}): Layer {
  return {
    id,
    name: `Card ${id}`,
    kind: 'card',
    parent: null,
    tags: ['card'],
    locked: false,
    hidden: false,
    span: { in: 0, out: ticksFromSeconds(10) },
    rest: { 'position.x': 960, 'position.y': 540, 'size.x': 200, 'size.y': 100 },
    tracks: {},
    look: { fill: '#f3c98b' },
    source: { type: 'rectangle' },
    data: {},
    ...more,
  };
}

/** A scene of one's own on the server; its id. */
export async function sceneWith(page: Page, layers: readonly Layer[], rate: Rate = PAL, seconds = 10): Promise<string> {
  const scene = {
    format: 'wexikine-scene-2',
    name: `Test ${layers.length} at ${rate.num}`,
    project: '',
    width: 1920,
    height: 1080,
    rate,
    length: ticksFromSeconds(seconds),
    cues: [],
    layers,
    runs: [],
  };
  const response = await page.request.post('/api/scenes', { data: { scene, by: 'Test' } });
  return ((await response.json()) as { scene: Scene }).scene.id;
}

/** A scene of one’s own, opened. */
export async function openWith(page: Page, layers: readonly Layer[], rate: Rate = PAL, seconds = 10) {
  const id = await sceneWith(page, layers, rate, seconds);
  const screen = new SceneScreen(page);
  await screen.open(id);
  return { id, screen };
}

/** Chooses a preset by searching for its name. */
export async function choosePreset(screen: SceneScreen, name: string): Promise<void> {
  await screen.field('preset').click();
  await screen.editor.getByRole('searchbox', { name: 'Search presets' }).fill(name);
  await screen.editor
    .getByRole('button', { name: new RegExp(`^${name}`) })
    .first()
    .click();
  await expect(screen.field('preset')).toHaveText(name);
}

/** Picks a way in the editor of a field, and fills its fields. */
export async function say(
  screen: SceneScreen,
  field: string,
  way: string,
  texts: Readonly<Record<string, string>> = {},
): Promise<void> {
  await screen.field(field).click();
  await screen.editor.getByRole('radio', { name: new RegExp(`^${way}`) }).check();
  for (const [name, text] of Object.entries(texts)) await screen.editor.getByLabel(name, { exact: true }).fill(text);
  await screen.closeEditor();
}

/** Applies the dry run and waits until it is saved. */
export async function applied(screen: SceneScreen): Promise<void> {
  await screen.applyButton.click();
  await expect(screen.applyButton).toHaveText('Applied');
  await screen.saved();
}

/** Ticks in frames of a scene. */
export function frames(scene: Scene, ticks: number): number {
  return ticks / frameTicks(scene.rate);
}

/** In points of all layers, in frames. */
export function starts(scene: Scene): number[] {
  return scene.layers.map(({ span }) => frames(scene, span.in));
}
