import { CHANNEL_COUNT, channelOf, type ChannelId } from '../../basics/channel';
import { createProgress, stepProgress, type Easing } from '../../basics/easing';
import type { Layer, Track } from '../layer';
import { createPresent, type Present } from './present';
import { controlTimes, controlValues, SegmentKind } from './segment';
import { createTimeCurves, type TimeCurves } from './time-curve';

/** Progress of a segment after so many ticks of its length, both integers. */
type Progress = (elapsed: number, length: number) => number;

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
 * All tracks of a scene. They are numbered throughout; the keys of track t are the entries first[t] … first[t + 1] − 1.
 */
export interface CompiledTracks {
  /** Where each track writes: layer index · CHANNEL_COUNT + slot. */
  readonly target: Int32Array;
  readonly first: Int32Array;
  /** KEY_STRIDE numbers a key, see `KeyField`. */
  readonly keys: Float64Array;
  readonly curves: TimeCurves;
  readonly progress: readonly Progress[];
  /** Tracks with a segment that is worked out by a progress function. */
  readonly progressing: readonly number[];
  /** The segments that were last looked at, a memo that makes playing fast; it never changes a result. */
  readonly present: Present;
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

function createSegmentProgress(easing: Easing): Progress {
  if (easing.type === 'steps') return (elapsed, length) => stepProgress(easing.count, easing.jump, elapsed, length);
  const progress = createProgress(easing as Exclude<Easing, { type: 'handles' }>);
  return (elapsed, length) => progress(elapsed / length);
}

/** Compiles the keys of layers. */
export function compileTracks(layers: readonly Layer[]): CompiledTracks {
  const tracks = gatherTracks(layers);
  const total = tracks.reduce((sum, { keys }) => sum + keys.length, 0);
  const curves = createPool(controlTimes, (easing) => controlTimes(easing).join());
  const progress = createPool<Progress>(createSegmentProgress, (easing) => JSON.stringify(easing));
  const first = new Int32Array(tracks.length + 1);
  const compiledKeys = new Float64Array(total * KEY_STRIDE);
  const progressing = new Set<number>();
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
      if (kind === SegmentKind.progress) progressing.add(track);
      const pool = kind === SegmentKind.bezier ? curves : kind === SegmentKind.progress ? progress : null;
      // The first of the time curves is the straight one.
      const number = pool === curves ? curves.indexOf(ease) + 1 : (pool?.indexOf(ease) ?? 0);
      compiledKeys[o + KeyField.code] = kind + KINDS * number;
      if (kind === SegmentKind.linear) compiledKeys[o + KeyField.line] = next.value - key.value;
    });
  });
  first[tracks.length] = k;
  return {
    target: Int32Array.from(tracks, ({ target }) => target),
    first,
    keys: compiledKeys,
    curves: createTimeCurves(curves.items),
    progress: progress.items,
    progressing: [...progressing],
    present: createPresent(tracks.length),
  };
}
