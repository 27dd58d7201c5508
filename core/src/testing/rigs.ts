import { expect } from '@jest/globals';
import { CHANNEL_COUNT, channelOf, type ChannelId } from '../basics/channel';
import { ticksFromSeconds } from '../basics/time';
import type { Rig } from '../formulas/rig';
import { createShelf, type RigItem } from '../library/library';
import { STARTER_LIBRARY, STARTER_RIGS } from '../library/starter';
import { plan } from '../runs/plan';
import { apply } from '../scene/edit';
import type { Layer } from '../scene/layer';
import { createRigRecipe, type RigRecipe } from '../scene/recipe';
import { compileScene, createFrame, sampleFrame } from '../scene/sample';
import type { Scene } from '../scene/scene';
import { card, CONTEXT, key } from './scenes';

const ALL = { by: 'rule', kind: 'card' } as const;
/** The starter library. */
export const SHELF = createShelf(STARTER_LIBRARY);

/** A rig of the library on all cards. */
export function recipeOf(rig: string, more: Partial<RigRecipe> = {}): RigRecipe {
  return { ...createRigRecipe(rig, ALL), ...more };
}

/** The scene with a rig on its layers. */
export function rigged(scene: Scene, recipe: RigRecipe, shelf = SHELF, runId = 'run-1'): Scene {
  const planned = plan(scene, shelf, recipe, { ...CONTEXT, runId });
  const errors = planned.findings.filter(({ code }) => code === 'bad-field' || code === 'rig-broken');
  expect(errors).toEqual([]);
  const applied = apply(scene, planned.edits);
  if (!applied.ok) throw new Error(applied.problem.code);
  return applied.scene;
}

/** A rig of one's own with a fixed text on some channels. */
export function shelfWith(text: string, channels: readonly ChannelId[] = ['position.x'], more: Partial<Rig> = {}) {
  const body: Rig = { dials: [], roles: [], formulas: [{ channels: [...channels], text }], ...more };
  const item: RigItem = { ...STARTER_RIGS[0], id: 'own', body };
  return createShelf([...STARTER_LIBRARY, item]);
}

/** What a channel of a layer is at a time, with its rigs. */
export function valueIn(scene: Scene, layer: string, channel: ChannelId, seconds: number): number {
  const compiled = compileScene(scene);
  const frame = createFrame(compiled);
  sampleFrame(compiled, ticksFromSeconds(seconds), frame);
  const index = scene.layers.findIndex(({ id }) => id === layer);
  return frame.values[index * CHANNEL_COUNT + channelOf(channel).slot];
}

/** Slides from x = 0 to 200 in one second and stops there. */
export const slider = (id: string, more: Partial<Layer> = {}): Layer =>
  card(id, { tracks: { 'position.x': [key(0, 0), key(25, 200)] }, ...more });
