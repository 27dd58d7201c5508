import {
  createLinearFunction,
  solveBezier,
  springPoints,
  type CurvedEasing,
  type Easing,
  type LinearPoint,
} from '../../basics/easing';
import type { Key } from '../layer';
import type { Ticks } from '../../basics/time';
import { controlTimes, controlValues, sampleSegment } from './segment';

/** A part that goes a smaller share of the way than this goes nowhere that a progress could be a share of. */
const SMALLEST_SHARE = 1e-4;

/** Cuts a cubic at u: the control values before and after. */
function cutCubic([a, b, c, d]: readonly number[], u: number): readonly [number[], number[]] {
  const mix = (from: number, to: number): number => from + (to - from) * u;
  const [ab, bc, cd] = [mix(a, b), mix(b, c), mix(c, d)];
  const [abc, bcd] = [mix(ab, bc), mix(bc, cd)];
  const at = mix(abc, bcd);
  return [
    [a, ab, abc, at],
    [at, bcd, cd, d],
  ];
}

/** A part of a cubic in time and value: four control times in ticks, and four control values. */
interface Cubic {
  readonly times: readonly number[];
  readonly values: readonly number[];
}

/** How deep a part is halved; each halving makes it more even. */
const MOST_HALVINGS = 8;

/**
 * A part of a cubic as keys with free handles. A handle reaches no further than its segment is long; a part whose
 * control points lie beyond its ends is halved until they do not.
 */
function cubicKeys(key: Key, { times, values }: Cubic, at: Ticks, halvings = 0): Key[] {
  const length = times[3] - times[0];
  const [leave, arrive] = [(times[1] - times[0]) / length, (times[3] - times[2]) / length];
  const isWithin = leave >= 0 && leave <= 1 && arrive >= 0 && arrive <= 1;
  if (!isWithin && halvings < MOST_HALVINGS) {
    const [t, v] = [cutCubic(times, 0.5), cutCubic(values, 0.5)];
    const middle = Math.round(t[0][3]);
    if (middle > at && middle < times[3]) {
      const parts = [0, 1].map((i): Cubic => ({ times: t[i], values: v[i] }));
      return [...cubicKeys(key, parts[0], at, halvings + 1), ...cubicKeys(key, parts[1], middle, halvings + 1)];
    }
  }
  const share = (part: number): number => Math.min(1, Math.max(0, part));
  const ease: Easing = {
    type: 'handles',
    leave: { time: share(leave), value: values[1] - values[0] },
    arrive: { time: share(arrive), value: values[2] - values[3] },
  };
  return [{ ...key, at, value: values[0], ease }];
}

function cutBezier(ease: CurvedEasing, key: Key, next: Key, { at, value }: Pick<Key, 'at' | 'value'>): CutSegment {
  const length = next.at - key.at;
  const [x1, x2] = controlTimes(ease);
  const [v1, v2] = controlValues(ease, key.value, next.value);
  const u = solveBezier((at - key.at) / length, x1, x2);
  const times = cutCubic([key.at, key.at + x1 * length, key.at + x2 * length, next.at], u);
  const values = cutCubic([key.value, v1, v2, next.value], u);
  times[0][3] = times[1][0] = at;
  values[0][3] = values[1][0] = value;
  return {
    before: cubicKeys(key, { times: times[0], values: values[0] }, key.at),
    value,
    after: cubicKeys(key, { times: times[1], values: values[1] }, at),
  };
}

/** Points of a polyline between two inputs, ends included, as times from 0 to 1 and outputs as they are. */
function pointsBetween(points: readonly LinearPoint[], from: number, to: number): LinearPoint[] {
  const at = createLinearFunction(points);
  const inside = points.filter(({ input }) => input > from && input < to);
  const ends = [
    { input: from, output: at(from) },
    // A jump on the cut itself belongs to the part after it.
    { input: to, output: points.find(({ input }) => input === to)?.output ?? at(to) },
  ];
  return [ends[0], ...inside, ends[1]].map(({ input, output }) => ({ input: (input - from) / (to - from), output }));
}

