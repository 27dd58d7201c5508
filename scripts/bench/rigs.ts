import {
  apply,
  compileRigs,
  compileScene,
  createFrame,
  createKeysRecipe,
  createPresetCompiler,
  createRigRecipe,
  createShelf,
  plan,
  retuneRig,
  sampleKeys,
  STARTER_LIBRARY,
  STARTER_RIGS,
  TICKS_PER_SECOND,
  type ChannelId,
  type LibraryItem,
  type RigRecipe,
  type Scene,
} from '@wexikine/core';
import { compile } from 'mathjs';
import { median, mediansInTurn, report } from './measure';
import { plainScene } from './scenes';

const shelf = createShelf(STARTER_LIBRARY);
const presets = createPresetCompiler();
const LAYERS = 1_000;
const CHANNELS: readonly ChannelId[] = ['position.x', 'position.y', 'rotation'];
const CONTEXT = { runId: 'rig', by: 'bench', when: '2026-01-01T00:00:00.000Z' };
const ROUNDS = 40;
const TIME = 1.3 * TICKS_PER_SECOND;

/** Rows that slide and turn in, each arriving with speed. */
function slidingScene(layers: number, seconds = 10): Scene {
  const scene = plainScene(layers);
  const key = (at: number, value: number) => ({ at, value, ease: { type: 'linear' as const } });
  return {
    ...scene,
    layers: scene.layers.map((layer, i) => {
      const at = (i % 50) * TICKS_PER_SECOND * 0.01;
      const keys = (from: number, to: number) => [key(at, from), key(at + TICKS_PER_SECOND * 0.4, to)];
      const tracks = { 'position.x': keys(0, 300), 'position.y': keys(0, 200), rotation: keys(-30, 0) };
      return { ...layer, span: { in: 0, out: seconds * TICKS_PER_SECOND }, tracks };
    }),
  };
}

function rigged(scene: Scene, recipe: RigRecipe, items: readonly LibraryItem[] = STARTER_LIBRARY): Scene {
  const done = apply(scene, plan(scene, createShelf(items), recipe, CONTEXT, presets).edits);
  if (!done.ok) throw new Error(done.problem.code);
  return done.scene;
}

function recipeFor(rig: string): RigRecipe {
  return { ...createRigRecipe(rig, { by: 'rule', tag: 'row' }), channels: [...CHANNELS] };
}

/** Numbers that the formula of carry and settle reads, for so many layers and channels. */
function inputsByHand(count: number) {
  const column = (value: (i: number) => number): Float64Array =>
    Float64Array.from({ length: count }, (_, i) => value(i));
  return {
    keyed: column((i) => 300 - (i % 7)),
    arrival: column((i) => 500 + (i % 11)),
    since: column((i) => 0.4 + (i % 50) * 0.01),
  };
}

const [CARRY, PACE, CALM] = [0.85, 1.8, 3];

