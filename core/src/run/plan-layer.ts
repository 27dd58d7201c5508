import { clampToChannel, type ChannelId } from '../channel';
import {
  createInputs,
  limitParameter,
  makeRows,
  momentSeconds,
  momentTimes,
  plainValue,
  setParameter,
  type Circumstances,
  type CompiledPreset,
  type MadeRow,
  type MomentTimes,
} from '../preset';
import { boundsAt, matrixAt, sampleTrack } from '../sample';
import { maximum, type Staging } from '../order';
import type { PresetRecipe } from '../recipe';
import { layerStep, restValue, shiftLayer, type Key, type Layer, type LayerStep } from '../scene';
import { frameTicks, ticksFromSeconds, toFrameGrid, TICKS_PER_SECOND, type Ticks } from '../time';
import { randomAt, seedFromText } from '../random';
import { transformPoint, type Box } from '../transform';
import type { Subject } from '../check';
import { mergeKeys, withoutRuns, type Merged } from './existing';
import type { Slot } from './schedule';
import type { ParameterSource } from './vary';

/** Place, times and values that a run gives to one layer. */
export interface LayerValues {
  readonly layer: string;
  /** Place in the order, 0 first. */
  readonly place: number;
  readonly starts: Ticks;
  readonly lasts: Ticks;
  /** Times of the preset's moments from its start, in their order. */
  readonly moments: readonly Ticks[];
  /** Each parameter's value: a number in base units (px, seconds, degrees; a switch 0 or 1), or text. */
  readonly values: Readonly<Record<string, number | string>>;
}

/** What a run gives to one layer. */
export interface LayerPlan extends LayerValues {
  /** The layer as it will be. */
  readonly after: Layer;
}

/** Everything of a run that is the same for all its layers. */
export interface Batch {
  readonly staging: Staging;
  readonly recipe: PresetRecipe;
  readonly compiled: CompiledPreset;
  readonly sources: readonly ParameterSource[];
  /** Values that were set by hand for single layers. */
  readonly overrides: ReadonlyMap<string, OverrideSources>;
  /** Says of a slot that its keys are the run's. */
  readonly made: (slot: string) => NonNullable<Key['by']>;
  /** Runs whose keys give way: those that bring in, or send out, as this one does and takes the place of. */
  readonly isGone: ((run: string) => boolean) | null;
  readonly count: number;
  readonly lastPlace: number;
  /** Length that the recipe fixes, or the limits between which it is drawn; null otherwise. */
  readonly lengths: readonly [Ticks, Ticks] | null;
}

/** Values of one layer that were set by hand. */
export interface OverrideSources {
  readonly start: Ticks | null;
  readonly length: Ticks | null;
  readonly parameters: ReadonlyMap<string, ParameterSource>;
}

/** What planning one layer gives. */
export interface Outcome {
  readonly plan: LayerPlan;
  readonly subject: Subject;
  readonly step: () => LayerStep;
  readonly added: number;
  readonly replaced: number;
  readonly removed: number;
  readonly limited: readonly string[];
  readonly broken: readonly string[];
  readonly isTooShort: boolean;
}

function circumstances({ staging, recipe, count, lastPlace }: Batch, index: number, place: number): Circumstances {
  const { scene, rest } = staging;
  const layer = scene.layers[index];
  const { left, right, top, bottom } = boundsAt(rest, index);
  const width = restValue(layer, 'size.x');
  const height = restValue(layer, 'size.y');
  const anchor = transformPoint(matrixAt(rest, index), {
    x: restValue(layer, 'anchor.x') * width,
    y: restValue(layer, 'anchor.y') * height,
  });
  return {
    rate: scene.rate,
    place,
    count,
    share: lastPlace === 0 ? 0 : place / lastPlace,
    seed: recipe.seed,
    layer: {
      width: width * Math.abs(restValue(layer, 'scale.x')),
      height: height * Math.abs(restValue(layer, 'scale.y')),
      length: layer.span.out - layer.span.in,
      left,
      right,
      top,
      bottom,
      x: anchor.x,
      y: anchor.y,
    },
    frame: { width: scene.width, height: scene.height },
  };
}

/** Upright boxes in the rest pose as a layer's parameters see them: its own, or that of another layer that is there. */
function boxesFor({ staging }: Batch, own: number): (layer: string | null) => Box {
  return (id) => {
    const index = id === null ? own : staging.scene.layers.findIndex((layer) => layer.id === id);
    return boundsAt(staging.rest, index < 0 ? own : index);
  };
}

