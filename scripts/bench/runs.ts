import {
  apply,
  createPresetCompiler,
  createRecipe,
  createShelf,
  plan,
  STARTER_LIBRARY,
  type Scene,
} from '@wexikine/core';
import { prepare } from '../../server/src/packing';
import { report } from './measure';
import { plainScene } from './scenes';

const shelf = createShelf(STARTER_LIBRARY);
const compile = createPresetCompiler();
const RUNS = 10;
const MEGABYTE = 1e6;

/** A scene with ten runs of an ordinary preset, one after the other in time. */
export function sceneWithRuns(layers: number, existing: 'replace' | 'add'): Scene {
  let scene = plainScene(layers);
  for (let i = 0; i < RUNS; i++) {
    const recipe = {
      ...createRecipe('bring-in', 'rise-and-settle', { by: 'rule' as const, tag: 'row' }),
      existing,
      start: { by: 'time' as const, at: `${i * 20}f` },
    };
    const context = { runId: `run-${i}`, by: 'bench', when: '2026-01-01T00:00:00.000Z' };
    const done = apply(scene, plan(scene, shelf, recipe, context, compile).edits);
    if (!done.ok) throw new Error(done.problem.code);
    scene = done.scene;
  }
  return scene;
}

/** What the runs of a scene take up: their records with the base below them, and all of it as it is stored. */
export function benchRuns(): void {
  for (const existing of ['replace', 'add'] as const) {
    const scene = sceneWithRuns(1_000, existing);
    const records = JSON.stringify([scene.runs, scene.layers.map(({ base }) => base)]).length;
    const { chunks, runs } = prepare(scene.layers, scene.runs);
    const bodies = [...chunks.map(({ body }) => body), ...runs.flatMap(({ slices }) => slices)];
    const stored = bodies.reduce((sum, body) => sum + body.length, 0);
    report(
      `1,000 layers × 10 runs that ${existing}: records and base`,
      `${(records / MEGABYTE).toFixed(2)} MB`,
      'at most 3 MB',
      records <= 3 * MEGABYTE,
    );
    report(
      '  stored, with all keys that stand',
      `${(stored / MEGABYTE).toFixed(2)} MB`,
      'at most 3 MB',
      stored <= 3 * MEGABYTE,
    );
  }
}
