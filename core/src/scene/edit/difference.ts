import type { Layer } from '../layer';
import { HEADER_FIELDS, headerOf, type RunRecord, type Scene, type SceneHeader } from '../scene';

/** What changed from one scene to another that shares structure with it; the unit of saving. */
export interface SceneDifference {
  readonly header: SceneHeader | null;
  readonly layers: readonly Layer[];
  readonly removedLayers: readonly string[];
  /** Ids of all layers from back to front where that order changed, else null. */
  readonly order: readonly string[] | null;
  readonly runs: readonly RunRecord[];
  readonly removedRuns: readonly string[];
  /** Ids of all runs, the first first, where that order is not what adding at the end gives, else null. */
  readonly runOrder: readonly string[] | null;
}

interface Identified {
  readonly id: string;
}

function changedItems<T extends Identified>(before: readonly T[], after: readonly T[]): [T[], string[]] {
  if (before === after) return [[], []];
  const old = new Map(before.map((item) => [item.id, item]));
  const changed = after.filter((item) => old.get(item.id) !== item);
  for (const item of after) old.delete(item.id);
  return [changed, [...old.keys()]];
}

function sameOrder(before: readonly Identified[], after: readonly Identified[]): boolean {
  return before.length === after.length && before.every(({ id }, i) => id === after[i].id);
}

/** True when the runs stand as they did, with new ones at the end. */
function isRunOrderKept(before: readonly Identified[], after: readonly Identified[]): boolean {
  const still = new Set(after.map(({ id }) => id));
  const kept = before.filter(({ id }) => still.has(id));
  return kept.every(({ id }, i) => after[i].id === id);
}

/** Difference by identity, so its cost is that of comparing references, not contents. */
export function difference(before: Scene, after: Scene): SceneDifference {
  const [layers, removedLayers] = changedItems(before.layers, after.layers);
  const [runs, removedRuns] = changedItems(before.runs, after.runs);
  return {
    header: HEADER_FIELDS.some((field) => before[field] !== after[field]) ? headerOf(after) : null,
    layers,
    removedLayers,
    order: sameOrder(before.layers, after.layers) ? null : after.layers.map(({ id }) => id),
    runs,
    removedRuns,
    runOrder: isRunOrderKept(before.runs, after.runs) ? null : after.runs.map(({ id }) => id),
  };
}

/** True when there is nothing to save. */
export function isEmptyDifference(change: SceneDifference): boolean {
  const lists = [change.layers, change.removedLayers, change.runs, change.removedRuns];
  return (
    change.header === null &&
    change.order === null &&
    change.runOrder === null &&
    lists.every((list) => list.length === 0)
  );
}
