import { linkOf } from '../../basics/easing';
import { tracksOf, type Layer } from './layer';

/** A revision of a library item. */
export interface ItemRevision {
  readonly id: string;
  readonly revision: number;
}

/** The curves of the library that a layer's keys are linked to, each revision once. */
export function curvesOf(layer: Pick<Layer, 'tracks'>): ItemRevision[] {
  const found = new Map<string, ItemRevision>();
  for (const [, keys] of tracksOf(layer)) {
    for (const { ease } of keys) {
      const link = linkOf(ease);
      if (link) found.set(`${link.id} ${link.revision}`, { id: link.id, revision: link.revision });
    }
  }
  return [...found.values()];
}
