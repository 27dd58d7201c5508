import {
  createProgress,
  stepProgress,
  unitCubicSlope,
  solveBezier,
  type CurvedEasing,
  type Easing,
} from '../../basics/easing';
import type { Key } from '../layer';

/** A segment between two keys, ready to be sampled: v(u) = value at share u of its time. */
export interface Segment {
  readonly at: (share: number) => number;
  /** dv/du, in the channel's unit per segment length. */
  readonly slope: (share: number) => number;
}

/** Inner control values of the value side of a Bézier segment. */
export function controlValues(ease: CurvedEasing, from: number, to: number): readonly [number, number] {
  if (ease.type === 'handles') return [from + ease.leave.value, to + ease.arrive.value];
  return [from + ease.y1 * (to - from), from + ease.y2 * (to - from)];
}

/** x1 and x2 of the time side of a segment; an even one, and one that has no time curve, is a straight line. */
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

function bezierSegment(ease: CurvedEasing, from: number, to: number): Segment {
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
  if (ease.type === 'bezier' || ease.type === 'handles') return bezierSegment(ease, from, to);
  const progress = createProgress(ease);
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
  return next ? sampleSegment(key, next, time) : key.value;
}

/** Value between two neighbouring keys at a time from the first one's to before the second's, in ticks. */
export function sampleSegment(key: Key, next: Key, time: number): number {
  const [elapsed, length] = [time - key.at, next.at - key.at];
  const { ease } = key;
  if (ease.type === 'steps') {
    return key.value + (next.value - key.value) * stepProgress(ease.count, ease.jump, elapsed, length);
  }
  return createSegment(ease, key.value, next.value).at(elapsed / length);
}

/** Samples a track as `sampleTrack` does, preparing each segment once; for many times of one track. */
export function createTrackSampler(keys: readonly Key[]): (time: number) => number {
  const segments: (Segment | undefined)[] = [];
  return (time) => {
    const at = keyBefore(keys, time);
    if (at < 0) return keys[0].value;
    const [key, next] = [keys[at], keys[at + 1]];
    if (!next) return key.value;
    // Steps are counted in ticks, so that they fall on them.
    if (key.ease.type === 'steps') return sampleSegment(key, next, time);
    const segment = (segments[at] ??= createSegment(key.ease, key.value, next.value));
    return segment.at((time - key.at) / (next.at - key.at));
  };
}

/** Speed of a track at a time, in the channel's unit per tick; 0 outside its keys. On a key, of what follows. */
export function trackSpeed(keys: readonly Key[], time: number): number {
  const at = keyBefore(keys, time);
  const [key, next] = [keys[at], keys[at + 1]];
  if (!key || !next) return 0;
  const length = next.at - key.at;
  return createSegment(key.ease, key.value, next.value).slope((time - key.at) / length) / length;
}
