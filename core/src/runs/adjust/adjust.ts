import type { ChannelId } from '../../basics/channel';
import { TICKS_PER_SECOND, toFrameGrid, type Ticks } from '../../basics/time';
import { presetOfParameters, type CompiledPreset } from '../../formulas/preset';
import { adjustParameters, stepNumber, type AdjustRecipe, type AdjustStep } from '../../scene/recipe';
import { restValue, type Track, type Layer } from '../../scene/layer';
import {
  layerMade,
  packColumn,
  valueIn,
  type LayerMade,
  type RunRecord,
  type Scene,
  type UsedAdjust,
} from '../../scene/scene';
import { findOutsideLayer, findOutsideScene, type Subject } from '../check';
import { severityOf, type Finding } from '../finding';
import { refuse, type LayerPlan, type Operated, type Reads, type Replaying, type Surroundings } from '../operation';
import { createStaging, maximum, placesOf, problemsOf, readTime } from '../order';
import { compileVariation, fillColumns, readOverrides, type Filled } from '../run';

import { createKeyTest, momentsOf, pickedCount, phasesOf, pickKeys, type Entries, type KeyTest } from './picked';
import { doStep, type StepContext } from './steps';
import type { StepLayer } from './times';

/** Numbers of the steps of one layer, by their names among the recipe's parameters; times in seconds. */
type NumberOf = (name: string) => number;

const presets = new WeakMap<AdjustRecipe['steps'], ReturnType<typeof presetOfParameters>>();

/** The numbers of the steps as a preset without anything else: they vary from layer to layer as parameters do. */
function numbersPreset(recipe: AdjustRecipe): ReturnType<typeof presetOfParameters> {
  const known = presets.get(recipe.steps) ?? presetOfParameters(adjustParameters(recipe));
  presets.set(recipe.steps, known);
  return known;
}

/** Times of pivots that are one for all layers, by step; with what is wrong with them. */
function pivotTimes(recipe: AdjustRecipe, scene: Pick<Scene, 'rate' | 'cues'>) {
  const problems: Finding[] = [];
  const times = new Map<string, Ticks>();
  for (const step of recipe.steps) {
    if (!('pivot' in step)) continue;
    const { pivot } = step;
    if (pivot.by === 'time') {
      const read = readTime(pivot.at, scene.rate, 'Pivot');
      problems.push(...problemsOf([read]));
      times.set(step.id, read.ticks);
    } else if (pivot.by === 'cue') {
      const cue = scene.cues.find(({ name }) => name === pivot.cue);
      if (cue) times.set(step.id, cue.at);
      else {
        const message = 'The scene has no cue of this name. Choose another one.';
        problems.push({ code: 'bad-field', field: 'Pivot', text: pivot.cue, message });
      }
    }
  }
  return { times, problems };
}

interface Amounts {
  readonly filled: Filled;
  readonly compiled: CompiledPreset;
  readonly problems: readonly Finding[];
}

/** The numbers of all layers; null where the steps' own are broken, which is a mistake of ours. */
function amountsOf(
  { scene, shelf, compile }: Surroundings,
  recipe: AdjustRecipe,
  indices: readonly number[],
  places: readonly number[],
): Amounts {
  const result = compile(numbersPreset(recipe), shelf);
  const compiled = result.ok ? result.compiled : result.rest;
  const variations = compiled.parameters.map((entry) =>
    compileVariation(entry, recipe.parameters[entry.parameter.name], compiled.lookup),
  );
  const { overrides, problems } = readOverrides(recipe, compiled, scene);
  const filled = fillColumns({
    staging: createStaging(scene),
    recipe,
    compiled,
    sources: variations.map(({ source }) => source),
    overrides,
    indices,
    places,
    lastPlace: maximum(places),
  });
  return {
    filled,
    compiled,
    problems: [...problems, ...variations.flatMap(({ problem }) => (problem ? [problem] : []))],
  };
}

function inputsOf({ filled, compiled }: Amounts, pivots: ReadonlyMap<string, Ticks>): UsedAdjust['inputs'] {
  const { values, stride } = filled.columns;
  const numbers = compiled.parameters.map(({ parameter: { name } }) => {
    const place = compiled.scope.places.get(`@${name}`) ?? 0;
    return { name, values: packColumn([...values.subarray(place * stride, (place + 1) * stride)]) };
  });
  return [...numbers, ...[...pivots].map(([id, at]) => ({ name: stepNumber(id, 'pivot'), values: at }))];
}

/** True for a step that puts the starts of all layers in order. */
function ordersStarts({ type }: AdjustStep): boolean {
  return type === 'restagger' || type === 'close-gaps';
}

