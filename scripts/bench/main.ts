import bezierEasing from 'bezier-easing';
import {
  apply,
  createPresetCompiler,
  compileScene,
  createFrame,
  createShelf,
  difference,
  dryRun,
  plan,
  recipeSchema,
  sampleTrack,
  sampleValues,
  STARTER_LIBRARY,
  tracksOf,
  type Plan,
  type Recipe,
  type Scene,
  type Track,
} from '@wexikine/core';
import { benchAdjust } from './adjust';
import { benchChecking } from './checking';
import { benchFormulas } from './formulas';
import { benchRigs } from './rigs';
import { benchLibrary } from './library';
import { median, mediansInTurn, report, verdict } from './measure';
import { benchRuns, sceneWithRuns } from './runs';
import { benchSaving } from './saving';
import { benchScreen } from './screen';
import { keyedScene, plainScene, recipe } from './scenes';

const CONTEXT = { runId: 'bench', by: 'bench', when: '2026-01-01T00:00:00.000Z' };
/** The application keeps compiled presets from plan to plan, and so does the bench. */
const compile = createPresetCompiler();
const shelf = createShelf(STARTER_LIBRARY);
const SIZES = [100, 1_000, 10_000];
/** Noise of a small measure against a large one; growth is called linear within it. */
const SLACK = 1.6;
/** Growth of what takes next to no time says nothing, milliseconds. */
const WORTH_MEASURING = 2;

/** One key pair of the reference: the package's function for the pair, as its users would keep it. */
interface ReferenceTrack {
  readonly keys: Track;
  readonly eases: readonly ((u: number) => number)[];
}

function referenceTracks(scene: Scene): ReferenceTrack[] {
  return scene.layers.flatMap((layer) =>
    tracksOf(layer).map(([, keys]) => ({
      keys,
      eases: keys.map(({ ease }) =>
        ease.type === 'bezier' ? bezierEasing(ease.x1, ease.y1, ease.x2, ease.y2) : (u: number): number => u,
      ),
    })),
  );
}

/** The same work: find the pair by bisection, ease with bezier-easing, interpolate, write. */
function sampleReference(tracks: readonly ReferenceTrack[], time: number, out: Float64Array): void {
  for (let t = 0; t < tracks.length; t++) {
    const { keys, eases } = tracks[t];
    let [low, high] = [0, keys.length - 1];
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (keys[middle].at <= time) low = middle;
      else high = middle - 1;
    }
    const [a, b] = [keys[low], keys[low + 1]];
    out[t] = b ? a.value + (b.value - a.value) * eases[low]((time - a.at) / (b.at - a.at)) : a.value;
  }
}

/** Frames that a second of playing samples. */
const FRAMES = 50;

async function benchSampling(): Promise<void> {
  for (const curves of ['few', 'all different'] as const) {
    const scene = keyedScene(1_000, curves);
    const compiled = compileScene(scene);
    const frame = createFrame(compiled);
    const reference = referenceTracks(scene);
    const out = new Float64Array(reference.length);
    const timeOf = (i: number): number => (scene.length * (i + 0.37)) / FRAMES;
    let [worst, far] = [0, 0];
    for (let i = 0; i < FRAMES; i++) {
      sampleValues(compiled, timeOf(i), frame);
      sampleReference(reference, timeOf(i), out);
      for (let t = 0; t < reference.length; t++) {
        const exact = sampleTrack(reference[t].keys, timeOf(i));
        far = Math.max(far, Math.abs(frame.values[compiled.tracks.target[t]] - exact));
        worst = Math.max(worst, Math.abs(out[t] - exact));
      }
    }
    const each = (work: (time: number) => void) => () => {
      for (let i = 0; i < FRAMES; i++) work(timeOf(i));
    };
    const [ours, theirs] = mediansInTurn(
      each((time) => sampleValues(compiled, time, frame)),
      each((time) => sampleReference(reference, time, out)),
    ).map((time) => time / FRAMES);
    const wanted = 3;
    report(
      `sampling 1,000 layers × 6 channels, curves ${curves}`,
      `${ours.toFixed(3)} ms a frame`,
      'under 2 ms',
      ours < 2,
    );
    report(
      '  the same with bezier-easing per key pair',
      `${theirs.toFixed(3)} ms, ${(theirs / ours).toFixed(1)}×`,
      `at least ${wanted}×`,
      theirs / ours >= wanted,
    );
    report(
      '  largest difference from the exact solver',
      `${far.toExponential(1)} (theirs ${worst.toExponential(1)})`,
      'below 1e-6',
      far < 1e-6,
    );
  }
}

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

async function benchPlanning(): Promise<void> {
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

const PARTS: Readonly<Record<string, () => unknown>> = {
  sampling: benchSampling,
  formulas: benchFormulas,
  planning: benchPlanning,
  runs: benchRuns,
  rigs: benchRigs,
  adjust: benchAdjust,
  checking: benchChecking,
  saving: () => benchSaving(SIZES),
  library: benchLibrary,
};

/** A part may be measured alone, also one of the screen: `npm run bench -- rigs`, `npm run bench -- keys`. */
const [, , part] = process.argv;
const large = (): Scene => sceneWithRuns(10_000, 'replace');
for (const [name, measure] of Object.entries(PARTS)) if (part === undefined || part === name) await measure();
if (part === undefined || !(part in PARTS)) await benchScreen(large, part);
process.exitCode = verdict();
