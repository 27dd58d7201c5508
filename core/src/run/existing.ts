import { channelOf, type ChannelId } from '../channel';
import { cutSegment, keyBefore, sampleTrack, trackSpeed } from '../sample';
import { withKeys, type Key, type Layer, type Track } from '../scene';
import type { Ticks } from '../time';
import type { OverExisting } from '../recipe';

/** A layer's tracks without the keys of some runs, whose place a new one takes. */
export function withoutRuns(tracks: Layer['tracks'], isGone: (run: string) => boolean): Layer['tracks'] {
  let kept = tracks;
  for (const [channel, keys] of Object.entries(tracks) as [ChannelId, Track][]) {
    const others = keys.filter(({ by }) => !by || !isGone(by.run));
    if (others.length < keys.length) kept = withKeys(kept, channel, others);
  }
  return kept;
}

/** What putting new keys over old ones gives on one channel. */
export interface Merged {
  readonly keys: readonly Key[];
  /** Old keys that are no longer there. */
  readonly removed: readonly Key[];
  /** True where the new keys stand otherwise than they were made: joined with the old motion, or led on to old keys. */
  readonly isJoined: boolean;
}

function touches(made: readonly Key[]): (key: Key) => boolean {
  const [from, to] = [made[0].at, made[made.length - 1].at];
  return ({ at }) => at >= from && at <= to;
}

const HOLD = { type: 'hold' } as const;
/** Values closer than this, as a share of their size, are one. */
const ALIKE = 1e-9;

function isAlike(a: number, b: number): boolean {
  return Math.abs(a - b) <= ALIKE * (1 + Math.abs(a) + Math.abs(b));
}

const HELD = '/held';

/** Slot of the key that keeps the standing value up to the first key of a run's row. */
function holdingSlot({ by }: Key): Key['by'] {
  return by && { run: by.run, slot: `${by.slot}${HELD}` };
}

/** True for a run's key that only holds what stood before it, which is worked out anew with each joining. */
export function isHolding({ by }: Key): boolean {
  return by?.slot.endsWith(HELD) === true;
}

/**
 * The old keys before a time, with the motion up to it as it was, however the value goes on from there. Where it goes
 * on from another one, the standing value holds until then: a moving one is kept up to the last tick before. Before its
 * first key a track stands at that key's value; only what is added on top keeps that, a replacing run begins the track.
 */
function keptBefore(old: Track, made: Key, isAdded: boolean): readonly Key[] {
  const { at, value } = made;
  const index = keyBefore(old, at - 1);
  const before = old.slice(0, index + 1);
  const [last, next] = [old[index], old[index + 1]];
  const holdingAt = (time: Ticks, held: number): Key => {
    const by = holdingSlot(made);
    return { at: time, value: held, ease: HOLD, ...(by ? { by } : {}) };
  };
  if (!last) return isAdded && !isAlike(old[0].value, value) ? [holdingAt(at - 1, old[0].value)] : [];
  const isEven = !next || (last.value === next.value && last.ease.type !== 'handles');
  if (isEven || last.ease.type === 'hold') {
    return isAlike(last.value, value) ? before : [...before.slice(0, -1), { ...last, ease: HOLD }];
  }
  const standing = cutAt(last, next, at);
  if (isAlike(standing.value, value)) return [...before.slice(0, -1), ...standing.before];
  if (at - 1 <= last.at) return [...before.slice(0, -1), { ...last, ease: HOLD }];
  const held = cutAt(last, next, at - 1);
  return [...before.slice(0, -1), ...held.before, holdingAt(at - 1, held.value)];
}

/** A segment cut at a time; at its end it is whole. */
function cutAt(key: Key, next: Key, at: Ticks): { readonly before: readonly Key[]; readonly value: number } {
  return at === next.at ? { before: [key], value: next.value } : cutSegment(key, next, at);
}

/**
 * How the last new key goes on to the old ones after it: where the old motion is met, as that went on; where another
 * value stands there, the new value holds, so that nothing slides slowly from one to the other.
 */
function goesOn(old: Track, end: Key): readonly Key[] {
  const index = keyBefore(old, end.at);
  const [last, next] = [old[index], old[index + 1]];
  if (!next || isAlike(next.value, end.value)) return [end];
  if (!last || !isAlike(sampleTrack(old, end.at), end.value)) return [{ ...end, ease: HOLD }];
  const [first, ...others] = last.at === end.at ? [last] : cutSegment(last, next, end.at).after;
  return [{ ...end, ease: first.ease }, ...others];
}

function replaceTouched(old: Track, made: readonly Key[], isAdded = false): Merged {
  const isTouched = touches(made);
  const end = made[made.length - 1];
  const after = old.filter(({ at }) => at > end.at);
  const ends = goesOn(old, end);
  return {
    keys: [...keptBefore(old, made[0], isAdded), ...made.slice(0, -1), ...ends, ...after],
    removed: old.filter(isTouched),
    isJoined: isAdded || ends[0] !== end,
  };
}

/** How a new value joins a standing one: shares of size multiply, everything else adds its difference from rest. */
function joinValues(channel: ChannelId, standing: number, value: number, rest: number): number {
  const multiplies = channelOf(channel).unit === 'share' && rest !== 0;
  return multiplies ? (standing * value) / rest : standing + value - rest;
}

const FLAT = 1e-12;