/** A layer with its parameters and its own length, before the run's times are known. */
export interface Prepared {
  readonly index: number;
  readonly place: number;
  readonly inputs: Float64Array;
  readonly values: Record<string, number | string>;
  readonly limited: string[];
  readonly times: MomentTimes;
  readonly lasts: Ticks;
  /** True where a length was asked for by speed and the layer does not travel. */
  readonly isStill: boolean;
}

type Inputs = Pick<Prepared, 'index' | 'place' | 'inputs' | 'values' | 'limited'>;

function prepareInputs(batch: Batch, index: number, place: number): Inputs {
  const { compiled, staging } = batch;
  const facts = circumstances(batch, index, place);
  const inputs = createInputs(compiled, facts);
  const layer = staging.scene.layers[index];
  const turn = { place, share: facts.share, layer };
  const byHand = batch.overrides.get(layer.id)?.parameters;
  const values: Record<string, number | string> = {};
  const boxOf = boxesFor(batch, index);
  const limited: string[] = [];
  compiled.parameters.forEach((entry, i) => {
    const { name } = entry.parameter;
    const wanted = (byHand?.get(name) ?? batch.sources[i])(inputs, turn);
    const value = typeof wanted === 'number' ? limitParameter(entry, wanted, inputs) : wanted;
    if (value !== wanted) limited.push(name);
    values[name] = plainValue(value);
    setParameter(compiled, inputs, entry.parameter, value, boxOf);
  });
  return { index, place, inputs, values, limited };
}

/** Moment times with a length in ticks; null is the preset's own. The length parameter is set first, the rest is stretched. */
function timeMoments({ compiled, staging }: Batch, { inputs, values }: Inputs, wanted: Ticks | null): MomentTimes {
  const { lasts } = compiled.preset;
  const { rate } = staging.scene;
  if (wanted === null) return momentTimes(momentSeconds(compiled, inputs), 1, compiled, rate);
  const seconds = wanted / TICKS_PER_SECOND;
  if (lasts !== undefined) {
    values[lasts] = seconds;
    inputs[compiled.scope.places.get(`@${lasts}`) as number] = seconds;
  }
  const asked = momentSeconds(compiled, inputs);
  const natural = maximum(asked);
  return momentTimes(asked, natural > 0 ? seconds / natural : 1, compiled, rate);
}

/** How far the middle of a layer travels in the preset, in pixels: the straight ways between its moments. */
function distanceOf(batch: Batch, prepared: Inputs): number {
  const layer = batch.staging.scene.layers[prepared.index];
  const times = timeMoments(batch, prepared, null);
  const rows = makeRows(batch.compiled, prepared.inputs, times, (channel) => {
    const rest = restValue(layer, channel);
    return { rest, here: rest };
  });
  const along = (channel: ChannelId): Key[] =>
    rows
      .filter((row) => row.channel === channel)
      .flatMap(({ keys }) => keys.map(({ after, value, ease }) => ({ at: after, value, ease })));
  const [xs, ys] = [along('position.x'), along('position.y')];
  const stops = [...new Set([...xs, ...ys].map(({ at }) => at))].sort((a, b) => a - b);
  const valueAt = (keys: readonly Key[], at: Ticks): number => (keys.length > 0 ? sampleTrack(keys, at) : 0);
  return stops.slice(1).reduce((sum, at, i) => {
    const before = stops[i];
    return sum + Math.hypot(valueAt(xs, at) - valueAt(xs, before), valueAt(ys, at) - valueAt(ys, before));
  }, 0);
}

/** Length that the recipe asks for on one layer; null where the preset's own counts. */
function wantedLength(batch: Batch, prepared: Inputs): { ticks: Ticks | null; isStill: boolean } {
  const { recipe, lengths, staging, overrides } = batch;
  const layer = staging.scene.layers[prepared.index];
  const byHand = overrides.get(layer.id)?.length ?? null;
  const frame = frameTicks(staging.scene.rate);
  const atLeastAFrame = (ticks: number): Ticks => Math.max(frame, toFrameGrid(Math.round(ticks), staging.scene.rate));
  if (byHand !== null) return { ticks: byHand, isStill: false };
  const { length } = recipe;
  if (length.by === 'factor') {
    const natural = maximum(momentSeconds(batch.compiled, prepared.inputs));
    // Exact, so that a factor of one changes nothing; never less than a frame, so that the preset is to be seen.
    const ticks = Math.max(frame, ticksFromSeconds(natural * length.factor));
    return { ticks: natural > 0 ? ticks : null, isStill: false };
  }
  if (length.by === 'speed') {
    const seconds = distanceOf(batch, prepared) / length.speed;
    return seconds > 0
      ? { ticks: atLeastAFrame(ticksFromSeconds(seconds)), isStill: false }
      : { ticks: null, isStill: true };
  }
  if (lengths === null) return { ticks: null, isStill: false };
  const [from, to] = lengths;
  if (length.by !== 'random') return { ticks: from, isStill: false };
  return { ticks: atLeastAFrame(from + (to - from) * randomAt(length.seed, seedFromText(layer.id))), isStill: false };
}

