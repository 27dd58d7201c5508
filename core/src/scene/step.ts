import { channelOf, type ChannelId } from '../channel';
import type { Key } from './key';
import { tracksOf, type Layer } from './layer';
import type { LayerStep, RestStep, TrackStep } from './run-record';

/** True when two values are alike in every part. */
export function isSame(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  const [keysA, keysB] = [Object.keys(a), Object.keys(b)];
  return (
    keysA.length === keysB.length &&
    keysA.every((key) => key in b && isSame((a as Record<string, unknown>)[key], (b as Record<string, unknown>)[key]))
  );
}

function inRegistryOrder(channels: Iterable<ChannelId>): ChannelId[] {
  return [...new Set(channels)].sort((a, b) => channelOf(a).slot - channelOf(b).slot);
}

/** Channels on which either of two layers has keys. */
function channelsOf(before: Layer, after: Layer): ChannelId[] {
  return inRegistryOrder([...tracksOf(before), ...tracksOf(after)].map(([channel]) => channel));
}

function restSteps(before: Layer, after: Layer): RestStep[] {
  if (before.rest === after.rest) return [];
  return inRegistryOrder([...Object.keys(before.rest), ...Object.keys(after.rest)] as ChannelId[])
    .map((channel) => ({ channel, before: before.rest[channel] ?? null, after: after.rest[channel] ?? null }))
    .filter((step) => step.before !== step.after);
}

/** What changed from a layer to what it becomes; shares the layers' lists. `made` holds keys that were joined with standing ones, by channel. */
export function layerStep(before: Layer, after: Layer, made?: ReadonlyMap<ChannelId, readonly Key[]>): LayerStep {
  const tracks = channelsOf(before, after)
    .filter((channel) => !isSame(before.tracks[channel], after.tracks[channel]))
    .map((channel): TrackStep => {
      const own = made?.get(channel);
      const step = { channel, before: before.tracks[channel] ?? [], after: after.tracks[channel] ?? [] };
      return own ? { ...step, made: [...own] } : step;
    });
  const rest = restSteps(before, after);
  const { span } = after;
  const isMoved = before.span.in !== span.in || before.span.out !== span.out;
  return {
    layer: before.id,
    ...(isMoved ? { span: { before: before.span, after: span } } : {}),
    ...(rest.length > 0 ? { rest } : {}),
    tracks,
  };
}

/** True when a step changes nothing. */
export function isEmptyStep({ span, rest, tracks }: LayerStep): boolean {
  return span === undefined && rest === undefined && tracks.length === 0;
}

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
