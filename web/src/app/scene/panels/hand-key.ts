import {
  CHANNELS,
  channelOf,
  easingFromStrengths,
  formatChannelValue,
  restValue,
  sampleTrack,
  type ChannelId,
  type Key,
  type Layer,
  type Ticks,
} from '@wexikine/core';
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

/** Channels of a layer that are shown: those with keys, and others that are wanted, in the order of all channels. */
export function shownChannels({ tracks }: Layer, wanted: readonly ChannelId[]): ChannelId[] {
  return CHANNELS.map(({ id }) => id).filter((id) => tracks[id] !== undefined || wanted.includes(id));
}

function textAt(layer: Layer, id: ChannelId, at: Ticks): string {
  const track = layer.tracks[id];
  // Fields take a hyphen as well as a minus, and are easier to change with one.
  return formatChannelValue(id, track ? sampleTrack(track, at) : restValue(layer, id)).replace('−', '-');
}

/** A channel's value at a time as a field shows it; empty where layers differ. */
export function sharedText(layers: readonly Layer[], id: ChannelId, at: Ticks): string {
  const [first, ...others] = layers.map((layer) => textAt(layer, id, at));
  return first !== undefined && others.every((text) => text === first) ? first : '';
}