/** What steps know of a layer, from the numbers of its run. */
function contextFor(
  layer: Layer,
  step: AdjustStep,
  numberOf: NumberOf,
  {
    scene,
    run,
    seed,
    start,
    phaseOf,
  }: {
    scene: Pick<Scene, 'rate' | 'cues'>;
    run: string;
    seed: number;
    start: number | null;
    phaseOf: StepLayer['phaseOf'];
  },
): StepContext {
  const own: StepLayer = {
    id: layer.id,
    span: layer.span,
    rate: scene.rate,
    seed,
    number: (name) => numberOf(stepNumber(step.id, name)),
    cues: scene.cues.map(({ at }) => at),
    phaseOf,
    at:
      'pivot' in step && (step.pivot.by === 'time' || step.pivot.by === 'cue')
        ? numberOf(stepNumber(step.id, 'pivot'))
        : null,
  };
  return {
    layer: own,
    rest: (channel) => restValue(layer, channel),
    mark: (channel, at, nth) => ({ run, slot: `${channel}/${step.id}-${nth}-${at - layer.span.in}` }),
    start: ordersStarts(step) ? start : null,
  };
}

/** Where each layer's first picked key is to stand: along the order, or one after the other. */
function startsOf(
  step: AdjustStep,
  all: readonly Entries[],
  places: readonly number[],
  gapOf: (row: number) => Ticks,
): number[] {
  const spans = all.map((entries) => {
    const times = momentsOf(entries);
    return { first: times[0] ?? 0, last: times[times.length - 1] ?? 0 };
  });
  const earliest = spans.reduce((least, { first }) => Math.min(least, first), Infinity);
  if (step.type === 'restagger') return spans.map((_, row) => earliest + Math.round(places[row] * gapOf(row)));
  // Layers of one place go together; the next place begins as the last of them ends.
  const starts = spans.map(({ first }) => first);
  const rows = spans.map((_, row) => row).sort((a, b) => places[a] - places[b]);
  let [place, from, end] = [-1, earliest, earliest];
  for (const row of rows) {
    if (places[row] !== place) {
      from = place < 0 ? earliest : Math.round(end + gapOf(row));
      place = places[row];
    }
    starts[row] = from;
    end = Math.max(end, from + spans[row].last - spans[row].first);
  }
  return starts;
}

/** A layer with its keys as the steps left them; keys that no step touched are the very ones. */
function withEntries(layer: Layer, entries: Entries): Layer {
  const tracks: Layer['tracks'] = {};
  for (const [channel, list] of entries) tracks[channel] = list.map(({ key }) => key);
  return { ...layer, tracks };
}

interface Counts {
  readonly changed: number;
  readonly added: number;
  readonly removed: number;
}

/** How many keys stand in both of two tracks as they are, wherever others went past them. */
function sameKeys(old: Track, now: Track): number {
  let [same, i, j] = [0, 0, 0];
  while (i < old.length && j < now.length) {
    const [a, b] = [old[i], now[j]];
    if (a.at === b.at && a.value === b.value && a.ease === b.ease) same++;
    // Times that are none, before they are refused, go past each other too.
    if (!(b.at < a.at)) i++;
    if (!(a.at < b.at)) j++;
  }
  return same;
}

/** Keys that are other than they were, that are new, and that are gone, told by who made them. */
function countsOf(before: Layer, after: Layer): Counts {
  let [changed, added, removed] = [0, 0, 0];
  const channels = new Set([...Object.keys(before.tracks), ...Object.keys(after.tracks)] as ChannelId[]);
  for (const channel of channels) {
    const [old, now] = [before.tracks[channel] ?? [], after.tracks[channel] ?? []];
    added += Math.max(0, now.length - old.length);
    removed += Math.max(0, old.length - now.length);
    changed += Math.min(old.length, now.length) - sameKeys(old, now);
  }
  return { changed, added, removed };
}

/** How far keys were moved to get to whole frames, at most, and how many of them. */
function roundingOf(layers: readonly Layer[], picked: readonly Entries[], { rate }: Scene): Finding[] {
  let [keys, most] = [0, 0];
  const rounded = new Set<string>();
  picked.forEach((entries, row) => {
    for (const list of entries.values()) {
      for (const { key, isPicked } of list) {
        const by = Math.abs(toFrameGrid(key.at, rate) - key.at);
        if (!isPicked || by === 0) continue;
        keys++;
        most = Math.max(most, by);
        rounded.add(layers[row].id);
      }
    }
  });
  return keys === 0 ? [] : [{ code: 'rounded', layers: [...rounded], keys, most }];
}

