import { HOLD, LINEAR } from '../../basics/easing';
import { TICKS_PER_SECOND, type Ticks } from '../../basics/time';
import type { Key, Track } from '../layer';
import { createSegment } from './segment';

/** A moving value that is to become keys. */
export interface Bake {
  readonly value: (at: Ticks) => number;
  readonly from: Ticks;
  readonly to: Ticks;
  /** Times at which it may change its course at once: each gets a key. */
  readonly breaks: readonly Ticks[];
  /** Keys stand on multiples of this from `from` on, besides the breaks. */
  readonly step: Ticks;
  /** How far off they may be, in the channel's unit. */
  readonly tolerance: number;
}

/** Keys for a moving value, with how far off they are at worst, and when. */
export interface Baked {
  readonly keys: Track;
  readonly worst: number;
  readonly at: Ticks;
}

/** Looks within one step, so that what happens between two frames counts. */
export const LOOKS = 4;
/** How far within the ends of a segment speeds are taken: half a millisecond. */
export const INSET = TICKS_PER_SECOND / 2_000;

/** How many times as much as just beside it a value changes at once where it jumps, besides the tolerance. */
const ABRUPT = 4;

/** True where a value is another at a time than just beside it: before it with an inset below 0, else after it. */
function jumpsAt({ value, tolerance }: Bake, at: Ticks, inset: Ticks): boolean {
  const near = value(at + inset);
  return Math.abs(value(at) - near) > tolerance + ABRUPT * Math.abs(near - value(at + 2 * inset));
}

/**
 * A segment between two times with the value's own speeds just within its ends (Hermite form written as free handles). A
 * value that jumps as the segment is left or ends is held, so that nothing swings between two frames.
 */
function segmentBetween(bake: Bake, from: Ticks, to: Ticks): Key {
  const { value } = bake;
  const inset = Math.min(INSET, (to - from) / 4);
  const third = (to - from) / 3;
  const start = value(from);
  if (jumpsAt(bake, from, inset) || jumpsAt(bake, to, -inset)) return { at: from, value: start, ease: HOLD };
  const leave = ((value(from + inset) - start) / inset) * third;
  const arrive = -((value(to) - value(to - inset)) / inset) * third;
  const isStraight = Math.abs(leave) + Math.abs(arrive) < 1e-12 && Math.abs(value(to) - start) < 1e-12;
  return {
    at: from,
    value: start,
    ease: isStraight
      ? LINEAR
      : { type: 'handles', leave: { time: 1 / 3, value: leave }, arrive: { time: 1 / 3, value: arrive } },
  };
}

/** How far a segment is off at each of its looks, and how many there are. */
function missesOf({ value, step }: Bake, key: Key, to: Ticks) {
  const segment = createSegment(key.ease, key.value, value(to));
  const count = Math.max(2, Math.ceil(((to - key.at) / step) * LOOKS));
  const timeOf = (look: number): Ticks => Math.round(key.at + ((to - key.at) * look) / count);
  const missAt = (time: Ticks): number => Math.abs(segment.at((time - key.at) / (to - key.at)) - value(time));
  return { count, timeOf, missAt };
}

/** How far a segment is off at worst, and when. */
function missOf(bake: Bake, key: Key, to: Ticks): readonly [number, Ticks] {
  const { count, timeOf, missAt } = missesOf(bake, key, to);
  let [worst, at] = [0, key.at];
  for (let look = 1; look < count; look++) {
    const miss = missAt(timeOf(look));
    if (miss > worst) [worst, at] = [miss, timeOf(look)];
  }
  return [worst, at];
}

/** Whether a segment stays within the tolerance. */
function isClose(bake: Bake, key: Key, to: Ticks): boolean {
  const { count, timeOf, missAt } = missesOf(bake, key, to);
  for (let look = 1; look < count; look++) if (missAt(timeOf(look)) > bake.tolerance) return false;
  return true;
}

/** Remembers values: a fit looks at the same times again and again. */
function remembering(value: (at: Ticks) => number): (at: Ticks) => number {
  const known = new Map<Ticks, number>();
  return (at) => {
    const before = known.get(at);
    if (before !== undefined) return before;
    const made = value(at);
    known.set(at, made);
    return made;
  };
}

/** Times between which segments may end: the breaks, and every step in between. */
function stepsOf({ from, to, breaks, step }: Bake): { readonly times: Ticks[]; readonly isBreak: Set<Ticks> } {
  const isBreak = new Set([from, to, ...breaks.filter((at) => at > from && at < to)]);
  const times = new Set(isBreak);
  for (let at = from + step; at < to; at += step) times.add(at);
  return { times: [...times].sort((a, b) => a - b), isBreak };
}

/** A key of a fit, with how far its segment is off at worst, and when. */
interface FitKey {
  readonly key: Key;
  readonly miss: number;
  readonly when: Ticks;
}

/**
 * As few keys as go, but for the last: from each one the longest segment that stays within the tolerance, looked for by
 * doubling and halving. One step is always taken, so that there are never more keys than steps.
 */
function* fitted(bake: Bake): Generator<FitKey> {
  const { times, isBreak } = stepsOf(bake);
  let i = 0;
  while (i < times.length - 1) {
    let most = i + 1;
    while (most < times.length - 1 && !isBreak.has(times[most])) most++;
    const fits = (j: number): boolean => isClose(bake, segmentBetween(bake, times[i], times[j]), times[j]);
    let [low, high] = [i + 1, i + 1];
    while (high < most && fits(Math.min(most, i + (high - i) * 2))) {
      high = Math.min(most, i + (high - i) * 2);
      low = high;
    }
    high = Math.min(most, i + (high - i) * 2);
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (fits(middle)) low = middle;
      else high = middle - 1;
    }
    const key = segmentBetween(bake, times[i], times[low]);
    const [miss, when] = missOf(bake, key, times[low]);
    yield { key, miss, when };
    i = low;
  }
}

function bakedOf({ value, from, to }: Bake, fit: readonly FitKey[]): Baked {
  const worst = fit.reduce((most, one) => (one.miss > most.miss ? one : most), { miss: 0, when: from });
  const last: Key = { at: to, value: value(to), ease: LINEAR };
  return { keys: withoutStill([...fit.map(({ key }) => key), last]), worst: worst.miss, at: worst.when };
}

/** A moving value as few keys, at most one a step. */
export function bakeTrack(given: Bake): Baked {
  const bake = { ...given, value: remembering(given.value) };
  return bakedOf(bake, [...fitted(bake)]);
}

/** A moving value as fewer keys than so many; null, soon, where it needs as many. */
export function bakeInFewer(given: Bake, count: number): Baked | null {
  const bake = { ...given, value: remembering(given.value) };
  const fit: FitKey[] = [];
  // Only straight keys can still turn out to be none, where the value rests; the last one comes besides.
  let sure = 1;
  for (const one of fitted(bake)) {
    fit.push(one);
    if (one.key.ease.type !== 'linear' && ++sure >= count) return null;
  }
  const baked = bakedOf(bake, fit);
  return baked.keys.length < count ? baked : null;
}

/** Without keys between two that are the same: a value that rests needs its ends alone. */
function withoutStill(keys: readonly Key[]): Key[] {
  const isAlike = (a: Key | undefined, b: Key): boolean =>
    a !== undefined && Math.abs(a.value - b.value) < 1e-9 && a.ease.type === 'linear';
  return keys.filter((key, i) => {
    const next = keys[i + 1];
    return !(
      isAlike(keys[i - 1], key) &&
      key.ease.type === 'linear' &&
      next &&
      Math.abs(next.value - key.value) < 1e-9
    );
  });
}
