import { CHANNEL_COUNT, channelOf, type ChannelId } from '../../basics/channel';
import { oklabFromCss } from '../../basics/colour';
import { createProgress, stepProgress, type Easing } from '../../basics/easing';
import { restValues, type Layer, type Track } from '../layer';
import { compileClips, type CompiledClips } from './clips';
import { compilePaths, type CompiledPaths } from './paths';
import { compileRigs, type CompiledRigs, type Rigged } from './rigs';
import { controlTimes, controlValues, SegmentKind } from './segment';
import { createTimeCurves, type TimeCurves } from './time-curve';

/** Progress of a segment after so many ticks of its length, both integers. */
type Progress = (elapsed: number, length: number) => number;

/** A function that keeps its results for one compilation; a thousand layers have few colours. */
function memoised<T>(compute: (text: string) => T): (text: string) => T {
  const known = new Map<string, T>();
  return (text) => {
    const before = known.get(text);
    if (before !== undefined) return before;
    const value = compute(text);
    known.set(text, value);
    return value;
  };
}

/**
 * What a compiled key holds of itself and of the segment after it: its time, that of the next key (Infinity for the last),
 * its value, the rest of the polynomial value + ((cubic·u + square)·u + line)·u, 1 ÷ the segment's length, and in one code
 * what the segment does and the number of its time curve or progress function.
 */
export const KeyField = { time: 0, next: 1, value: 2, line: 3, square: 4, cubic: 5, inverse: 6, code: 7 } as const;
/** Kinds of segments take so many of the lowest values of a code; what is above them is the curve's number. */
export const KINDS = 8;
/** Eight numbers make a cache line of 64 bytes. */
export const KEY_STRIDE = 8;

/**
 * A scene compiled into flat arrays, so that sampling a frame allocates nothing.
 * Tracks are numbered throughout; the keys of track t are the entries first[t] … first[t + 1] − 1.
 */
export interface CompiledScene {
  readonly layers: readonly Layer[];
  /** Index of each layer's parent, −1 for none. */
  readonly parents: Int32Array;
  /** Layer indices with every parent before its children. */
  readonly order: Int32Array;
  /** Rest values: CHANNEL_COUNT numbers a layer. */
  readonly rest: Float64Array;
  /** Where each track writes: layer index · CHANNEL_COUNT + slot. */
  readonly target: Int32Array;
  readonly first: Int32Array;
  /** Last used key of each track, a memo that makes playing forward fast; it never changes a result. */
  readonly cursor: Int32Array;
  /** KEY_STRIDE numbers a key, see `KeyField`. */
  readonly keys: Float64Array;
  readonly curves: TimeCurves;
  readonly progress: readonly Progress[];
  /** What drives channels over their keys; null where nothing does. */
  readonly rigs: CompiledRigs | null;
  readonly paths: CompiledPaths;
  readonly clips: CompiledClips;
  /** Room for what a path adds to one layer. */
  readonly along: Float64Array;
}

/** Numbers equal easings once, so that a thousand layers with the same curve share one table. */
function createPool<T>(create: (easing: Easing) => T, keyOf: (easing: Easing) => string) {
  const indices = new Map<string, number>();
  /** Keys of one run share their easings, and looking an object up is quicker than writing it out. */
  const byObject = new Map<Easing, number>();
  const items: T[] = [];
  const add = (easing: Easing): number => {
    const key = keyOf(easing);
    const known = indices.get(key);
    if (known !== undefined) return known;
    indices.set(key, items.length);
    items.push(create(easing));
    return items.length - 1;
  };
  const indexOf = (easing: Easing): number => {
    const known = byObject.get(easing);
    if (known !== undefined) return known;
    const index = add(easing);
    byObject.set(easing, index);
    return index;
  };
  return { items, indexOf };
}

function kindOf(easing: Easing): number {
  switch (easing.type) {
    case 'hold':
      return SegmentKind.hold;
    case 'linear':
      return SegmentKind.linear;
    case 'bezier':
    case 'handles':
      return SegmentKind.bezier;
    case 'points':
    case 'steps':
    case 'spring':
      return SegmentKind.progress;
  }
}

