import {
  apply,
  compileScene,
  createPresetCompiler,
  createShelf,
  difference,
  dryRun,
  operationFor,
  plan,
  recipeSchema,
  STARTER_LIBRARY,
  type Plan,
  type Recipe,
  type Scene,
} from '@wexikine/core';
import { median, report } from './measure';
import { plainScene, recipe, SIZES } from './scenes';

const CONTEXT = { runId: 'bench', by: 'bench', when: '2026-01-01T00:00:00.000Z' };
/** The application keeps compiled presets from plan to plan, and so does the bench. */
const compile = createPresetCompiler();
const shelf = createShelf(STARTER_LIBRARY);
/** Noise of a small measure against a large one; growth is called linear within it. */
const SLACK = 1.6;
/** Growth of what takes next to no time says nothing, milliseconds. */
const WORTH_MEASURING = 2;

function applied(scene: Scene, planned: Plan) {
  const result = apply(scene, planned.edits);
  if (!result.ok) throw new Error(result.problem.code);
  return result;
}

/** Memory that planning takes, most of it for a moment. */
function benchAllocation(work: () => unknown): void {
  const found: number[] = [];
  for (let i = 0; i < 5; i++) {
    globalThis.gc?.();
    const before = process.memoryUsage().heapUsed;
    work();
    found.push((process.memoryUsage().heapUsed - before) / 1e6);
  }
  const middle = found.sort((a, b) => a - b)[2];
  report('  allocated while planning 1,000 layers', `${middle.toFixed(1)} MB`, 'at most 4 MB', middle <= 4);
}

/** Movements make keys by the dozen for each layer, most of which layers have in common. */
async function benchMovements(): Promise<void> {
  const scene = plainScene(1_000);
  for (const id of ['loop-the-loop', 'bounce-home', 'spring-home', 'sway-in-the-wind']) {
    const phase = shelf.preset(id)?.body.phase ?? 'entrance';
    const moving = recipeSchema.parse({ ...recipe, operation: operationFor(phase), preset: { id }, parameters: {} });
    const keys = dryRun(scene, shelf, moving, CONTEXT, compile).counts.added;
    const took = await median(() => dryRun(scene, shelf, moving, CONTEXT, compile), 7);
    report(`  planning ${id}, ${keys} keys`, `${took.toFixed(0)} ms`, 'for comparison', keys > 0);
  }
}

/** Planning, applying, undoing, saving's difference and compiling, and how they grow with the layers. */
export async function benchPlanning(): Promise<void> {
  const parsed: Recipe = recipeSchema.parse(recipe);
  const figures: Record<string, number[]> = {};
  const note = (name: string, value: number): void => void (figures[name] ??= []).push(value);
  for (const size of SIZES) {
    const scene = plainScene(size);
    const rounds = size > 1_000 ? 7 : 25;
    const planned = plan(scene, shelf, parsed, CONTEXT, compile);
    const done = applied(scene, planned);
    note('planning bring in', await median(() => dryRun(scene, shelf, parsed, CONTEXT, compile), rounds));
    note('planning all that applying takes', await median(() => plan(scene, shelf, parsed, CONTEXT, compile), rounds));
    if (size === 1_000) benchAllocation(() => dryRun(scene, shelf, parsed, CONTEXT, compile));
    note('applying it', await median(() => applied(scene, planned), rounds));
    note('undoing it', await median(() => apply(done.scene, done.inverse), rounds));
    note('finding what to save', await median(() => difference(scene, done.scene), rounds));
    // Two by turns that share nothing, as what was compiled last serves again.
    const byTurns = [done.scene, structuredClone(done.scene)];
    let turn = 0;
    note('compiling the scene', await median(() => compileScene(byTurns[turn++ % 2]), rounds));
  }
  await benchMovements();
  for (const [name, [small, middle, large]] of Object.entries(figures)) {
    const wanted = name === 'planning bring in' ? 25 : 100;
    report(`${name}, 1,000 layers`, `${middle.toFixed(1)} ms`, `under ${wanted} ms`, middle < wanted);
    const growth = large / middle;
    report(
      `  from 1,000 to 10,000 layers (100: ${small.toFixed(2)} ms)`,
      `${growth.toFixed(1)}×, ${large.toFixed(0)} ms`,
      `at most ${10 * SLACK}×`,
      growth <= 10 * SLACK || middle < WORTH_MEASURING,
    );
  }
}
