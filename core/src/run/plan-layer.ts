import { clampToChannel, type ChannelId } from '../channel';
import type { Edit } from '../edit';
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
import { restValue, tracksOf, type Key, type Layer, type RunRecord } from '../scene';
import { TICKS_PER_SECOND, type Ticks } from '../time';
import { transformPoint, type Box } from '../transform';
import type { Subject } from './checks';
import { mergeKeys } from './existing';
import { maximum, type Staging } from './order';
import type { Recipe } from './recipe';
import { startOf, type Timing } from './timing';
import type { ParameterSource } from './vary';

/** What a run gives to one layer. */
export interface LayerPlan {
  readonly layer: string;
  /** Place in the order, 0 first. */
  readonly place: number;
  readonly starts: Ticks;
  readonly lasts: Ticks;
  /** Times of the preset's moments from its start, in their order. */
  readonly moments: readonly Ticks[];
  /** Each parameter's value: a number in base units (px, seconds, degrees; a switch 0 or 1), or text. */
  readonly values: Readonly<Record<string, number | string>>;
  /** The layer as it will be. */
  readonly after: Layer;
}

/** Everything of a run that is the same for all its layers. */
export interface Batch {
  readonly staging: Staging;
  readonly recipe: Recipe;
  readonly compiled: CompiledPreset;
  readonly timing: Timing;
  readonly sources: readonly ParameterSource[];
  readonly runId: string;
  readonly count: number;
  readonly lastPlace: number;
  /** Fixed length in ticks, or null. */
  readonly fixed: Ticks | null;
}

/** What planning one layer gives. */
export interface Outcome {
  readonly plan: LayerPlan;
  readonly subject: Subject;
  readonly edits: readonly Edit[];
  readonly replaced: RunRecord['replaced'];
  readonly moved: RunRecord['moved'];
  readonly added: number;
  readonly limited: readonly string[];
  readonly broken: readonly string[];
  readonly isTooShort: boolean;
}

function circumstances({ staging, recipe, count, lastPlace }: Batch, index: number, place: number): Circumstances {
  const { scene, rest } = staging;
  const layer = scene.layers[index];
  const box = boundsAt(rest, index);
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
      ...box,
      ...anchor,
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

interface Prepared {
  readonly inputs: Float64Array;
  readonly values: Record<string, number | string>;
  readonly limited: string[];
}

function prepareInputs(batch: Batch, index: number, place: number): Prepared {
  const { compiled, staging } = batch;
  const facts = circumstances(batch, index, place);
  const inputs = createInputs(compiled, facts);
  const turn = { place, share: facts.share, layer: staging.scene.layers[index].id };
  const values: Record<string, number | string> = {};
  const boxOf = boxesFor(batch, index);
  const limited: string[] = [];
  compiled.parameters.forEach((entry, i) => {
    const { name } = entry.parameter;
    const wanted = batch.sources[i](inputs, turn);
    const value = typeof wanted === 'number' ? limitParameter(entry, wanted, inputs) : wanted;
    if (value !== wanted) limited.push(name);
    values[name] = plainValue(value);
    setParameter(compiled, inputs, entry.parameter, value, boxOf);
  });
  return { inputs, values, limited };
}

/** Moment times with the recipe's length. The length parameter is set first; the rest is stretched to fit. */
function timeMoments(batch: Batch, { inputs, values }: Prepared): MomentTimes {
  const { compiled, recipe, fixed, staging } = batch;
  const { lasts } = compiled.preset;
  const { rate } = staging.scene;
  const wanted = wantedSeconds(batch, maximum(momentSeconds(compiled, inputs)));
  if (wanted === null) return momentTimes(momentSeconds(compiled, inputs), 1, compiled, rate);
  if (lasts !== undefined && (fixed !== null || recipe.length.by === 'factor')) {
    values[lasts] = wanted;
    inputs[compiled.scope.places.get(`@${lasts}`) as number] = wanted;
  }
  const seconds = momentSeconds(compiled, inputs);
  const natural = maximum(seconds);
  return momentTimes(seconds, natural > 0 ? wanted / natural : 1, compiled, rate);
}

/** Length that the recipe asks for, in seconds; null where the preset's own counts. */
function wantedSeconds({ recipe, fixed }: Batch, natural: number): number | null {
  if (fixed !== null) return fixed / TICKS_PER_SECOND;
  return recipe.length.by === 'factor' ? natural * recipe.length.factor : null;
}

function shiftKeys(layer: Layer, by: Ticks): Layer['tracks'] {
  return Object.fromEntries(
    tracksOf(layer).map(([id, keys]) => [id, keys.map((key) => ({ ...key, at: key.at + by }))]),
  );
}

/** True when a layer has keys on a channel that the preset moves. */
export function hasKeysOn(layer: Layer, compiled: CompiledPreset): boolean {
  return compiled.rows.some(({ channel }) => layer.tracks[channel] !== undefined);
}

function keysOf(row: MadeRow, start: Ticks, run: string): Key[] {
  return row.keys.map(({ after, value, ease, slot }) => ({
    at: start + after,
    value: clampToChannel(row.channel, value),
    ease,
    by: { run, slot },
  }));
}

/** Does one layer: its inputs, its times, its new keys over the old ones. */
export function planLayer(batch: Batch, index: number, place: number): Outcome {
  const before = batch.staging.scene.layers[index];
  const prepared = prepareInputs(batch, index, place);
  const times = timeMoments(batch, prepared);
  const lasts = maximum(times.ticks);
  const { start, moved } = startOf(batch.timing, place, before, lasts);
  const span = { in: before.span.in + moved, out: before.span.out + moved };
  const standingTracks = moved === 0 ? before.tracks : shiftKeys(before, moved);
  const tracks = { ...standingTracks };
  const factsOf = (channel: ChannelId) => {
    const rest = restValue(before, channel);
    const standing = tracks[channel];
    return { rest, here: standing ? sampleTrack(standing, start) : rest };
  };
  const rows = makeRows(batch.compiled, prepared.inputs, times, factsOf);
  const replaced: RunRecord['replaced'] = [];
  let added = 0;
  for (const row of rows) {
    const made = keysOf(row, start, batch.runId);
    const { channel } = row;
    const merged = mergeKeys(tracks[channel], made, batch.recipe.existing, channel, restValue(before, channel));
    if (merged.removed.length > 0) replaced.push({ layer: before.id, channel, keys: [...merged.removed] });
    tracks[channel] = [...merged.keys];
    added += made.length;
  }
  const after: Layer = moved === 0 ? { ...before, tracks } : { ...before, span, tracks };
  return {
    plan: { layer: before.id, place, starts: start, lasts, moments: times.ticks, values: prepared.values, after },
    subject: { layer: after, before: standingTracks, made: { from: start, to: start + lasts } },
    edits: editsBetween(before, after),
    replaced,
    moved: moved === 0 ? [] : [{ layer: before.id, ...before.span }],
    added,
    limited: prepared.limited,
    broken: rows.flatMap((row) => row.broken),
    isTooShort: rows.some((row) => row.merged.length > 0),
  };
}

function editsBetween(before: Layer, after: Layer): Edit[] {
  const edits: Edit[] = [];
  if (before.span !== after.span) edits.push({ type: 'set-layer', layer: before.id, fields: { span: after.span } });
  for (const [channel, keys] of tracksOf(after)) {
    if (keys === before.tracks[channel]) continue;
    edits.push({ type: 'set-track', layer: before.id, channel, keys: [...keys] });
  }
  return edits;
}
