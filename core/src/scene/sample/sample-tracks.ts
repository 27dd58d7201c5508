import type { Ticks } from '../../basics/time';
import { BezierColumn, runBezierColumns } from './bezier-columns';
import type { Present } from './present';
import { SegmentField } from './segment-table';
import { CURVE_STRIDE, FIRST_START, INTERVALS, solveFrom, STRAIGHT } from './time-curve';
import type { CompiledTracks } from './tracks';

/** Before all times; finite, so that nothing times it is nothing. */
const EARLIEST = -Number.MAX_VALUE;

/** Puts a track into the segment that holds a time. */
function enter(tracks: CompiledTracks, track: number, time: Ticks): void {
  const { begins, ends, zero, inverse, starts, key, columns, progressing } = tracks.present;
  const { values, stride } = columns;
  const { keyAt, at, numbers: numbersNow, curves } = tracks.segments;
  const k = keyAt(track, time, key[track]);
  key[track] = k;
  const o = at(track, Math.max(0, k));
  const segment = numbersNow();
  const isBefore = k < 0;
  const law = segment[o + SegmentField.law];
  const isStill = isBefore || law < 0;
  begins[track] = isBefore ? EARLIEST : segment[o + SegmentField.begins];
  ends[track] = isBefore ? segment[o + SegmentField.begins] : segment[o + SegmentField.ends];
  zero[track] = segment[o + SegmentField.begins];
  inverse[track] = isStill ? 0 : segment[o + SegmentField.inverse];
  values[BezierColumn.value * stride + track] = segment[o + SegmentField.value];
  values[BezierColumn.valueLine * stride + track] = isStill ? 0 : segment[o + SegmentField.line];
  values[BezierColumn.valueSquare * stride + track] = segment[o + SegmentField.square];
  values[BezierColumn.valueCubic * stride + track] = segment[o + SegmentField.cubic];
  const c = (isStill ? STRAIGHT : law) * CURVE_STRIDE;
  const { numbers } = curves;
  starts[track] = c * 2 + FIRST_START;
  values[BezierColumn.cubic * stride + track] = numbers[c];
  values[BezierColumn.square * stride + track] = numbers[c + 1];
  values[BezierColumn.line * stride + track] = numbers[c + 2];
  if (isStill && !isBefore) progressing.set(track, o);
  else if (progressing.size > 0) progressing.delete(track);
}

/** The value of a track whose curve is too steep or too flat for two steps. */
function solvedSlowly({ columns: { values, stride } }: Present, track: number): number {
  const cubic = values[BezierColumn.cubic * stride + track];
  const square = values[BezierColumn.square * stride + track];
  const line = values[BezierColumn.line * stride + track];
  const share = values[BezierColumn.share * stride + track];
  const u = solveFrom(values[BezierColumn.start * stride + track], cubic, square, line, share);
  const bend = values[BezierColumn.valueCubic * stride + track] * u + values[BezierColumn.valueSquare * stride + track];
  const way = (bend * u + values[BezierColumn.valueLine * stride + track]) * u;
  return values[BezierColumn.value * stride + track] + way;
}

/**
 * Writes what the keys of all tracks give at a time into `values`, where their targets say. Allocates next to nothing: one
 * loop looks up what has changed since the last time, the columns are worked out all at once, and the results are written.
 */
export function sampleTracks(tracks: CompiledTracks, time: Ticks, values: Float64Array): void {
  const { target, present } = tracks;
  const { begins, ends, zero, inverse, starts, columns, made, progressing } = present;
  const { curves } = tracks.segments;
  let points = curves.starts;
  const inputs = columns.values;
  const count = target.length;
  const start = BezierColumn.start * count;
  for (let track = 0; track < count; track++) {
    if (!(begins[track] <= time && time < ends[track])) {
      enter(tracks, track, time);
      points = curves.starts;
    }
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
  for (const [track, o] of progressing) values[target[track]] = progressed(tracks, o, time);
}

/** Value at a time in a segment that a function works out. */
function progressed({ segments }: CompiledTracks, o: number, time: Ticks): number {
  const numbers = segments.numbers();
  const begins = numbers[o + SegmentField.begins];
  const progress = segments.progress[-1 - numbers[o + SegmentField.law]];
  const way = numbers[o + SegmentField.line];
  return numbers[o + SegmentField.value] + way * progress(time - begins, numbers[o + SegmentField.ends] - begins);
}
