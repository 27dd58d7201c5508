import { channelOf, type ChannelId } from '../../basics/channel';
import type { Key, Track } from '../../scene/layer';
import { seedFromText } from '../../basics/random';
import { FIT_ERROR, fitSegments, keyBefore, sampleTrack, trackSpeed } from '../../scene/sample';
import type { Ticks } from '../../basics/time';
import { nameOf, partOf } from './names';
import { replaceTouched, type Merged } from './touched';

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

/** A short name of a standing key, for the slot of a key that stands in its place. */
function shortName(key: Key): string {
  return seedFromText(nameOf(key)).toString(36);
}

/**
 * Says whose the key at a stop of a sum is, and those between it and the next stop: a made key's own slot, and for the
 * others a part of the made key before them that goes by the standing key and by the halving alone.
 */
function slotsOfSum(old: Track, made: readonly Key[], stop: Ticks): (half: string) => Key['by'] {
  const own = made[Math.max(0, keyBefore(made, stop))];
  const standing = own.at === stop ? undefined : old.find(({ at }) => at === stop);
  const name = standing ? shortName(standing) : '';
  return (half) => {
    const later = half.replace(/0+$/, '');
    if (later === '') return standing ? partOf(own, name) : own.by;
    return partOf(own, `${name}.${later}`);
  };
}

/** New keys added to what stands: a sum of both, or of shares a product. */
export function addOnTop(old: Track, made: readonly Key[], channel: ChannelId, rest: number): Merged {
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
  // Asked for just beside keys, never at one: all of them are stops.
  const speed = (at: Ticks): number => joinSpeeds(old, made, at, channel, rest);
  const stops = [...new Set([...old, ...made].map(({ at }) => at))].filter((at) => at >= first && at <= last);
  stops.sort((a, b) => a - b);
  const moves = stops.map(value);
  const tolerance = (Math.max(...moves) - Math.min(...moves) || 1) * FIT_ERROR;
  const keys = stops.slice(1).flatMap((to, i) => {
    const slotOf = slotsOfSum(old, made, stops[i]);
    return fitSegments({ value, speed, tolerance }, stops[i], to).map(({ key, half }) => ({
      ...key,
      by: slotOf(half),
    }));
  });
  const end = { ...made[made.length - 1], value: value(last) };
  return replaceTouched(old, [...keys, end], true);
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
