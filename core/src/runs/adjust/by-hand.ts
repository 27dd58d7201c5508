import type { ChannelId } from '../../basics/channel';
import { restValue, tracksOf, type Key, type Layer } from '../../scene/layer';
import { layerEdits, type Edit } from '../../scene/edit';
import type { Scene } from '../../scene/scene';
import { easingFromStrengths } from '../../basics/easing';
import { sampleTrack } from '../../scene/sample';
import type { Finding } from '../finding';
import type { AdjustStep, KeyRule } from '../../scene/recipe';
import type { Ticks } from '../../basics/time';
import { createKeyTest, phasesOf, pickKeys, settled, type Entries, type Entry } from './picked';
import { withKeyAt } from './poses';
import { doStep } from './steps';

/** Keys picked by hand: by layer and channel, the times of its picked keys. */
export type HandPicks = ReadonlyMap<string, ReadonlyMap<ChannelId, ReadonlySet<Ticks>>>;

/** How a key that is set by hand goes on to the next. */
export const HAND_EASE = easingFromStrengths(0.35, 0.35);

/** How many keys are picked by hand. */
export function countPicks(picks: HandPicks): number {
  let count = 0;
  for (const channels of picks.values()) for (const times of channels.values()) count += times.size;
  return count;
}

function entriesOf(layer: Layer, picks: ReadonlyMap<ChannelId, ReadonlySet<Ticks>>): Entries {
  return new Map(
    tracksOf(layer).map(([channel, keys]) => {
      const times = picks.get(channel);
      return [channel, keys.map((key): Entry => ({ key, isPicked: times?.has(key.at) ?? false }))];
    }),
  );
}

/** What steps write anew by hand belongs to no run. */
const BY_HAND = 'by-hand';

function ownKey(key: Key): Key {
  if (key.by?.run !== BY_HAND) return key;
  const { by: _by, ...own } = key;
  return own;
}

/** What became of picked keys: the edits, and the same keys picked where they now are. */
export interface HandChange {
  readonly edits: readonly Edit[];
  readonly picks: HandPicks;
}

/** Puts picked keys of layers that are not locked through a change. */
export function changeOf(
  scene: Scene,
  picks: HandPicks,
  change: (entries: Entries, layer: Layer) => Entries,
): HandChange {
  const edits: Edit[] = [];
  const now = new Map<string, Map<ChannelId, Set<Ticks>>>();
  for (const layer of scene.layers) {
    const own = picks.get(layer.id);
    if (!own || layer.locked) continue;
    const changed = settled(change(entriesOf(layer, own), layer));
    const tracks: Layer['tracks'] = {};
    const picked = new Map<ChannelId, Set<Ticks>>();
    for (const [channel, list] of changed) {
      if (list.length > 0) tracks[channel] = list.map(({ key }) => ownKey(key));
      const times = list.filter(({ isPicked }) => isPicked).map(({ key }) => key.at);
      if (times.length > 0) picked.set(channel, new Set(times));
    }
    edits.push(...layerEdits(layer, { ...layer, tracks }));
    if (picked.size > 0) now.set(layer.id, picked);
  }
  return { edits, picks: now };
}

/** Does a step on keys that were picked by hand. `number` gives the step's numbers, times in seconds. */
export function stepByHand(
  scene: Scene,
  picks: HandPicks,
  step: AdjustStep,
  number: (name: string) => number,
): HandChange {
  return changeOf(scene, picks, (entries, layer) =>
    doStep(entries, step, {
      layer: {
        id: layer.id,
        span: layer.span,
        rate: scene.rate,
        seed: 1,
        number,
        cues: scene.cues.map(({ at }) => at),
        at: null,
        phaseOf: phasesOf(scene.runs),
      },
      rest: (channel) => restValue(layer, channel),
      mark: (channel, at, nth) => ({ run: BY_HAND, slot: `${channel}/${nth}-${at}` }),
      start: null,
    }),
  );
}

