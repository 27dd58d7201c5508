import { TICKS_PER_SECOND, type Ticks } from '../../basics/time';
import type { Track } from '../layer';
import { createSegment } from './segment';

/** Speeds at which each key of a track is reached, in the channel's unit per second. */
export function arrivalsOf(keys: Track): Float64Array {
  return Float64Array.from(keys, (key, i) => {
    const before = keys[i - 1];
    if (!before) return 0;
    const seconds = (key.at - before.at) / TICKS_PER_SECOND;
    if (before.ease.type === 'linear') return (key.value - before.value) / seconds;
    return createSegment(before.ease, before.value, key.value).slope(1) / seconds;
  });
}

/** The times of a layer's keys on a channel, ticks, and the speeds at which each is reached. */
export interface Timing {
  readonly times: Float64Array;
  readonly arrivals: Float64Array;
}

/** The keys of many layers on a channel, one layer behind the other: those of row r stand from `starts[r]` to before `starts[r + 1]`. */
export interface KeyTimes extends Timing {
  readonly starts: Int32Array;
}

/** Puts the times of layers into one table, so that going through all of them reads memory in its order; null: no keys. */
export function keyTimesOf(rows: readonly (Timing | null)[]): KeyTimes {
  const starts = new Int32Array(rows.length + 1);
  rows.forEach((row, i) => (starts[i + 1] = starts[i] + (row?.times.length ?? 0)));
  const [times, arrivals] = [new Float64Array(starts[rows.length]), new Float64Array(starts[rows.length])];
  rows.forEach((row, i) => {
    if (!row) return;
    times.set(row.times, starts[i]);
    arrivals.set(row.arrivals, starts[i]);
  });
  return { starts, times, arrivals };
}

/**
 * Place of the last time at or before another one among those from `first` to before `end`; `first − 1` before all of them.
 * Mostly it is where it was, which is looked at first.
 */
export function lastAtOrBefore(times: Float64Array, first: number, end: number, time: Ticks, cursor: number): number {
  const isWithin = cursor >= first - 1 && cursor < end;
  if (isWithin && (cursor < first || times[cursor] <= time) && (cursor + 1 >= end || times[cursor + 1] > time)) {
    return cursor;
  }
  let [low, high] = [first - 1, end - 1];
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (times[middle] <= time) low = middle;
    else high = middle - 1;
  }
  return low;
}
