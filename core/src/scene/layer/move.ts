import type { ChannelId } from '../../basics/channel';
import type { Key } from './key';
import { tracksOf, type Layer } from './layer';

/** Tracks with the keys of one channel set; none takes the channel away. */
export function withKeys(tracks: Layer['tracks'], channel: ChannelId, keys: readonly Key[]): Layer['tracks'] {
  const { [channel]: _before, ...others } = tracks;
  return keys.length === 0 ? others : { ...others, [channel]: [...keys] };
}

/** A layer moved in time with all its keys. */
export function shiftLayer(layer: Layer, by: number): Layer {
  if (by === 0) return layer;
  const tracks = Object.fromEntries(
    tracksOf(layer).map(([channel, keys]) => [channel, keys.map((key) => ({ ...key, at: key.at + by }))]),
  );
  return { ...layer, span: { in: layer.span.in + by, out: layer.span.out + by }, tracks };
}
