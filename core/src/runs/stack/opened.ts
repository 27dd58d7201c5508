import type { Layer } from '../../scene/layer';
import type { RunRecord, Scene } from '../../scene/scene';
import { createFolding, entriesOn, unnamed } from './fold';
import { unfold, type Unfolded } from './unfold';

/** A scene with the layers of some runs taken apart. */
export interface Opened {
  readonly scene: Scene;
  /** Index of the first of those runs. */
  readonly from: number;
  readonly layers: ReadonlyMap<string, Unfolded>;
}

const openedBefore = new WeakMap<Scene, Map<number, Opened>>();

/**
 * Takes the layers apart that the runs from an index on are on. The same scene is taken apart once: a run is planned
 * again and again while a number is dragged.
 */
export function openRuns(scene: Scene, from: number): Opened {
  const known = openedBefore.get(scene) ?? new Map<number, Opened>();
  openedBefore.set(scene, known);
  const opened = known.get(from) ?? openScene(scene, from);
  known.clear();
  known.set(from, opened);
  return opened;
}

/** Takes the layers apart that the runs from an index on, or a list of others, are on. */
export function openScene(scene: Scene, from: number, others: readonly string[] = []): Opened {
  const folding = createFolding(scene, scene.runs);
  const wanted = new Set([...others, ...scene.runs.slice(from).flatMap(({ layers }) => layers)]);
  const layers = new Map<string, Unfolded>();
  for (const layer of scene.layers) {
    if (wanted.has(layer.id)) layers.set(layer.id, unfold(layer, entriesOn(scene.runs, layer.id), folding));
  }
  return { scene, from, layers };
}

/** A layer as it is under the run at an index of its scene. */
export function stateUnder({ base, levels }: Unfolded, isUnder: (run: RunRecord) => boolean): Layer {
  return levels.findLast(({ entry }) => isUnder(entry.run))?.after ?? base;
}

/** The scene as it is under the first of the opened runs. */
export function sceneUnder({ scene, from, layers }: Opened): Scene {
  const under = new Set(scene.runs.slice(0, from).map(({ id }) => id));
  const isUnder = ({ id }: RunRecord): boolean => under.has(id);
  return {
    ...scene,
    layers: scene.layers.map((layer) => {
      const opened = layers.get(layer.id);
      return opened ? unnamed(stateUnder(opened, isUnder)) : layer;
    }),
    runs: scene.runs.slice(0, from),
  };
}

/** Gives layers as a run of the scene found them; those that it is not on as they stand. */
export function layersUnder(scene: Scene, run: string): (layer: Layer) => Layer {
  const index = scene.runs.findIndex(({ id }) => id === run);
  if (index < 0) return (layer) => layer;
  const folding = createFolding(scene, scene.runs);
  const under = new Set(scene.runs.slice(0, index).map(({ id }) => id));
  const known = new Set(scene.runs[index].layers);
  return (layer) => {
    if (!known.has(layer.id)) return layer;
    return unnamed(stateUnder(unfold(layer, entriesOn(scene.runs, layer.id), folding), ({ id }) => under.has(id)));
  };
}
