import { difference, HEADER_FIELDS, isSame, type Layer, type Scene } from '@wexikine/core';

/** Layers that both sides changed since their common base: names, for the choice that is offered. */
export function changedByBoth(base: Scene, mine: Scene, theirs: Scene): string[] {
  const ours = difference(base, mine);
  const before = new Map(base.layers.map((layer) => [layer.id, layer]));
  const now = new Map(theirs.layers.map((layer) => [layer.id, layer]));
  return ours.layers.filter(({ id }) => before.has(id) && !isSame(now.get(id), before.get(id))).map(({ name }) => name);
}

/** Ids of the layers that differ from one scene to another by more than who holds them. */
export function changedLayers(before: Scene, after: Scene): Set<string> {
  const old = new Map(before.layers.map((layer) => [layer.id, layer]));
  const changed = new Set(after.layers.filter((layer) => !isSame(old.get(layer.id), layer)).map(({ id }) => id));
  const still = new Set(after.layers.map(({ id }) => id));
  for (const { id } of before.layers) if (!still.has(id)) changed.add(id);
  return changed;
}

/**
 * Puts my changes since the base over their scene: what I touched is as I have it, everything else as they have it.
 * Layers that they removed and I changed come back.
 */
export function putMineOver(base: Scene, mine: Scene, theirs: Scene): Scene {
  const ours = difference(base, mine);
  const changed = new Map<string, Layer>(ours.layers.map((layer) => [layer.id, layer]));
  const removed = new Set(ours.removedLayers);
  const kept = theirs.layers.filter(({ id }) => !removed.has(id)).map((layer) => changed.get(layer.id) ?? layer);
  const present = new Set(kept.map(({ id }) => id));
  const added = mine.layers.filter(({ id }) => changed.has(id) && !present.has(id));
  const myRuns = new Map(ours.runs.map((run) => [run.id, run]));
  const theirRuns = theirs.runs
    .filter(({ id }) => !ours.removedRuns.includes(id))
    .map((run) => myRuns.get(run.id) ?? run);
  const runIds = new Set(theirRuns.map(({ id }) => id));
  return {
    ...theirs,
    ...changedFields(base, mine),
    layers: withParents([...kept, ...added]),
    runs: [...theirRuns, ...ours.runs.filter(({ id }) => !runIds.has(id))],
  };
}

/** What I changed of the scene's own fields. */
function changedFields(base: Scene, mine: Scene): Partial<Scene> {
  const changed = HEADER_FIELDS.filter((field) => base[field] !== mine[field]);
  return Object.fromEntries(changed.map((field) => [field, mine[field]])) as Partial<Scene>;
}

/** Layers whose group is gone stand on their own. */
function withParents(layers: readonly Layer[]): Layer[] {
  const ids = new Set(layers.map(({ id }) => id));
  return layers.map((layer) => (layer.parent === null || ids.has(layer.parent) ? layer : { ...layer, parent: null }));
}
