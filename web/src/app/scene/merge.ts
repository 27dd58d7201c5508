import { difference, type Layer, type Scene } from '@wexikine/core';

/** Layers that both sides changed since their common base: names, for the choice that is offered. */
export function changedByBoth(base: Scene, mine: Scene, theirs: Scene): string[] {
  const ours = difference(base, mine);
  const baseText = new Map(base.layers.map((layer) => [layer.id, JSON.stringify(layer)]));
  const theirText = new Map(theirs.layers.map((layer) => [layer.id, JSON.stringify(layer)]));
  return ours.layers
    .filter(({ id }) => baseText.has(id) && theirText.get(id) !== baseText.get(id))
    .map(({ name }) => name);
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
  const theirRuns = theirs.runs.filter(({ id }) => !ours.removedRuns.includes(id));
  const runIds = new Set(theirRuns.map(({ id }) => id));
  return {
    ...theirs,
    ...(ours.header ?? {}),
    layers: withParents([...kept, ...added]),
    runs: [...theirRuns, ...ours.runs.filter(({ id }) => !runIds.has(id))],
  };
}

/** Layers whose group is gone stand on their own. */
function withParents(layers: readonly Layer[]): Layer[] {
  const ids = new Set(layers.map(({ id }) => id));
  return layers.map((layer) => (layer.parent === null || ids.has(layer.parent) ? layer : { ...layer, parent: null }));
}