/** Picks keys by a rule, on some layers; what is wrong with its times is told. Locked layers are left out. */
export function pickByRule(
  scene: Scene,
  rule: KeyRule,
  layers: ReadonlySet<string>,
): { readonly picks: HandPicks; readonly problems: readonly Finding[] } {
  const { test, problems } = createKeyTest(rule, scene);
  const picks = new Map<string, Map<ChannelId, Set<Ticks>>>();
  for (const layer of scene.layers) {
    if (!layers.has(layer.id) || layer.locked) continue;
    const own = new Map<ChannelId, Set<Ticks>>();
    for (const [channel, list] of pickKeys(layer, rule, test)) {
      const times = list.filter(({ isPicked }) => isPicked).map(({ key }) => key.at);
      if (times.length > 0) own.set(channel, new Set(times));
    }
    if (own.size > 0) picks.set(layer.id, own);
  }
  return { picks, problems };
}

/** Changes the rest pose of layers on the channels of their picked keys; the keys stay as they are. */
export function setRests(
  scene: Scene,
  picks: HandPicks,
  valueOf: (value: number, channel: ChannelId) => number,
): HandChange {
  const edits = scene.layers.flatMap((layer) => {
    const own = picks.get(layer.id);
    if (!own || layer.locked) return [];
    const rest = { ...layer.rest };
    for (const channel of own.keys()) rest[channel] = valueOf(restValue(layer, channel), channel);
    return layerEdits(layer, { ...layer, rest });
  });
  return { edits, picks };
}

/** Keys of a channel at a time on some layers, from the values that they have there; every one that is asked for gets its key. */
export function keyAt(
  scene: Scene,
  layers: ReadonlySet<string>,
  channel: ChannelId,
  at: Ticks,
  valueOf: (value: number) => number,
): HandChange {
  const edits: Edit[] = [];
  const picks = new Map<string, Map<ChannelId, Set<Ticks>>>();
  for (const layer of scene.layers) {
    if (!layers.has(layer.id) || layer.locked) continue;
    const keys = layer.tracks[channel];
    const now = keys ? sampleTrack(keys, at) : restValue(layer, channel);
    const cut = keys ? withKeyAt(keys, at) : [{ at, value: now, ease: HAND_EASE }];
    const set = cut.map((key) => (key.at === at ? { ...key, value: valueOf(now) } : key));
    edits.push(...layerEdits(layer, { ...layer, tracks: { ...layer.tracks, [channel]: set } }));
    picks.set(layer.id, new Map([[channel, new Set([at])]]));
  }
  return { edits, picks };
}

/** Moves picked keys by so many ticks. */
export function movePicks(scene: Scene, picks: HandPicks, by: Ticks): HandChange {
  return changeOf(scene, picks, (entries) => mapPickedKeys(entries, (key) => ({ ...key, at: key.at + by })));
}

/** Sets the values of picked keys. */
export function setPickedValues(
  scene: Scene,
  picks: HandPicks,
  valueOf: (value: number, channel: ChannelId, layer: Layer) => number,
): HandChange {
  return changeOf(scene, picks, (entries, layer) =>
    mapPickedKeys(entries, (key, channel) => ({ ...key, value: valueOf(key.value, channel, layer) })),
  );
}

function mapPickedKeys(entries: Entries, change: (key: Key, channel: ChannelId) => Key): Entries {
  return new Map(
    [...entries].map(([channel, list]) => [
      channel,
      list.map((entry) => (entry.isPicked ? { ...entry, key: change(entry.key, channel) } : entry)),
    ]),
  );
}

/** Takes picked keys away. */
export function removePicks(scene: Scene, picks: HandPicks): HandChange {
  return changeOf(
    scene,
    picks,
    (entries) => new Map([...entries].map(([channel, list]) => [channel, list.filter(({ isPicked }) => !isPicked)])),
  );
}
