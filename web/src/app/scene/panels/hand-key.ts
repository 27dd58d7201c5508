import { channelOf, easingFromStrengths, type ChannelId, type Key, type Ticks } from '@wexikine/core';
import { numberCheck } from '../../fields/checks';

/** A typed value of a channel as a number; null where it is none. Shares are typed as per cent. */
export function readChannelValue(id: ChannelId, text: string): number | null {
  const match = /^\s*([+-]?\d*\.?\d+)\s*(px|%|°|deg)?\s*$/.exec(text.replace(/−/g, '-'));
  if (!match) return null;
  return Number(match[1]) * (channelOf(id).unit === 'share' ? 0.01 : 1);
}

const UNIT_WORDS = { px: 'px', deg: '°', share: '%', number: '' } as const;

/** Refuses texts that are no value of a channel, or one that it cannot draw; the sentence says what it can. */
export function channelCheck(id: ChannelId): (text: string) => string | null {
  const { min, max, unit } = channelOf(id);
  const scale = unit === 'share' ? 100 : 1;
  return numberCheck(min * scale, max * scale, UNIT_WORDS[unit]);
}

/** How a key that is set by hand goes on to the next. */
const HAND_EASE = easingFromStrengths(0.35, 0.35);

/** A track with a key at a time, in the place of one that is there. */
export function withKey(track: readonly Key[], at: Ticks, value: number): Key[] {
  const standing = track.find((key) => key.at === at);
  const key: Key = { at, value, ease: standing?.ease ?? HAND_EASE };
  return [...track.filter((other) => other.at !== at), key].sort((a, b) => a.at - b.at);
}
