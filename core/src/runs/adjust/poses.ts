import type { ChannelId } from '../../basics/channel';
import { easingFromStrengths } from '../../basics/easing';
import type { Ticks } from '../../basics/time';
import { layerEdits, type Edit } from '../../scene/edit';
import { restValue, tracksOf, type Key, type Layer, type Track } from '../../scene/layer';
import { cutSegment, keyBefore } from '../../scene/sample';
import type { Scene } from '../../scene/scene';
import type { HandChange, HandPicks } from './by-hand';

/** How motion goes to a rest pose that is asked for. */
const TO_REST = easingFromStrengths(0.35, 0.35);

/** A track with a key at a time that changes nothing of its motion; more than one where an easing cannot be cut in one. */
export function withKeyAt(keys: Track, at: Ticks): Key[] {
  const place = keyBefore(keys, at);
  const [key, next] = [keys[place], keys[place + 1]];
  if (!key || place < 0 || keys[0].at > at) return [{ at, value: keys[0].value, ease: { type: 'hold' } }, ...keys];
  if (key.at === at) return [...keys];
  if (!next) return [...keys, { at, value: key.value, ease: key.ease }];
  const { before, after } = cutSegment(key, next, at);
  const own = ({ by: _by, ...plain }: Key): Key => plain;
  const [first, ...rest] = before;
  return [
    ...keys.slice(0, place),
    { ...key, ease: first.ease },
    ...[...rest, ...after].map(own),
    ...keys.slice(place + 1),
  ];
}

/** A track with a key of a value at a time, in the place of one that stands there. */
function withValueAt(keys: Track, at: Ticks, value: number, ease: Key['ease']): Key[] {
  const standing = keys.find((key) => key.at === at);
  const key: Key = standing ? { ...standing, value } : { at, value, ease };
  return [...keys.filter((other) => other.at !== at), key].sort((a, b) => a.at - b.at);
}

type Written = Readonly<{ keys: Track; at: readonly Ticks[] }>;

/** Writes keys on the keyed channels of some layers, and picks them. */
function writePoses(
  scene: Scene,
  layers: ReadonlySet<string>,
  write: (keys: Track, layer: Layer, channel: ChannelId) => Written,
): HandChange {
  const edits: Edit[] = [];
  const picks = new Map<string, Map<ChannelId, Set<Ticks>>>();
  for (const layer of scene.layers) {
    if (!layers.has(layer.id) || layer.locked) continue;
    const tracks = { ...layer.tracks };
    const picked = new Map<ChannelId, Set<Ticks>>();
    for (const [channel, keys] of tracksOf(layer)) {
      const written = write(keys, layer, channel);
      tracks[channel] = [...written.keys];
      if (written.at.length > 0) picked.set(channel, new Set(written.at));
    }
    edits.push(...layerEdits(layer, { ...layer, tracks }));
    if (picked.size > 0) picks.set(layer.id, picked);
  }
  return { edits, picks };
}

/** Keys of the layers' keyed channels at a time: as they are there, which changes no motion, or those of the rest pose. */
export function poseAt(scene: Scene, layers: ReadonlySet<string>, at: Ticks, pose: 'as it is' | 'rest'): HandChange {
  return writePoses(scene, layers, (keys, layer, channel) => {
    if (pose === 'as it is') return { keys: withKeyAt(keys, at), at: [at] };
    const ease = keys.findLast((key) => key.at < at)?.ease ?? keys[0].ease;
    return { keys: withValueAt(keys, at, restValue(layer, channel), ease), at: [at] };
  });
}

/** Keys at the layers' in and out points, with the values that they have there. */
export function poseAtEnds(scene: Scene, layers: ReadonlySet<string>): HandChange {
  return writePoses(scene, layers, (keys, { span }) => ({
    keys: withKeyAt(withKeyAt(keys, span.in), span.out),
    at: [span.in, span.out],
  }));
}

/** From the pose at a time to the rest pose so much later; what stood between them goes. */
export function poseToRest(scene: Scene, layers: ReadonlySet<string>, at: Ticks, within: Ticks): HandChange {
  const end = at + within;
  return writePoses(scene, layers, (keys, layer, channel) => {
    const cut = withKeyAt(withKeyAt(keys, at), end);
    const kept = cut.filter((key) => key.at <= at || key.at >= end);
    const from = kept.map((key) => (key.at === at ? { ...key, ease: TO_REST } : key));
    return { keys: withValueAt(from, end, restValue(layer, channel), TO_REST), at: [at, end] };
  });
}

/**
 * The values of picked keys carried to the key after each, so that the pose holds until there, or to the key before,
 * so that it is there already. Keys that are reached are picked then.
 */
export function carryPicks(scene: Scene, picks: HandPicks, to: 'next' | 'previous'): HandChange {
  return writePoses(scene, new Set(picks.keys()), (keys, layer, channel) => {
    const times = picks.get(layer.id)?.get(channel);
    if (!times) return { keys, at: [] };
    const step = to === 'next' ? 1 : -1;
    const reached = new Map<number, number>();
    keys.forEach((key, i) => {
      if (times.has(key.at) && keys[i + step]) reached.set(i + step, key.value);
    });
    return {
      keys: keys.map((key, i) => (reached.has(i) ? { ...key, value: reached.get(i) as number } : key)),
      at: [...reached.keys()].map((i) => keys[i].at),
    };
  });
}
