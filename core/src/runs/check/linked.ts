import { linkedEasing, linkOf } from '../../basics/easing';
import type { Ticks } from '../../basics/time';
import type { Shelf } from '../../library/library';
import { layerEdits, type Edit } from '../../scene/edit';
import { tracksOf, type Layer } from '../../scene/layer';
import type { Scene } from '../../scene/scene';
import type { Finding } from '../finding';

type Waiting = Extract<Finding, { code: 'curve-waiting' }>;

/** Curves of the library that were put on keys and have a newer revision since. */
export function findStaleCurves({ layers }: Scene, shelf: Shelf): Finding[] {
  const found = new Map<string, { name: string; keys: number; layers: Set<string>; at: Ticks }>();
  for (const layer of layers) {
    for (const [, keys] of tracksOf(layer)) {
      for (const { at, ease } of keys) {
        const link = linkOf(ease);
        if (!link || (shelf.curve(link.id)?.revision ?? 0) <= link.revision) continue;
        const before = found.get(link.id) ?? { name: link.name, keys: 0, layers: new Set(), at };
        before.layers.add(layer.id);
        found.set(link.id, { ...before, keys: before.keys + 1, at: Math.min(before.at, at) });
      }
    }
  }
  return [...found].flatMap(([curve, { name, keys, layers: on, at }]): Waiting[] => {
    const newest = shelf.curve(curve);
    if (!newest) return [];
    return [
      { code: 'curve-waiting', curve, name, to: newest.revision, easing: newest.easing, keys, layers: [...on], at },
    ];
  });
}

/** Puts the newest revision of a curve on all keys that have an older one, each forwards or backwards as it was. */
export function renewCurve(scene: Scene, { curve, layers, to, easing }: Waiting): Edit[] {
  const wanted = new Set(layers);
  return scene.layers
    .filter(({ id }) => wanted.has(id))
    .flatMap((layer) => {
      const tracks: Layer['tracks'] = Object.fromEntries(
        tracksOf(layer).map(([channel, keys]) => [
          channel,
          keys.map((key) => {
            const link = linkOf(key.ease);
            return link?.id === curve ? { ...key, ease: linkedEasing(easing, { ...link, revision: to }) } : key;
          }),
        ]),
      );
      return layerEdits(layer, { ...layer, tracks });
    });
}
