import type { Layer, Pick } from '../../scene/layer';
import type { Scene } from '../../scene/scene';
import type { Finding } from '../finding';
import { pickLayers, termsOf } from './pick';

/** Why a layer stays out of every run; null where it can take part. A locked or hidden group holds for all in it. */
export type StaysOut = 'guides' | 'sounds' | 'locked' | 'hidden' | null;

const reasonsOfScenes = new WeakMap<Scene, ReadonlyMap<string, StaysOut>>();

/** Whether each layer of a scene can take part in runs, by id; looked up once for each scene. */
export function stayingOut(scene: Scene): ReadonlyMap<string, StaysOut> {
  const known = reasonsOfScenes.get(scene) ?? reasonsIn(scene);
  reasonsOfScenes.set(scene, known);
  return known;
}

function reasonsIn(scene: Scene): ReadonlyMap<string, StaysOut> {
  const layers = new Map(scene.layers.map((layer) => [layer.id, layer]));
  const known = new Map<string, StaysOut>();
  const reasonOf = (layer: Layer): StaysOut => {
    const before = known.get(layer.id);
    if (before !== undefined) return before;
    const parent = layer.parent === null ? undefined : layers.get(layer.parent);
    const own = ownReason(layer);
    const reason = own ?? (parent ? reasonOf(parent) : null);
    known.set(layer.id, reason);
    return reason;
  };
  for (const layer of scene.layers) reasonOf(layer);
  return known;
}

function ownReason({ kind, locked, hidden }: Layer): StaysOut {
  if (kind === 'guide') return 'guides';
  if (kind === 'sound') return 'sounds';
  return locked ? 'locked' : hidden ? 'hidden' : null;
}

/** Layers that the pick names and that are no longer there. */
function vanished(scene: Scene, pick: Pick): string[] {
  const named = termsOf(pick).flatMap((term) => (term.by === 'layers' ? term.layers : []));
  if (named.length === 0) return [];
  const ids = new Set(scene.layers.map(({ id }) => id));
  return named.filter((id) => !ids.has(id));
}

function unknownPick(scene: Scene, pick: Pick): Finding[] {
  const known = new Set(scene.picks?.map(({ id }) => id));
  return termsOf(pick).some((term) => term.by === 'saved' && !known.has(term.pick)) ? [{ code: 'unknown-pick' }] : [];
}

const NOBODY: readonly string[] = [];

/** Indices of picked layers that take part, from back to front, and findings about those that do not. */
export function takePart(scene: Scene, pick: Pick): { readonly indices: number[]; readonly findings: Finding[] } {
  const reasons = stayingOut(scene);
  const picked = pickLayers(scene, pick);
  const idsFor = (reason: StaysOut): string[] =>
    picked.flatMap((index) => (reasons.get(scene.layers[index].id) === reason ? [scene.layers[index].id] : NOBODY));
  const indices = picked.filter((index) => reasons.get(scene.layers[index].id) === null);
  const groups = [
    { code: 'guides', layers: idsFor('guides') },
    { code: 'locked', layers: idsFor('locked') },
    { code: 'hidden', layers: idsFor('hidden') },
    { code: 'vanished', layers: vanished(scene, pick) },
  ] as const;
  const findings: Finding[] = [...unknownPick(scene, pick), ...groups.filter(({ layers }) => layers.length > 0)];
  return { indices, findings: indices.length > 0 ? findings : [{ code: 'nothing-picked' }, ...findings] };
}
