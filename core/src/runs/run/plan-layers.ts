import type { ChannelId } from '../../basics/channel';
import type { Subject } from '../check';
import { keyCount, restValue, shiftLayer, type Key, type Layer } from '../../scene/layer';
import type { LayerPlan } from '../operation';
import {
  makeRow,
  presetChannels,
  type CompiledPreset,
  type MadeRow,
  type MomentColumns,
  type RowFacts,
} from '../../formulas/preset';
import { makeMovement } from '../movement';
import { sampleTrack } from '../../scene/sample';
import { layerMade, type LayerMade } from '../../scene/scene';
import type { Batch } from './batch';
import { mergeKeys, withoutRuns } from './existing';
import { timeMoments, type Prepared } from './prepare';
import type { Slot } from './schedule';
import type { Merged } from './touched';

/** What planning one layer gives, as the checks see it, too. */
export interface Outcome extends Subject {
  readonly plan: LayerPlan;
  readonly limited: readonly string[];
  readonly broken: readonly string[];
  readonly isTooShort: boolean;
}

/** A layer on its way through the rows of the preset, whose keys the tracks of `layer` take one after the other. */
interface Draft extends Outcome {
  broken: readonly string[];
  isTooShort: boolean;
}

/** The keys that the run makes on a channel of all its layers, as they are before they meet what stands; some have none. */
interface MadeOnChannel {
  readonly channel: ChannelId;
  readonly keys: readonly (readonly Key[])[];
}

/** How many keys a run adds, puts in the place of others, and takes away. */
interface KeyCounts {
  added: number;
  replaced: number;
  removed: number;
}

/** What planning all layers gives. */
export interface Outcomes {
  readonly layers: readonly Outcome[];
  readonly counts: Readonly<KeyCounts>;
  readonly made: readonly MadeOnChannel[];
}

/** True when a layer has keys on a channel that the preset moves. */
export function hasKeysOn(layer: Layer, compiled: CompiledPreset): boolean {
  return presetChannels(compiled.preset).some((channel) => layer.tracks[channel] !== undefined);
}

/** Old keys that give way to one at the same time. */
function countReplaced({ keys, removed }: Merged): number {
  if (removed.length === 0) return 0;
  const stops = new Set(keys.map(({ at }) => at));
  return removed.filter(({ at }) => stops.has(at)).length;
}

/** The tracks that a layer keeps where the run is. */
function keptTracks({ tracks }: Layer, { isGone }: Batch, counts: KeyCounts): Layer['tracks'] {
  const kept = isGone === null ? tracks : withoutRuns(tracks, isGone);
  if (kept !== tracks) counts.removed += keyCount({ tracks }) - keyCount({ tracks: kept });
  return Object.assign({}, kept);
}

/** Puts a row's keys over the old ones of a layer; gives those that it makes. */
function addRow(
  draft: Draft,
  made: MadeRow,
  row: number,
  start: number,
  { recipe }: Batch,
  counts: KeyCounts,
): readonly Key[] {
  const { channel } = made;
  const keys = made.keysOf(row, start);
  if (keys.length === 0) return keys;
  const broken = made.brokenOn(row);
  if (broken.length > 0) draft.broken = [...draft.broken, ...broken];
  if (made.isMergedOn(row)) draft.isTooShort = true;
  const { layer } = draft;
  const old = layer.tracks[channel];
  if (!old || old.length === 0) {
    counts.added += keys.length;
    layer.tracks[channel] = keys;
    return keys;
  }
  const merged = mergeKeys(old, keys, recipe.existing, channel, restValue(layer, channel));
  const same = countReplaced(merged);
  counts.replaced += same;
  counts.removed += merged.removed.length - same;
  counts.added += merged.keys.length - (old.length - merged.removed.length) - same;
  layer.tracks[channel] = merged.keys as Key[];
  return keys;
}

const NONE: readonly string[] = [];

/** Times of the moments where the schedule gave some layers another length than they were prepared with. */
function momentsIn(batch: Batch, prepared: Prepared, slots: readonly Slot[]): MomentColumns {
  const { lasts } = prepared.moments;
  if (slots.every((slot, row) => slot.lasts === lasts[row])) return prepared.moments;
  const wanted = prepared.wanted.map((before, row) => (slots[row].lasts === lasts[row] ? before : slots[row].lasts));
  return timeMoments(batch, prepared, wanted);
}

/** Does all layers of a run: their times, and their new keys over the old ones, one row of the preset after the other. */
export function planLayers(batch: Batch, prepared: Prepared, slots: readonly Slot[]): Outcomes {
  const { staging, indices, places, compiled } = batch;
  const { columns, values, limited } = prepared;
  const moments = momentsIn(batch, prepared, slots);
  const counts: KeyCounts = { added: 0, replaced: 0, removed: 0 };
  let shared: readonly number[] = [];
  const momentsOf = (row: number): readonly number[] => {
    if (shared.length === moments.ticks.length && moments.ticks.every((ticks, m) => ticks[row] === shared[m]))
      return shared;
    shared = moments.ticks.map((ticks) => ticks[row]);
    return shared;
  };
  const layers = indices.map((index, row): Draft => {
    const { start, moved } = slots[row];
    const standing = shiftLayer(staging.scene.layers[index], moved);
    const lasts = moments.lasts[row];
    const after: Layer = { ...standing, tracks: keptTracks(standing, batch, counts) };
    return {
      plan: {
        layer: standing.id,
        place: places[row],
        starts: start,
        lasts,
        moments: momentsOf(row),
        values: values[row],
        after,
      },
      layer: after,
      before: standing.tracks,
      from: start,
      to: start + lasts,
      limited: limited[row],
      broken: NONE,
      isTooShort: false,
    };
  });
  const { rate } = staging.scene;
  const { mark } = batch;
  const facts = (channel: ChannelId): RowFacts => {
    const rest = (i: number): number => restValue(layers[i].layer, channel);
    const here = (i: number): number => {
      const keys = layers[i].layer.tracks[channel];
      return keys && keys.length > 0 ? sampleTrack(keys, slots[i].start) : rest(i);
    };
    return { rest, here };
  };
  const allMade: MadeOnChannel[] = [];
  const addToAll = (made: MadeRow): void => {
    const keys = layers.map((draft, i) => addRow(draft, made, i, slots[i].start, batch, counts));
    allMade.push({ channel: made.channel, keys });
  };
  for (const row of compiled.rows) {
    if (row.cells.length === 0) continue;
    addToAll(makeRow(compiled, row, columns, moments, { facts: facts(row.channel), rate, mark }));
  }
  for (const movement of compiled.movements) {
    makeMovement(compiled, movement, columns, moments, { facts, places, rate, mark }).forEach(addToAll);
  }
  return { layers, counts, made: allMade };
}

/** What a run makes on its layers, as its record keeps it. */
export function madeOf(
  { staging, recipe }: Batch,
  { layers, made: all }: Outcomes,
  slots: readonly Slot[],
): LayerMade[] {
  const standing = new Map(staging.scene.layers.map((layer) => [layer.id, layer]));
  return layers.map(({ plan }, row) => {
    const made = all.flatMap(({ channel, keys }) => (keys[row].length > 0 ? [[channel, keys[row]] as const] : []));
    const before = standing.get(plan.layer) as Layer;
    const against =
      recipe.existing === 'add' ? made.map(([channel]) => [channel, restValue(before, channel)] as const) : [];
    return layerMade(plan.layer, { moved: slots[row].moved, against, start: plan.starts, tracks: made });
  });
}
