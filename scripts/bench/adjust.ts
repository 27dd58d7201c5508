import {
  ADJUST_TYPES,
  addStep,
  createAdjust,
  createPresetCompiler,
  createShelf,
  dryRun,
  STARTER_LIBRARY,
  type AdjustRecipe,
} from '@wexikine/core';
import { median, report } from './measure';
import { keyedScene } from './scenes';

const CONTEXT = { runId: 'bench', by: 'bench', when: '2026-01-01T00:00:00.000Z' };
/** Most that planning may take of the 100 ms in which it is to be on screen, milliseconds. */
const MOST = 60;
/** Steps that fit curves anew take longer than those that move keys; they are told and not judged by the same measure. */
const FITTING = new Set(['thin-out', 'hold']);

/** Adjustments of ten thousand keys, each step by itself. */
export async function benchAdjust(): Promise<void> {
  const scene = keyedScene(340, 'few');
  const keys = scene.layers.reduce(
    (sum, { tracks }) => sum + Object.values(tracks).reduce((all, list) => all + list.length, 0),
    0,
  );
  const shelf = createShelf(STARTER_LIBRARY);
  const compile = createPresetCompiler();
  const began = createAdjust({ by: 'layers', layers: scene.layers.map(({ id }) => id) });
  let [slowest, took] = ['', 0];
  for (const type of ADJUST_TYPES.filter((one) => !FITTING.has(one))) {
    const added = addStep(began, type);
    const recipe: AdjustRecipe = { ...added, steps: added.steps.slice(1) };
    const time = await median(() => dryRun(scene, shelf, recipe, CONTEXT, compile), 5, 1);
    if (time > took) [slowest, took] = [type, time];
  }
  report(`adjusting ${keys} keys, the slowest step (${slowest})`, `${took.toFixed(0)} ms`, `${MOST} ms`, took <= MOST);
}
