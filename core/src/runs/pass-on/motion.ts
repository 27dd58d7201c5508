import { channelOf, clampToChannel, type ChannelId } from '../../basics/channel';
import { scaledEasing } from '../../basics/easing';
import type { Ticks } from '../../basics/time';
import { restValue, tracksOf, type Key, type Layer } from '../../scene/layer';
import type { PassOnRecipe } from '../../scene/recipe';
import { nameOf } from '../run';

/** Channels whose values are shares of what a layer has at rest. */
function isFactor(channel: ChannelId): boolean {
  const { family } = channelOf(channel);
  return family === 'scale' || family === 'opacity';
}

/** How values of a channel come over: v · factor + by. */
function carriedOver(
  channel: ChannelId,
  source: Layer,
  target: Layer,
  values: PassOnRecipe['values'],
): { readonly factor: number; readonly by: number } {
  if (values === 'as-is') return { factor: 1, by: 0 };
  const [from, to] = [restValue(source, channel), restValue(target, channel)];
  // Of what rests at 0 nothing is a share.
  return isFactor(channel) && from !== 0 ? { factor: to / from, by: 0 } : { factor: 1, by: to - from };
}

/** The keys that a target gets on each channel that the source has keys on. A key's slot goes by the key that it is a copy of. */
export function passedTracks(
  source: Layer,
  target: Layer,
  { values, run, start }: { readonly values: PassOnRecipe['values']; readonly run: string; readonly start: Ticks },
): [ChannelId, Key[]][] {
  return tracksOf(source).map(([channel, keys]) => {
    const { factor, by } = carriedOver(channel, source, target, values);
    const passed = keys.map((key): Key => ({
      at: key.at - source.span.in + start,
      value: clampToChannel(channel, key.value * factor + by),
      ease: factor === 1 ? key.ease : scaledEasing(key.ease, factor),
      by: { run, slot: `${channel}/${nameOf(key)}`.slice(0, 400) },
    }));
    return [channel, passed];
  });
}
