import { filesOf } from '../../scene/layer';
import type { Scene } from '../../scene/scene';
import type { Finding } from '../finding';

/** Layers whose pictures, fonts or sounds are not among the files that are kept. `kept` holds their names. */
export function findGoneFiles({ layers }: Pick<Scene, 'layers'>, kept: ReadonlySet<string>): Finding[] {
  const gone = layers.filter((layer) => filesOf(layer).some((file) => !kept.has(file)));
  return gone.length > 0 ? [{ code: 'file-gone', layers: gone.map(({ id }) => id) }] : [];
}

/** Layers that are seen through a layer which is no longer there. */
export function findGoneMattes({ layers }: Pick<Scene, 'layers'>): Finding[] {
  const ids = new Set(layers.map(({ id }) => id));
  const gone = layers.filter(({ look: { matte } }) => matte !== undefined && !ids.has(matte.layer));
  return gone.length > 0 ? [{ code: 'matte-gone', layers: gone.map(({ id }) => id) }] : [];
}
