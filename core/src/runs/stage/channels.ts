import type { ChannelId } from '../../basics/channel';
import { clampToChannel } from '../../basics/channel';
import type { Ticks } from '../../basics/time';
import { restValue, type Key, type Layer } from '../../scene/layer';
import { sampleTrack } from '../../scene/sample';
import { HAND_EASE, withKeyAt } from '../adjust';

/** What a drag sets: the rest pose alone, the rest pose with all keys, or a key at the playhead. */
export const DRAG_SETS = ['rest', 'along', 'key'] as const;
/** What a drag sets. */
export type DragSets = (typeof DRAG_SETS)[number];

/** How channels of a layer change: each value to another one. */
export type ChannelChanges = Readonly<Partial<Record<ChannelId, (value: number) => number>>>;

function keyed(layer: Layer, channel: ChannelId, at: Ticks, change: (value: number) => number): Key[] {
  const keys = layer.tracks[channel];
  const now = keys ? sampleTrack(keys, at) : restValue(layer, channel);
  const value = clampToChannel(channel, change(now));
  const cut: Key[] = keys ? withKeyAt(keys, at) : [{ at, value: now, ease: HAND_EASE }];
  return cut.map((key) => (key.at === at ? { ...key, value } : key));
}

/** A layer with its channels changed in one of the three ways. */
export function changeChannels(layer: Layer, changes: ChannelChanges, sets: DragSets, at: Ticks): Layer {
  const rest = { ...layer.rest };
  const tracks = { ...layer.tracks };
  for (const [name, change] of Object.entries(changes)) {
    const channel = name as ChannelId;
    const keys = layer.tracks[channel];
    if (sets === 'key') {
      tracks[channel] = keyed(layer, channel, at, change);
      continue;
    }
    rest[channel] = clampToChannel(channel, change(restValue(layer, channel)));
    if (sets === 'along' && keys) tracks[channel] = keys.map((key) => ({ ...key, value: change(key.value) }));
  }
  return { ...layer, rest, tracks };
}
