import type { ChannelId } from '../../basics/channel';
import { fitSegments, sampleTrack } from '../../scene/sample';
import { restValue, type Key, type Layer, type Track } from '../../scene/layer';
import type { Ticks } from '../../basics/time';

type Anchor = 'anchor.x' | 'anchor.y';

/** Channels that turn or stretch the way from the old anchor to the new one. */
const BENDING: readonly ChannelId[] = ['rotation', 'skew', 'scale.x', 'scale.y', 'size.x', 'size.y'];
const RADIANS = Math.PI / 180;
/** Pixels by which the picture may be off between two keys where its turning is keyed. */
const TOLERANCE = 0.02;

function shifted(track: Track, by: number): Key[] {
  return track.map((key) => ({ ...key, value: key.value + by }));
}

/** How far the anchor moves on screen (in the parent's pixels) at a time, when it moves by a share of the box. */
function wayOf(layer: Layer, x: number, y: number): (at: Ticks) => readonly [number, number] {
  const value = (id: ChannelId, at: Ticks): number => {
    const track = layer.tracks[id];
    return track ? sampleTrack(track, at) : restValue(layer, id);
  };
  return (at) => {
    const across = x * value('size.x', at) * value('scale.x', at);
    const down = y * value('size.y', at) * value('scale.y', at);
    const slanted = across + Math.tan(value('skew', at) * RADIANS) * down;
    const turn = value('rotation', at) * RADIANS;
    return [slanted * Math.cos(turn) - down * Math.sin(turn), slanted * Math.sin(turn) + down * Math.cos(turn)];
  };
}

/** Keys of a position whose way bends between keys, fitted within the tolerance. */
function bentTrack(
  standing: Track | undefined,
  rest: number,
  by: (at: Ticks) => number,
  stops: readonly Ticks[],
): Key[] {
  const value = (at: Ticks): number => (standing ? sampleTrack(standing, at) : rest) + by(at);
  const speed = (at: Ticks): number => (value(at + 1_000) - value(at - 1_000)) / 2_000;
  const keys = stops
    .slice(1)
    .flatMap((to, i) => fitSegments({ value, speed, tolerance: TOLERANCE }, stops[i], to).map(({ key }) => key));
  const origins = new Map(standing?.map(({ at, by: origin }) => [at, origin]));
  const last = stops[stops.length - 1];
  return [...keys, { at: last, value: value(last), ease: { type: 'linear' } } as Key].map((key) => {
    const origin = origins.get(key.at);
    return origin ? { ...key, by: origin } : key;
  });
}

/**
 * A layer with another anchor (a share of its box) whose picture stays where it is, keyed or not: its position takes up
 * the difference, exactly where nothing turns or stretches it in time, else by keys that are off by 0.02 px at most
 * wherever its motion is continuous. A keyed anchor is moved with all its keys.
 */
export function withAnchor(layer: Layer, channel: Anchor, value: number): Layer {
  const change = value - restValue(layer, channel);
  const way = channel === 'anchor.x' ? wayOf(layer, change, 0) : wayOf(layer, 0, change);
  const bending = BENDING.flatMap((id) => layer.tracks[id] ?? []);
  const tracks: Layer['tracks'] = { ...layer.tracks };
  const anchor = layer.tracks[channel];
  if (anchor) tracks[channel] = shifted(anchor, change);
  // At rest nothing is keyed: the rest pose takes up what the rest values say.
  const atRest = (
    channel === 'anchor.x' ? wayOf({ ...layer, tracks: {} }, change, 0) : wayOf({ ...layer, tracks: {} }, 0, change)
  )(0);
  const rest: Layer['rest'] = { ...layer.rest, [channel]: value };
  (['position.x', 'position.y'] as const).forEach((id, i) => {
    const standing = layer.tracks[id];
    rest[id] = restValue(layer, id) + atRest[i];
    if (bending.length === 0) {
      if (standing) tracks[id] = shifted(standing, atRest[i]);
      return;
    }
    const stops = [...new Set([...bending, ...(standing ?? [])].map(({ at }) => at))].sort((a, b) => a - b);
    tracks[id] = bentTrack(standing, restValue(layer, id), (at) => way(at)[i], stops);
  });
  return { ...layer, rest, tracks };
}
