import { asBezier, createProgress, HOLD, unitCubic, unitCubicSlope, solveBezier, type Easing } from '../easing';
import type { Key } from '../scene';

/** What a compiled segment does between its two keys. */
export const SegmentKind = { hold: 0, linear: 1, bezier: 2, progress: 3 } as const;

/** Intervals of the table from which the solver of a bezier starts. */
const TABLE = 32;

/**
 * The time side of a cubic Bézier, prepared once and shared by every segment with the same x1 and x2:
 * its polynomial and the curve parameter at evenly spaced x.
 */
export interface TimeCurve {
  readonly x1: number;
  readonly x2: number;
  /** Polynomial of x(u): ((cubic·u + square)·u + line)·u. */
  readonly cubic: number;
  readonly square: number;
  readonly line: number;
  readonly start: Float64Array;
}

export function createTimeCurve(x1: number, x2: number): TimeCurve {
  const start = new Float64Array(TABLE + 2);
  for (let i = 0; i <= TABLE; i++) start[i] = solveBezier(i / TABLE, x1, x2);
  start[TABLE + 1] = 1;
  return { x1, x2, cubic: 1 + 3 * (x1 - x2), square: 3 * (x2 - 2 * x1), line: 3 * x1, start };
}

const CLOSE = 1e-11;

/**
 * Curve parameter at x ∈ [0, 1], |x(u) − x| ≤ 1e-11: from the table, then Halley's third-order step, repeated until
 * close; where the curve is too flat for that, the slow solver.
 */
export function solveTimeCurve(curve: TimeCurve, x: number): number {
  const { cubic, square, line, start } = curve;
  const at = x * TABLE;
  const cell = at | 0;
  let u = start[cell] + (start[cell + 1] - start[cell]) * (at - cell);
  for (let round = 0; round < 4; round++) {
    const miss = ((cubic * u + square) * u + line) * u - x;
    if (miss <= CLOSE && miss >= -CLOSE) return u;
    const slope = (3 * cubic * u + 2 * square) * u + line;
    const bend = 6 * cubic * u + 2 * square;
    u -= (2 * miss * slope) / (2 * slope * slope - miss * bend);
  }
  return u >= 0 && u <= 1 && Math.abs(unitCubic(curve.x1, curve.x2, u) - x) <= CLOSE
    ? u
    : solveBezier(x, curve.x1, curve.x2);
}

/** A segment between two keys, ready to be sampled: v(u) = value at share u of its time. */
export interface Segment {
  readonly at: (share: number) => number;
  /** dv/du, in the channel's unit per segment length. */
  readonly slope: (share: number) => number;
}

/** Inner control values of the value side of a Bézier segment. */
export function controlValues(ease: Easing, from: number, to: number): readonly [number, number] {
  if (ease.type === 'handles') return [from + ease.leave.value, to + ease.arrive.value];
  if (ease.type === 'bezier') return [from + ease.y1 * (to - from), from + ease.y2 * (to - from)];
  return [from + (to - from) / 3, to - (to - from) / 3];
}

/** x1 and x2 of the time side of a Bézier segment. */
export function controlTimes(ease: Easing): readonly [number, number] {
  if (ease.type === 'handles') return [ease.leave.time, 1 - ease.arrive.time];
  return ease.type === 'bezier' ? [ease.x1, ease.x2] : [1 / 3, 2 / 3];
}

/** A cubic with end values v0, v3 and control values v1, v2, at u. */
export function cubicValue(v0: number, v1: number, v2: number, v3: number, u: number): number {
  const w = 1 - u;
  return w * w * (w * v0 + 3 * u * v1) + u * u * (3 * w * v2 + u * v3);
}

const STEP = 1e-6;

function bezierSegment(ease: Easing, from: number, to: number): Segment {
  const [x1, x2] = controlTimes(ease);
  const [v1, v2] = controlValues(ease, from, to);
  const slope = (share: number): number => {
    const u = solveBezier(share, x1, x2);
    const w = 1 - u;
    const dv = 3 * (w * w * (v1 - from) + 2 * w * u * (v2 - v1) + u * u * (to - v2));
    return dv / Math.max(unitCubicSlope(x1, x2, u), STEP);
  };
  return { at: (share) => cubicValue(from, v1, v2, to, solveBezier(share, x1, x2)), slope };
}

/** Prepares one segment by itself; for whole scenes use `compileScene`. */
export function createSegment(ease: Easing, from: number, to: number): Segment {
  const bezier = asBezier(ease, from, to);
  if (bezier || ease.type === 'handles') return bezierSegment(ease, from, to);
  const progress = createProgress(ease as Exclude<Easing, { type: 'handles' }>);
  const at = (share: number): number => from + (to - from) * progress(share);
  const slope = (share: number): number => {
    if (ease.type === 'hold' || ease.type === 'steps') return 0;
    const [low, high] = [Math.max(0, share - STEP), Math.min(1, share + STEP)];
    return (at(high) - at(low)) / (high - low);
  };
  return { at, slope };
}

/** Index of the last key at or before a time; −1 before the first. */
export function keyBefore(keys: readonly Key[], time: number): number {
  let low = -1;
  let high = keys.length - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (keys[middle].at <= time) low = middle;
    else high = middle - 1;
  }
  return low;
}

/** Value of a track at a time: the first key's before it, the last key's after it. At least one key. */
export function sampleTrack(keys: readonly Key[], time: number): number {
  const at = keyBefore(keys, time);
  if (at < 0) return keys[0].value;
  const [key, next] = [keys[at], keys[at + 1]];
  if (!next || key.at === time || key.ease === HOLD) return key.value;
  return createSegment(key.ease, key.value, next.value).at((time - key.at) / (next.at - key.at));
}

/** Speed of a track at a time, in the channel's unit per tick; 0 outside its keys. On a key, of what follows. */
export function trackSpeed(keys: readonly Key[], time: number): number {
  const at = keyBefore(keys, time);
  const [key, next] = [keys[at], keys[at + 1]];
  if (!key || !next) return 0;
  const length = next.at - key.at;
  return createSegment(key.ease, key.value, next.value).slope((time - key.at) / length) / length;
}