/** Works out an adjustment: which keys, and what the steps make of them. */
export function planAdjust(surroundings: Surroundings, recipe: AdjustRecipe): Operated {
  const { scene, context } = surroundings;
  const { test, problems } = createKeyTest(recipe.keys, scene);
  const pivots = pivotTimes(recipe, scene);
  if (recipe.steps.filter(ordersStarts).length > 1) {
    const message = 'Only one step of an adjustment can order the starts. Make a second adjustment for the other.';
    return refuse([{ code: 'bad-field', field: 'Steps', text: 'restagger', message }]);
  }
  const stops = [...problems, ...pivots.problems];
  if (stops.length > 0) return refuse(stops);
  const picks = surroundings.indices
    .map((index) => ({ index, entries: pickKeys(scene.layers[index], recipe.keys, test) }))
    .filter(({ entries }) => pickedCount(entries) > 0);
  if (picks.length === 0) return refuse([{ code: 'nothing-to-adjust' }]);
  const indices = picks.map(({ index }) => index);
  const places = placesOf(createStaging(scene), indices, recipe.order);
  const amounts = amountsOf(surroundings, recipe, indices, places);
  if (amounts.problems.some((problem) => severityOf(problem) === 'error')) return refuse(amounts.problems);
  const inputs = inputsOf(amounts, pivots.times);
  const reader = createInputs(inputs);
  const layers = indices.map((index) => scene.layers[index]);
  let all: readonly Entries[] = picks.map(({ entries }) => entries);
  let starts: readonly number[] | null = null;
  let rounding: readonly Finding[] = [];
  const { runId: run } = context;
  const phaseOf = phasesOf(scene.runs);
  for (const step of recipe.steps) {
    if (ordersStarts(step)) {
      const gapOf = (row: number): Ticks => reader(row)(stepNumber(step.id, 'gap')) * TICKS_PER_SECOND;
      starts = startsOf(step, all, places, gapOf);
    }
    if (step.type === 'whole-frames') rounding = roundingOf(layers, all, scene);
    all = all.map((entries, row) => {
      const start = starts?.[row] ?? null;
      return doStep(
        entries,
        step,
        contextFor(layers[row], step, reader(row), { scene, run, seed: recipe.seed, start, phaseOf }),
      );
    });
  }
  const afters = layers.map((layer, row) => withEntries(layer, all[row]));
  const subjects = afters.map((after, row): Subject => {
    const times = momentsOf(all[row]);
    return { layer: after, before: layers[row].tracks, from: times[0] ?? 0, to: times[times.length - 1] ?? 0 };
  });
  const counts = afters.map((after, row) => countsOf(layers[row], after));
  const sum = (count: (one: Counts) => number): number => counts.reduce((total, one) => total + count(one), 0);
  const keys = picks.reduce((total, { entries }) => total + pickedCount(entries), 0);
  return {
    layers: afters.map((after, row): LayerPlan => ({
      layer: after.id,
      place: places[row],
      starts: subjects[row].from,
      lasts: subjects[row].to - subjects[row].from,
      moments: [],
      values: amounts.filled.values[row],
      after,
    })),
    made: () => layers.map(({ id }, row) => layerMade(id, { start: starts?.[row] ?? 0 })),
    findings: [
      {
        code: 'adjusted',
        on: layers.length,
        keys,
        changed: sum(({ changed }) => changed),
        gone: sum(({ removed }) => removed),
      },
      ...rounding,
      ...(recipe.steps.some(({ type }) => type === 'to-cues') && scene.cues.length === 0
        ? [{ code: 'no-cues' as const, at: 0 }]
        : []),
      ...findOutsideScene(scene, subjects),
      ...findOutsideLayer(subjects),
    ],
    counts: {
      layers: layers.length,
      added: sum(({ added }) => added),
      replaced: sum(({ changed }) => changed),
      removed: sum(({ removed }) => removed),
    },
    adjust: { inputs },
  };
}

/** Reads the numbers of a run's layers by their row. */
function createInputs(inputs: UsedAdjust['inputs']): (row: number) => NumberOf {
  const columns = new Map(inputs.map(({ name, values }) => [name, values]));
  return (row) => (name) => valueIn(columns.get(name), row) ?? 0;
}

/** What doing a run again needs, worked out once for a run and a scene. */
interface Opened {
  readonly scene: Scene;
  readonly rows: ReadonlyMap<string, number>;
  readonly test: KeyTest;
  readonly phaseOf: StepLayer['phaseOf'];
  readonly inputs: (row: number) => NumberOf;
}

const opened = new WeakMap<RunRecord, Opened>();

function openRun(run: RunRecord, recipe: AdjustRecipe, scene: Scene): Opened {
  const known = opened.get(run);
  if (known?.scene === scene) return known;
  const fresh = {
    scene,
    rows: new Map(run.layers.map((id, row) => [id, row])),
    test: createKeyTest(recipe.keys, scene).test,
    phaseOf: phasesOf(scene.runs),
    inputs: createInputs(run.adjust?.inputs ?? []),
  };
  opened.set(run, fresh);
  return fresh;
}

/** Does an adjustment once more over a layer that has changed underneath: on whatever keys the rule means there now. */
export function replayAdjust(recipe: AdjustRecipe, made: LayerMade, state: Layer, { run, scene }: Replaying): Layer {
  const { rows, test, phaseOf, inputs } = openRun(run, recipe, scene);
  const row = rows.get(state.id);
  if (row === undefined) return state;
  const entries = pickKeys(state, recipe.keys, test);
  if (pickedCount(entries) === 0) return state;
  const numberOf = inputs(row);
  const facts = { scene, run: run.id, seed: recipe.seed, start: made.start, phaseOf };
  const adjusted = recipe.steps.reduce<Entries>(
    (current, step) => doStep(current, step, contextFor(state, step, numberOf, facts)),
    entries,
  );
  return withEntries(state, adjusted);
}

/** An adjustment looks at the keys that stand, at rest poses and at in and out points; what is set by hand later lies over it. */
export function adjustReads(): Reads {
  return { spans: true, rest: true, keys: true, sweeps: true };
}