/** A frame of 1,000 layers with three rigged channels, against the same by hand and a general evaluator of expressions. */
async function benchFrame(): Promise<void> {
  const compiled = compileScene(rigged(slidingScene(LAYERS), recipeFor('rig-carry-and-settle')));
  const frame = createFrame(compiled);
  const { keyed, arrival, since } = inputsByHand(LAYERS * CHANNELS.length);
  const out = new Float64Array(keyed.length);
  let tick = 0;
  const [ours, hand] = mediansInTurn(
    () => {
      for (let round = 0; round < ROUNDS; round++) compiled.rigs?.drive(TIME + tick++, frame.values);
    },
    () => {
      for (let round = 0; round < ROUNDS; round++) {
        for (let i = 0; i < keyed.length; i++) {
          const swing = Math.sin(2 * Math.PI * PACE * since[i]) / (2 * Math.PI * PACE);
          out[i] = keyed[i] + arrival[i] * swing * CARRY * Math.exp(-CALM * since[i]);
        }
      }
    },
  ).map((time) => time / ROUNDS);
  report(
    `a frame of 1,000 layers × 3 rigged channels, by hand ${hand.toFixed(3)} ms`,
    `${ours.toFixed(3)} ms, ${(ours / hand).toFixed(1)}×`,
    'at most 1.5×',
    ours / hand <= 1.5,
  );
  report('  all of it', `${ours.toFixed(2)} ms`, 'under 4 ms', ours < 4);
  const general = compile(
    'keyed + arrival * sin(2 * pi * pace * since) / (2 * pi * pace) * carry * exp(-calm * since)',
  );
  const scope = { keyed: 0, arrival: 0, since: 0, carry: CARRY, pace: PACE, calm: CALM };
  const theirs = await median(() => {
    for (let i = 0; i < keyed.length; i++) {
      scope.keyed = keyed[i];
      scope.arrival = arrival[i];
      scope.since = since[i];
      out[i] = general.evaluate(scope) as number;
    }
  }, 9);
  report(
    `  a general evaluator takes ${theirs.toFixed(1)} ms`,
    `${(theirs / ours).toFixed(0)}× faster`,
    'at least 10×',
    theirs / ours >= 10,
  );
  const keys = await median(() => sampleKeys(compiled, TIME + tick++, frame), 15);
  report(`  beside it the keys alone`, `${keys.toFixed(2)} ms`, 'for comparison', true);
}

/** Followers each after the one before it. */
async function benchChain(): Promise<void> {
  const body = {
    dials: [],
    roles: [],
    formulas: [{ channels: ['position.x' as const], text: 'follow(before.position.x, 1f)' }],
  };
  const items = [...STARTER_LIBRARY, { ...STARTER_RIGS[0], id: 'chain', body }];
  const chain = rigged(slidingScene(200), createRigRecipe('chain', { by: 'rule', tag: 'row' }), items);
  const compiled = compileScene(chain);
  const frame = createFrame(compiled);
  let tick = 0;
  const time = await median(() => compiled.rigs?.drive(3 * TICKS_PER_SECOND + tick++, frame.values), 15);
  report(
    'a chain of 200 followers, each after the one before',
    `${time.toFixed(1)} ms a frame`,
    'under 4 ms',
    time < 4,
  );
}

/** Turning into keys, and turning a dial. */
async function benchKeysAndDials(): Promise<void> {
  const scene = rigged(slidingScene(200, 3), recipeFor('rig-carry-and-settle'));
  const recipe = createKeysRecipe('turn-into-keys', { by: 'rule', tag: 'row' });
  const time = await median(() => plan(scene, shelf, recipe, { ...CONTEXT, runId: 'keys' }, presets), 5);
  report('200 layers × 3 s × 3 channels into keys', `${(time / 1_000).toFixed(2)} s`, 'under 2 s', time < 2_000);
  const large = rigged(slidingScene(LAYERS), recipeFor('rig-carry-and-settle'));
  let turn = 1;
  const dial = await median(() => {
    const parameters = { calm: { by: 'fixed' as const, value: String(turn++ / 10) } };
    const tuned = retuneRig(
      large,
      shelf,
      'rig',
      { ...recipeFor('rig-carry-and-settle'), parameters },
      CONTEXT,
      presets,
    );
    if (!tuned.ok) throw new Error(tuned.findings[0].code);
    const next = apply(large, [{ type: 'set-run', run: tuned.run }]);
    if (next.ok) compileRigs(next.scene);
  }, 15);
  report('a dial turned on 1,000 layers, without the screen', `${dial.toFixed(0)} ms`, 'at most 60 ms', dial <= 60);
  const stored = JSON.stringify(large.runs).length / 1_000;
  report('a rig on 1,000 layers is stored in', `${stored.toFixed(0)} kB`, 'at most 100 kB', stored <= 100);
}

/** Rigs: a frame, a chain, keys and dials. */
export async function benchRigs(): Promise<void> {
  await benchFrame();
  await benchChain();
  await benchKeysAndDials();
}
