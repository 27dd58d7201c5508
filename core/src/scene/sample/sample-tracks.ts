import type { Ticks } from '../../basics/time';
import { BezierColumn, runBezierColumns } from './bezier-columns';
import type { Present } from './present';
import { SegmentKind } from './segment';
import { CURVE_STRIDE, FIRST_START, INTERVALS, solveFrom, STRAIGHT } from './time-curve';
import { KEY_STRIDE, KeyField, KINDS, type CompiledTracks } from './tracks';

/** Before all times; finite, so that nothing times it is nothing. */
const EARLIEST = -Number.MAX_VALUE;

const { time: TIME, next: NEXT, value: VALUE, line: LINE, square: SQUARE, cubic: CUBIC } = KeyField;
const { inverse: INVERSE, code: CODE } = KeyField;

/** Key number whose segment holds the time; `from − 1` before the first key. */
function searchKey(keys: Float64Array, from: number, end: number, time: number): number {
  let low = from - 1;
  let high = end - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (keys[middle * KEY_STRIDE + TIME] <= time) low = middle;
    else high = middle - 1;
  }
  return low;
}

/** Puts a track into the segment that holds a time. */
function enter({ first, keys, curves, present }: CompiledTracks, track: number, time: Ticks): void {
  const { begins, ends, zero, inverse, starts, key, columns } = present;
  const { values, stride } = columns;
  const from = first[track];
  const k = searchKey(keys, from, first[track + 1], time);
  const isBefore = k < from;
  const o = (isBefore ? from : k) * KEY_STRIDE;
  const kind = isBefore ? SegmentKind.hold : keys[o + CODE] % KINDS;
  const isStill = kind === SegmentKind.hold || kind === SegmentKind.progress;
  const isBent = kind === SegmentKind.bezier;
  begins[track] = isBefore ? EARLIEST : keys[o + TIME];
  ends[track] = isBefore ? keys[o + TIME] : keys[o + NEXT];
  zero[track] = keys[o + TIME];
  inverse[track] = isStill ? 0 : keys[o + INVERSE];
  key[track] = kind === SegmentKind.progress ? o : -1;
  const curve = isBent ? Math.floor(keys[o + CODE] / KINDS) : STRAIGHT;
  starts[track] = curve * CURVE_STRIDE * 2 + FIRST_START;
  const { numbers } = curves;
  const c = curve * CURVE_STRIDE;
  values[BezierColumn.cubic * stride + track] = numbers[c];
  values[BezierColumn.square * stride + track] = numbers[c + 1];
  values[BezierColumn.line * stride + track] = numbers[c + 2];
  values[BezierColumn.value * stride + track] = keys[o + VALUE];
  values[BezierColumn.valueLine * stride + track] = isStill ? 0 : keys[o + LINE];
  values[BezierColumn.valueSquare * stride + track] = isBent ? keys[o + SQUARE] : 0;
  values[BezierColumn.valueCubic * stride + track] = isBent ? keys[o + CUBIC] : 0;
}

/** The value of a track whose curve is too steep or too flat for two steps. */
function solvedSlowly({ columns: { values, stride } }: Present, track: number): number {
  const at = (column: keyof typeof BezierColumn): number => values[BezierColumn[column] * stride + track];
  const u = solveFrom(at('start'), at('cubic'), at('square'), at('line'), at('share'));
  return at('value') + ((at('valueCubic') * u + at('valueSquare')) * u + at('valueLine')) * u;
}

/**
 * Writes what the keys of all tracks give at a time into `values`, where their targets say. Allocates nothing. One loop
 * looks up what has changed since the last time, the columns are worked out all at once, and the results are written.
 */
export function sampleTracks(tracks: CompiledTracks, time: Ticks, values: Float64Array): void {
  const { target, present, progressing } = tracks;
  const { begins, ends, zero, inverse, starts, key, columns, made } = present;
  const { starts: points } = tracks.curves;
  const inputs = columns.values;
  const count = target.length;
  const start = BezierColumn.start * count;
  for (let track = 0; track < count; track++) {
    if (!(begins[track] <= time && time < ends[track])) enter(tracks, track, time);
    const share = (time - zero[track]) * inverse[track];
    inputs[track] = share;
    const at = share * INTERVALS;
    const step = at | 0;
    const cell = starts[track] + step;
    const low = points[cell];
    inputs[start + track] = low + (points[cell + 1] - low) * (at - step);
  }
  runBezierColumns(columns, 0, count, made);
  for (let track = 0; track < count; track++) {
    const value = made[track];
    // Only what is no number differs from itself.
    values[target[track]] = value === value ? value : solvedSlowly(present, track);
  }
  for (const track of progressing) {
    const o = key[track];
    if (o < 0) continue;
    const { keys } = tracks;
    const progress = tracks.progress[Math.floor(keys[o + CODE] / KINDS)];
    const way = keys[o + KEY_STRIDE + VALUE] - keys[o + VALUE];
    values[target[track]] = keys[o + VALUE] + way * progress(time - keys[o + TIME], keys[o + NEXT] - keys[o + TIME]);
  }
}
