import type { Ticks } from '../../basics/time';
import type { Easing } from '../../basics/easing';
import type { Key, Track } from '../layer';
import { createProgressPool, type Progress } from './progress-pool';
import { controlTimes, controlValues, keyBefore } from './segment';
import { createTimeCurves, type TimeCurves } from './time-curve';

/**
 * What is kept of a segment: when it begins and ends (Infinity after the last key), 1 ÷ its length (0 where it stands still),
 * its value + ((cubic·u + square)·u + line)·u, and the number of its time curve, or −1 − the number of its progress.
 */
export const SegmentField = { begins: 0, ends: 1, inverse: 2, value: 3, line: 4, square: 5, cubic: 6, law: 7 } as const;
/** Eight numbers make a cache line of 64 bytes. */
export const SEGMENT_STRIDE = 8;

const FIRST_ROOM = 64;

/** The segments of tracks, each prepared when a time first enters it, so that a million keys cost nothing before. */
export interface SegmentTable {
  /**
   * Number of the key of a track whose segment holds a time, −1 before the first. It is found soonest next to the key of the
   * time before, as it is played either way, and at the beginning, to which what is played over and over returns.
   */
  readonly keyAt: (track: number, time: Ticks, before: number) => number;
  /** Where the numbers of the segment after key k of a track begin in `numbers`. */
  readonly at: (track: number, k: number) => number;
  /** Read it anew after every `at`, which may move it to where there is more room. */
  readonly numbers: () => Float64Array;
  readonly curves: TimeCurves;
  readonly progress: readonly Progress[];
}

/** The segments of tracks, none of them prepared yet. */
export function createSegmentTable(tracks: readonly Track[]): SegmentTable {
  const first = new Int32Array(tracks.length + 1);
  let total = 0;
  for (let track = 0; track < tracks.length; track++) {
    first[track] = total;
    total += tracks[track].length;
  }
  first[tracks.length] = total;
  // Counted from 1: 0 is not prepared yet.
  const known = new Int32Array(total);
  const curves = createTimeCurves();
  const progressPool = createProgressPool();
  let numbers = new Float64Array(FIRST_ROOM * SEGMENT_STRIDE);
  let count = 0;

  const lawOf = (ease: Easing): number => {
    if (ease.type === 'points' || ease.type === 'steps' || ease.type === 'spring')
      return -1 - progressPool.indexOf(ease);
    const [x1, x2] = controlTimes(ease);
    return curves.indexOf(x1, x2);
  };

  const write = (o: number, key: Key, next: Key | undefined): void => {
    numbers[o + SegmentField.begins] = key.at;
    numbers[o + SegmentField.ends] = next?.at ?? Infinity;
    numbers[o + SegmentField.value] = key.value;
    if (next === undefined || key.ease.type === 'hold') return;
    const { ease } = key;
    numbers[o + SegmentField.law] = lawOf(ease);
    const way = next.value - key.value;
    const isCurve = ease.type === 'bezier' || ease.type === 'handles';
    numbers[o + SegmentField.line] = way;
    if (isCurve || ease.type === 'linear') numbers[o + SegmentField.inverse] = 1 / (next.at - key.at);
    if (!isCurve) return;
    const [v1, v2] = controlValues(ease, key.value, next.value);
    numbers[o + SegmentField.line] = 3 * (v1 - key.value);
    numbers[o + SegmentField.square] = 3 * (v2 - 2 * v1 + key.value);
    numbers[o + SegmentField.cubic] = way + 3 * (v1 - v2);
  };

  const prepare = (track: number, k: number): number => {
    const o = count * SEGMENT_STRIDE;
    if (o === numbers.length) {
      const more = new Float64Array(numbers.length * 2);
      more.set(numbers);
      numbers = more;
    }
    write(o, tracks[track][k], tracks[track][k + 1]);
    known[first[track] + k] = ++count;
    return o;
  };

  /** Whether the segment of a key is prepared and holds a time: what was entered before is found without looking at keys. */
  const holds = (track: number, k: number, time: Ticks): boolean => {
    const key = first[track] + k;
    if (k < 0 || key >= first[track + 1]) return false;
    const place = known[key];
    const o = (place - 1) * SEGMENT_STRIDE;
    return place > 0 && numbers[o] <= time && time < numbers[o + 1];
  };

  return {
    keyAt: (track, time, before) => {
      if (holds(track, before + 1, time)) return before + 1;
      if (holds(track, 0, time)) return 0;
      return holds(track, before - 1, time) ? before - 1 : keyBefore(tracks[track], time);
    },
    at: (track, k) => {
      const place = known[first[track] + k];
      return place > 0 ? (place - 1) * SEGMENT_STRIDE : prepare(track, k);
    },
    numbers: () => numbers,
    curves,
    progress: progressPool.list,
  };
}
