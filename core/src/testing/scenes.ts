import type { Key, Layer } from '../scene/layer';
import { SCENE_FORMAT, type Scene } from '../scene/scene';
import { frameTicks, ticksFromSeconds, type Rate } from '../basics/time';
import { createRecipe, type PresetRecipe } from '../scene/recipe';

/** 25 frames a second. */
export const PAL: Rate = { num: 25, den: 1 };

/** A card for tests, at 25 frames a second from 0 to 10 s unless told otherwise. */
export function card(id: string, more: Partial<Layer> = {}): Layer {
  return {
    id,
    name: id,
    kind: 'card',
    parent: null,
    tags: [],
    locked: false,
    hidden: false,
    span: { in: 0, out: ticksFromSeconds(10) },
    tracks: {},
    look: { fill: '#ffffff' },
    source: { type: 'rectangle' },
    data: {},
    rest: { 'position.x': 100, 'position.y': 100, 'size.x': 100, 'size.y': 50 },
    ...more,
  };
}

/** A scene of 1000 × 500 px and 10 s with some layers. */
export function sceneOf(layers: readonly Layer[], rate: Rate = PAL): Scene {
  return {
    format: SCENE_FORMAT,
    id: 'test',
    name: 'Test',
    project: '',
    width: 1000,
    height: 500,
    rate,
    length: ticksFromSeconds(10),
    cues: [],
    layers: [...layers],
    runs: [],
  };
}

/** A key at a frame of 25 a second. */
export function key(frame: number, value: number, ease: Key['ease'] = { type: 'linear' }): Key {
  return { at: frame * frameTicks(PAL), value, ease };
}

/** Frames of a time at a rate; tests read better in frames. */
export function inFrames(ticks: number, rate: Rate = PAL): number {
  return ticks / frameTicks(rate);
}

/** Bring in with *fade in* on all cards, unless told otherwise. */
export function recipeOf(more: Partial<PresetRecipe> = {}): PresetRecipe {
  return { ...createRecipe('bring-in', 'fade-in', { by: 'rule', kind: 'card' }), ...more };
}

/** Who plans a run, when, and under which id. */
export const CONTEXT = { runId: 'run-1', by: 'Tester', when: '2026-01-01T00:00:00.000Z' };
