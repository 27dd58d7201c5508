import {
  keyBefore,
  perUnit,
  restValue,
  type ChannelId,
  type HandPicks,
  type Layer,
  type Scene,
  type Ticks,
  type Track,
} from '@wexikine/core';
import { withKeys } from './key-rows';

function isKeyThere(keys: Track | undefined, at: Ticks): boolean {
  return keys !== undefined && keys[keyBefore(keys, at)]?.at === at;
}

/** Picks of keys that are still there; the same picks where all are. */
export function stillThere(scene: Scene, picks: HandPicks): HandPicks {
  if (picks.size === 0) return picks;
  const gone: (readonly [layer: string, channel: ChannelId, at: Ticks])[] = [];
  const layers = new Map<string, Layer>();
  for (const layer of scene.layers) if (picks.has(layer.id)) layers.set(layer.id, layer);
  for (const [id, own] of picks) {
    const tracks = layers.get(id)?.tracks;
    for (const [channel, times] of own) {
      for (const at of times) if (!isKeyThere(tracks?.[channel], at)) gone.push([id, channel, at]);
    }
  }
  return gone.length === 0 ? picks : withKeys(picks, gone, true);
}

/** No key of any layer. */
export const NONE_PICKED: ReadonlyMap<string, ReadonlySet<Ticks>> = new Map();

/** Of each layer the times at which keys are picked, whatever their channels. */
export function pickedByLayer(picks: HandPicks): ReadonlyMap<string, ReadonlySet<Ticks>> {
  if (picks.size === 0) return NONE_PICKED;
  return new Map([...picks].map(([id, own]) => [id, new Set([...own.values()].flatMap((times) => [...times]))]));
}

/** Picked keys of layers by their channels, or of runs by their dials. */
type AnyPicks = ReadonlyMap<string, ReadonlyMap<string, ReadonlySet<Ticks>>>;

/** The first and the last time at which a key is picked. */
export function spanOf(picks: AnyPicks): { readonly from: Ticks; readonly to: Ticks } {
  let [from, to] = [Infinity, -Infinity];
  for (const own of picks.values()) {
    for (const times of own.values()) {
      for (const at of times) [from, to] = [Math.min(from, at), Math.max(to, at)];
    }
  }
  return { from, to };
}

/** The first time at which a key is picked. */
export function firstOf(picks: AnyPicks): Ticks {
  return spanOf(picks).from;
}

/** The value that all picked keys have, or that their layers rest at; of several channels, or unlike, "mixed". */
export function valueWords(scene: Scene, picks: HandPicks, of: 'keys' | 'rest' = 'keys'): string {
  const channels = new Set([...picks.values()].flatMap((own) => [...own.keys()]));
  if (channels.size !== 1) return channels.size === 0 ? '' : 'mixed';
  const [channel] = channels;
  const values = scene.layers.flatMap((layer) => {
    const times = picks.get(layer.id)?.get(channel);
    if (!times) return [];
    if (of === 'rest') return [restValue(layer, channel)];
    return (layer.tracks[channel] ?? []).filter(({ at }) => times.has(at)).map(({ value }) => value);
  });
  const [first] = values;
  return first !== undefined && values.every((value) => Math.abs(value - first) < 1e-9)
    ? String(Number((first * perUnit(channel)).toFixed(2)))
    : 'mixed';
}