/** A layer's parameters, and its length as far as it is known before the run's times are. */
export function prepareLayer(batch: Batch, index: number, place: number): Prepared {
  const own = prepareInputs(batch, index, place);
  const { ticks, isStill } = wantedLength(batch, own);
  const times = timeMoments(batch, own, ticks);
  const { inputs, values, limited } = own;
  return { index, place, inputs, values, limited, times, lasts: maximum(times.ticks), isStill };
}

/** True when a layer has keys on a channel that the preset moves. */
export function hasKeysOn(layer: Layer, compiled: CompiledPreset): boolean {
  return compiled.rows.some(({ channel }) => layer.tracks[channel] !== undefined);
}

/** Marks of a run's keys, the same one for the same slot: a thousand layers have few, and other threads get few. */
export function createMarker(run: string): Batch['made'] {
  const known = new Map<string, NonNullable<Key['by']>>();
  return (slot) => {
    const mark = known.get(slot) ?? { run, slot };
    known.set(slot, mark);
    return mark;
  };
}

function keysOf(row: MadeRow, start: Ticks, made: Batch['made']): Key[] {
  return row.keys.map(({ after, value, ease, slot }) => ({
    at: start + after,
    value: clampToChannel(row.channel, value),
    ease,
    by: made(slot),
  }));
}

/** Old keys that give way to one at the same time. */
function countReplaced({ keys, removed }: Merged): number {
  if (removed.length === 0) return 0;
  const stops = new Set(keys.map(({ at }) => at));
  return removed.filter(({ at }) => stops.has(at)).length;
}

function keyCount({ tracks }: Pick<Layer, 'tracks'>): number {
  return Object.values(tracks).reduce((sum, keys) => sum + keys.length, 0);
}

/** Does one layer: its times, its new keys over the old ones. */
export function planLayer(batch: Batch, prepared: Prepared, slot: Slot): Outcome {
  const { index, place } = prepared;
  const before = batch.staging.scene.layers[index];
  const times = slot.lasts === prepared.lasts ? prepared.times : timeMoments(batch, prepared, slot.lasts);
  const lasts = maximum(times.ticks);
  const { start, moved } = slot;
  const standing = shiftLayer(before, moved);
  const cleared = batch.isGone === null ? standing.tracks : withoutRuns(standing.tracks, batch.isGone);
  const tracks = Object.assign({}, cleared);
  const factsOf = (channel: ChannelId) => {
    const rest = restValue(before, channel);
    const keys = tracks[channel];
    return { rest, here: keys ? sampleTrack(keys, start) : rest };
  };
  const rows = makeRows(batch.compiled, prepared.inputs, times, factsOf);
  const joined = new Map<ChannelId, Key[]>();
  let [added, replaced, removed] = [
    0,
    0,
    cleared === standing.tracks ? 0 : keyCount(standing) - keyCount({ tracks: cleared }),
  ];
  for (const row of rows) {
    const made = keysOf(row, start, batch.made);
    const { channel } = row;
    const merged = mergeKeys(tracks[channel], made, batch.recipe.existing, channel, restValue(before, channel));
    if (merged.isJoined) joined.set(channel, made);
    const same = countReplaced(merged);
    const kept = (tracks[channel]?.length ?? 0) - merged.removed.length;
    replaced += same;
    removed += merged.removed.length - same;
    added += merged.keys.length - kept - same;
    tracks[channel] = merged.keys as Key[];
  }
  const after = Object.assign({}, standing, { tracks });
  return {
    plan: { layer: before.id, place, starts: start, lasts, moments: times.ticks, values: prepared.values, after },
    subject: { layer: after, before: standing.tracks, made: { from: start, to: start + lasts } },
    step: () => layerStep(before, after, joined),
    added,
    replaced,
    removed,
    limited: prepared.limited,
    broken: rows.some(({ broken }) => broken.length > 0) ? rows.flatMap(({ broken }) => broken) : [],
    isTooShort: rows.some((row) => row.merged.length > 0),
  };
}
