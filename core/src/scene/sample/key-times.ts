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

/** The times of a layer's keys on a channel, for `since`, `until` and `arrival`. */
export interface Timing {
  readonly times: Float64Array;
  readonly arrivals: Float64Array;
}

/** Of a channel without keys. */
export const NO_KEYS: Timing = { times: new Float64Array(0), arrivals: new Float64Array(0) };

/** Place of the last time at or before another one, −1 before the first; mostly it is where it was, or the next. */
export function lastAtOrBefore(times: Float64Array, time: Ticks, cursor: number): number {
  const next = cursor + 1;
  const isAfter = cursor < 0 || (cursor < times.length && times[cursor] <= time);
  if (isAfter && (next >= times.length || times[next] > time)) return Math.min(cursor, times.length - 1);
  let [low, high] = [-1, times.length - 1];
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (times[middle] <= time) low = middle;
    else high = middle - 1;
  }
  return low;
}