/** True when the standing track does not move between two times. */
function isStill(old: Track, from: Ticks, to: Ticks): boolean {
  const first = sampleTrack(old, from);
  const inside = old.filter(({ at }) => at >= from && at <= to).map(({ at }) => at);
  const stops = [from, ...inside, to];
  return stops.every(
    (at, i) =>
      Math.abs(sampleTrack(old, at) - first) <= FLAT &&
      (i === 0 || Math.abs(sampleTrack(old, (at + stops[i - 1]) / 2) - first) <= FLAT),
  );
}

/** Greatest error of a fitted segment, as a share of how far the channel moves. */
const FIT_ERROR = 0.001;
const FIT_DEPTH = 10;

/** A moving value to be followed by segments: its value and speed at a time, and how far off they may be. */
export interface Fit {
  readonly value: (at: Ticks) => number;
  readonly speed: (at: Ticks) => number;
  readonly tolerance: number;
}

/** One cubic segment with the right values and speeds at both ends (Hermite form written as free handles). */
function hermite(fit: Fit, from: Ticks, to: Ticks): Key {
  const third = (to - from) / 3;
  const inset = (to - from) * 1e-6;
  const leave = fit.speed(from + inset) * third;
  const arrive = -fit.speed(to - inset) * third;
  const ease = {
    type: 'handles',
    leave: { time: 1 / 3, value: leave },
    arrive: { time: 1 / 3, value: arrive },
  } as const;
  return { at: from, value: fit.value(from), ease };
}

function isClose(fit: Fit, key: Key, to: Ticks): boolean {
  const trial: Track = [key, { at: to, value: fit.value(to), ease: { type: 'linear' } }];
  return [0.25, 0.5, 0.75].every((share) => {
    const at = key.at + (to - key.at) * share;
    return Math.abs(sampleTrack(trial, at) - fit.value(at)) <= fit.tolerance;
  });
}

/** Segments that follow a moving value within its tolerance, halving where one is not enough. */
export function fitSegments(fit: Fit, from: Ticks, to: Ticks, depth = 0): Key[] {
  const key = hermite(fit, from, to);
  const middle = Math.round((from + to) / 2);
  if (depth >= FIT_DEPTH || middle <= from || middle >= to || isClose(fit, key, to)) return [key];
  return [...fitSegments(fit, from, middle, depth + 1), ...fitSegments(fit, middle, to, depth + 1)];
}

function addOnTop(old: Track, made: readonly Key[], channel: ChannelId, rest: number): Merged {
  const [first, last] = [made[0].at, made[made.length - 1].at];
  const join = (at: Ticks, value: number): number => joinValues(channel, sampleTrack(old, at), value, rest);
  if (isStill(old, first, last)) {
    const shifted = made.map((key) => ({
      ...key,
      value: join(key.at, key.value),
      ease: scaleHandles(key, old, channel, rest),
    }));
    return replaceTouched(old, shifted, true);
  }
  const value = (at: Ticks): number => join(at, sampleTrack(made, at));
  const step = (last - first) * 1e-6;
  const speed = (at: Ticks): number =>
    isNearKey(old, at) || isNearKey(made, at)
      ? (value(at + step) - value(at - step)) / (2 * step)
      : joinSpeeds(old, made, at, channel, rest);
  const stops = [...new Set([...old, ...made].map(({ at }) => at))].filter((at) => at >= first && at <= last);
  stops.sort((a, b) => a - b);
  const moves = stops.map(value);
  const tolerance = (Math.max(...moves) - Math.min(...moves) || 1) * FIT_ERROR;
  const fitted = stops.slice(1).flatMap((to, i) => fitSegments({ value, speed, tolerance }, stops[i], to));
  const end = { ...made[made.length - 1], value: value(last) };
  const origins = new Map(made.map((key) => [key.at, key.by]));
  const keys = fitted.map((key) => ({ ...key, by: origins.get(key.at) ?? made[0].by }));
  return replaceTouched(old, [...keys, end], true);
}

function isNearKey(keys: Track, at: Ticks): boolean {
  return keys.some((key) => key.at === at);
}

function joinSpeeds(old: Track, made: Track, at: Ticks, channel: ChannelId, rest: number): number {
  const multiplies = channelOf(channel).unit === 'share' && rest !== 0;
  const [a, b] = [trackSpeed(old, at), trackSpeed(made, at)];
  if (!multiplies) return a + b;
  return (a * sampleTrack(made, at) + b * sampleTrack(old, at)) / rest;
}

/** Free handles carry values of their own, which a factor must reach too. */
function scaleHandles(key: Key, old: Track, channel: ChannelId, rest: number): Key['ease'] {
  const multiplies = channelOf(channel).unit === 'share' && rest !== 0;
  if (key.ease.type !== 'handles' || !multiplies) return key.ease;
  const factor = sampleTrack(old, key.at) / rest;
  const { leave, arrive } = key.ease;
  return {
    type: 'handles',
    leave: { ...leave, value: leave.value * factor },
    arrive: { ...arrive, value: arrive.value * factor },
  };
}

/**
 * Puts new keys over the old ones of a channel. `made` is not empty and in order of time.
 * Adding on top is exact where the old track stands still; where it moves, the sum is fitted within 0.1 % of the way.
 */
export function mergeKeys(
  old: Track | undefined,
  made: readonly Key[],
  way: OverExisting,
  channel: ChannelId,
  rest: number,
): Merged {
  if (!old || old.length === 0) return { keys: made, removed: [], isJoined: way === 'add' };
  switch (way) {
    case 'replace':
    case 'take-place':
      return replaceTouched(old, made);
    case 'replace-channels':
      return { keys: made, removed: old, isJoined: false };
    case 'add':
      return addOnTop(old, made, channel, rest);
    case 'leave':
      return { keys: old, removed: [], isJoined: false };
  }
}
