import { channelOf, type ChannelId } from '../channel';
import { sampleTrack, trackSpeed } from '../sample';
import type { Key, Track } from '../scene';
import type { Ticks } from '../time';
import type { OverExisting } from '../recipe';

/** What putting new keys over old ones gives on one channel. */
export interface Merged {
  readonly keys: readonly Key[];
  /** Old keys that are no longer there. */
  readonly removed: readonly Key[];
}

function touches(made: readonly Key[]): (key: Key) => boolean {
  const [from, to] = [made[0].at, made[made.length - 1].at];
  return ({ at }) => at >= from && at <= to;
}

function replaceTouched(old: Track, made: readonly Key[]): Merged {
  const isTouched = touches(made);
  const kept = old.filter((key) => !isTouched(key));
  const before = kept.filter(({ at }) => at < made[0].at);
  const after = kept.filter(({ at }) => at > made[0].at);
  return { keys: [...before, ...made, ...after], removed: old.filter(isTouched) };
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

interface Fit {
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
function fitSegments(fit: Fit, from: Ticks, to: Ticks, depth = 0): Key[] {
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
    return replaceTouched(old, shifted);
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
  return replaceTouched(old, [...keys, end]);
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
  if (!old || old.length === 0) return { keys: made, removed: [] };
  switch (way) {
    case 'replace':
      return replaceTouched(old, made);
    case 'replace-channels':
      return { keys: made, removed: old };
    case 'add':
      return addOnTop(old, made, channel, rest);
    case 'leave':
      return { keys: old, removed: [] };
  }
}