/** Layer indices, parents first; layers whose parent is missing count as having none. */
function parentsFirst(parents: Int32Array): Int32Array {
  const order: number[] = [];
  const placed = new Uint8Array(parents.length);
  const place = (index: number): void => {
    if (placed[index]) return;
    placed[index] = 1;
    if (parents[index] >= 0) place(parents[index]);
    order.push(index);
  };
  for (let i = 0; i < parents.length; i++) place(i);
  return Int32Array.from(order);
}

interface TrackEntry {
  readonly target: number;
  readonly keys: Track;
}

function gatherTracks(layers: readonly Layer[]): TrackEntry[] {
  const entries: TrackEntry[] = [];
  layers.forEach(({ tracks }, index) => {
    for (const id in tracks) {
      const keys = tracks[id as ChannelId] as Track;
      entries.push({ target: index * CHANNEL_COUNT + channelOf(id as ChannelId).slot, keys });
    }
  });
  return entries;
}

/** Compiles the layers of a scene with what drives them. Costs about a microsecond a key; do it once per change, not per frame. */
export function compileScene(scene: Rigged): CompiledScene {
  const { layers } = scene;
  const indexById = new Map(layers.map((layer, index) => [layer.id, index]));
  const parents = Int32Array.from(layers, ({ parent }) => (parent === null ? -1 : (indexById.get(parent) ?? -1)));
  const rest = new Float64Array(layers.length * CHANNEL_COUNT);
  const colours = memoised(oklabFromCss);
  layers.forEach((layer, index) => rest.set(restValues(layer, colours), index * CHANNEL_COUNT));
  return {
    layers,
    parents,
    order: parentsFirst(parents),
    rest,
    ...compileTracks(gatherTracks(layers)),
    rigs: compileRigs(scene),
    paths: compilePaths(layers),
    clips: compileClips(layers),
    along: new Float64Array(3),
  };
}

function createSegmentProgress(easing: Easing): Progress {
  if (easing.type === 'steps') return (elapsed, length) => stepProgress(easing.count, easing.jump, elapsed, length);
  const progress = createProgress(easing as Exclude<Easing, { type: 'handles' }>);
  return (elapsed, length) => progress(elapsed / length);
}

function compileTracks(tracks: readonly TrackEntry[]) {
  const total = tracks.reduce((sum, { keys }) => sum + keys.length, 0);
  const curves = createPool(controlTimes, (easing) => controlTimes(easing).join());
  const progress = createPool<Progress>(createSegmentProgress, (easing) => JSON.stringify(easing));
  const first = new Int32Array(tracks.length + 1);
  const compiledKeys = new Float64Array(total * KEY_STRIDE);
  let k = 0;
  tracks.forEach(({ keys }, track) => {
    first[track] = k;
    keys.forEach((key, i) => {
      const o = k++ * KEY_STRIDE;
      compiledKeys[o + KeyField.time] = key.at;
      compiledKeys[o + KeyField.value] = key.value;
      const next = keys[i + 1];
      compiledKeys[o + KeyField.next] = next?.at ?? Infinity;
      compiledKeys[o + KeyField.code] = SegmentKind.hold;
      if (!next) return;
      const { ease } = key;
      const kind = kindOf(ease);
      compiledKeys[o + KeyField.inverse] = 1 / (next.at - key.at);
      const [v1, v2] = controlValues(ease, key.value, next.value);
      compiledKeys[o + KeyField.line] = 3 * (v1 - key.value);
      compiledKeys[o + KeyField.square] = 3 * (v2 - 2 * v1 + key.value);
      compiledKeys[o + KeyField.cubic] = next.value - key.value + 3 * (v1 - v2);
      const pool = kind === SegmentKind.bezier ? curves : kind === SegmentKind.progress ? progress : null;
      compiledKeys[o + KeyField.code] = kind + KINDS * (pool?.indexOf(ease) ?? 0);
      if (kind === SegmentKind.linear) compiledKeys[o + KeyField.line] = next.value - key.value;
    });
  });
  first[tracks.length] = k;
  return {
    target: Int32Array.from(tracks, ({ target }) => target),
    first,
    cursor: first.slice(0, tracks.length),
    keys: compiledKeys,
    curves: createTimeCurves(curves.items),
    progress: progress.items,
  };
}