/** What is left of a segment: its first key's time and value, and the time and value that it leads to. */
interface Part {
  readonly from: Ticks;
  readonly start: number;
  readonly to: Ticks;
  readonly end: number;
}

/** Part of a polyline as keys: one where it can be one `linear()`, else one key a point. */
function polylineKeys(key: Key, next: Key, points: readonly LinearPoint[], { from, start, to, end }: Part): Key[] {
  const valueOf = (output: number): number => key.value + (next.value - key.value) * output;
  if (Math.abs(end - start) > SMALLEST_SHARE * Math.abs(next.value - key.value)) {
    const shares = points.map(({ input, output }) => ({ input, output: (valueOf(output) - start) / (end - start) }));
    return [{ ...key, at: from, value: start, ease: { type: 'points', points: shares } }];
  }
  const keys = points.slice(0, -1).map(({ input, output }): Key => ({
    ...key,
    at: Math.round(from + (to - from) * input),
    value: valueOf(output),
    ease: { type: 'linear' },
  }));
  return keys.filter((entry, i) => entry.at < to && keys[i + 1]?.at !== entry.at);
}

/** Steps as keys that hold, on the ticks on which they begin. */
function stepKeys(key: Key, next: Key, from: Ticks, to: Ticks): Key[] {
  const { ease } = key;
  if (ease.type !== 'steps') return [key];
  const length = next.at - key.at;
  const begins = Array.from({ length: ease.count }, (_, i) => key.at + Math.ceil((i * length) / ease.count));
  const times = [from, ...begins.filter((at) => at > from && at < to)];
  const keys = times.map((at): Key => ({ ...key, at, value: sampleSegment(key, next, at), ease: { type: 'hold' } }));
  if (from > key.at || keys[0].value === key.value || to - from < 2) return keys;
  // Steps that jump as they begin: the key keeps its value, which stands before it, and is never seen itself.
  const jump: Key = { ...key, ease: { type: 'steps', count: 1, jump: 'start' } };
  const landed = { ...keys[0], at: from + 1 };
  return keys[1]?.at === landed.at ? [jump, ...keys.slice(1)] : [jump, landed, ...keys.slice(1)];
}

/** A segment cut in two. */
export interface CutSegment {
  /** Keys that move from the first key to the cut as the segment did; the first stands where the first key stood. */
  readonly before: readonly Key[];
  /** Value at the cut. */
  readonly value: number;
  /** Keys from the cut on that move to the second key as the segment did; the first stands on the cut. */
  readonly after: readonly Key[];
}

/**
 * Cuts the segment between two neighbouring keys at a time between them, in ticks, so that each part moves as before:
 * exactly, but for springs, which become points within 0.05 % of the way.
 */
export function cutSegment(key: Key, next: Key, at: Ticks): CutSegment {
  const value = sampleSegment(key, next, at);
  const share = (at - key.at) / (next.at - key.at);
  const { ease } = key;
  const two = (first: Easing, second: Easing): CutSegment => ({
    before: [{ ...key, ease: first }],
    value,
    after: [{ ...key, at, value, ease: second }],
  });
  switch (ease.type) {
    case 'hold':
    case 'linear':
      return two(ease, ease);
    case 'bezier':
    case 'handles':
      return cutBezier(ease, key, next, { at, value });
    case 'steps':
      return { before: stepKeys(key, next, key.at, at), value, after: stepKeys(key, next, at, next.at) };
    case 'points':
    case 'spring': {
      const { points } = ease.type === 'spring' ? springPoints(ease) : ease;
      const before = { from: key.at, start: key.value, to: at, end: value };
      const after = { from: at, start: value, to: next.at, end: next.value };
      return {
        before: polylineKeys(key, next, pointsBetween(points, 0, share), before),
        value,
        after: polylineKeys(key, next, pointsBetween(points, share, 1), after),
      };
    }
  }
}
