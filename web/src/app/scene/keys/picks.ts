import {
  isDialLayer,
  keyBefore,
  keyedDials,
  perDialUnit,
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

/** The first and the last time at which a key is picked. */
export function spanOf(picks: HandPicks): { readonly from: Ticks; readonly to: Ticks } {
  let [from, to] = [Infinity, -Infinity];
  for (const own of picks.values()) {
    for (const times of own.values()) {
      for (const at of times) [from, to] = [Math.min(from, at), Math.max(to, at)];
    }
  }
  return { from, to };
}

/** The first time at which a key is picked. */
export function firstOf(picks: HandPicks): Ticks {
  return spanOf(picks).from;
}

/** How many of what a person types make one in the unit that keys are kept in, of a layer's channel or of a dial. */
export function keyUnit({ runs, rate }: Scene, layer: string | null, channel: ChannelId): number {
  if (layer === null || !isDialLayer(layer)) return perUnit(channel);
  const found = keyedDials(runs).find((one) => one.layer.id === layer);
  return found ? perDialUnit(found.dial, rate) : 1;
}

/**
 * The value that all picked keys have, or that their layers rest at; of several channels or dials, or unlike, "mixed". The
 * scene has a layer for each dial with keys.
 */
export function valueWords(scene: Scene, picks: HandPicks, of: 'keys' | 'rest' = 'keys'): string {
  const sources = new Set(
    [...picks].flatMap(([id, own]) => [...own.keys()].map((channel) => (isDialLayer(id) ? id : channel))),
  );
  if (sources.size !== 1) return sources.size === 0 ? '' : 'mixed';
  const values = scene.layers.flatMap((layer) =>
    [...(picks.get(layer.id) ?? [])].flatMap(([channel, times]) => {
      const per = keyUnit(scene, layer.id, channel);
      if (of === 'rest') return [restValue(layer, channel) * per];
      return (layer.tracks[channel] ?? []).filter(({ at }) => times.has(at)).map(({ value }) => value * per);
    }),
  );
  const [first] = values;
  return first !== undefined && values.every((value) => Math.abs(value - first) < 1e-9)
    ? String(Number(first.toFixed(2)))
    : 'mixed';
}
