import type { Layer } from '../layer';
import { treeProblem, type RunRecord, type Scene } from '../scene';
import type { Edit, EditProblem } from './edit';

/** A scene with edits in it and what undoes them, or why they were refused. */
export type ApplyResult =
  | { readonly ok: true; readonly scene: Scene; readonly inverse: readonly Edit[] }
  | { readonly ok: false; readonly problem: EditProblem };

/** A scene in the middle of a list of edits: what was not touched is still the old scene's. */
interface Draft {
  header: Omit<Scene, 'layers' | 'runs'>;
  layers: Layer[];
  runs: readonly RunRecord[];
  /** Index of each layer by id; null after a change of order until it is needed again. */
  indices: Map<string, number> | null;
  /** Ids of all layers; null until they are asked for. */
  ids: Set<string> | null;
  /** Index of the layer that came, went or was moved last: the next one often lies beside it. */
  near: number;
  treeTouched: boolean;
  /** Layers that are this draft's own, so that they may be changed. */
  readonly owned: WeakSet<Layer>;
}

type Mutable<T> = { -readonly [K in keyof T]: T[K] };

type Step = { readonly inverse: Edit } | { readonly problem: EditProblem };

function refuse(problem: EditProblem): Step {
  return { problem };
}

function indexOfLayer(draft: Draft, id: string): number {
  const { layers, near } = draft;
  // Many that come or go together are found without looking at all of them for each.
  if (!draft.indices) for (const at of [near - 1, near, near + 1]) if (layers[at]?.id === id) return at;
  draft.indices ??= new Map(layers.map((layer, index) => [layer.id, index]));
  return draft.indices.get(id) ?? -1;
}

/** Says that what stood where no longer does, but for the place of the last change. */
function reordered(draft: Draft, near: number): void {
  draft.indices = null;
  draft.near = near;
}

/** The standing values of the fields that an edit is about to set. */
function standing<T extends object>(target: T, fields: Partial<T>): Partial<T> {
  return Object.fromEntries(Object.keys(fields).map((key) => [key, target[key as keyof T]])) as Partial<T>;
}

function insertLayer(draft: Draft, index: number, layer: Layer): Step {
  draft.ids ??= new Set(draft.layers.map(({ id }) => id));
  if (draft.ids.has(layer.id)) return refuse({ code: 'id-taken', id: layer.id });
  if (index > draft.layers.length) {
    return refuse({ code: 'index-out-of-range', index, count: draft.layers.length + 1 });
  }
  draft.layers.splice(index, 0, layer);
  draft.ids.add(layer.id);
  reordered(draft, index);
  draft.treeTouched = true;
  return { inverse: { type: 'remove-layer', layer: layer.id } };
}

function removeLayer(draft: Draft, index: number): Step {
  const [layer] = draft.layers.splice(index, 1);
  draft.ids?.delete(layer.id);
  reordered(draft, index);
  draft.treeTouched = true;
  return { inverse: { type: 'add-layer', index, layer } };
}

function moveLayer(draft: Draft, from: number, to: number): Step {
  if (to >= draft.layers.length) {
    return refuse({ code: 'index-out-of-range', index: to, count: draft.layers.length });
  }
  const [layer] = draft.layers.splice(from, 1);
  draft.layers.splice(to, 0, layer);
  reordered(draft, to);
  return { inverse: { type: 'move-layer', layer: layer.id, index: from } };
}

/** A layer that these edits may change: copied the first time, so that many tracks of one cost one copy. */
function ownLayer(draft: Draft, index: number): Mutable<Layer> {
  const layer = draft.layers[index];
  if (draft.owned.has(layer)) return layer;
  const own: Mutable<Layer> = Object.assign({}, layer);
  own.tracks = Object.assign({}, layer.tracks);
  draft.owned.add(own);
  draft.layers[index] = own;
  return own;
}

function setTrack(draft: Draft, index: number, edit: Extract<Edit, { type: 'set-track' }>): Step {
  const { tracks } = ownLayer(draft, index);
  const before = tracks[edit.channel];
  if (edit.keys === null) delete tracks[edit.channel];
  else tracks[edit.channel] = edit.keys;
  return { inverse: { type: 'set-track', layer: edit.layer, channel: edit.channel, keys: before ?? null } };
}

function setBase(draft: Draft, index: number, edit: Extract<Edit, { type: 'set-base' }>): Step {
  const layer = ownLayer(draft, index);
  const before = layer.base;
  if (edit.base === null) delete layer.base;
  else layer.base = edit.base;
  return { inverse: { type: 'set-base', layer: edit.layer, base: before ?? null } };
}

function setLayer(draft: Draft, index: number, edit: Extract<Edit, { type: 'set-layer' }>): Step {
  const layer = draft.layers[index];
  draft.layers[index] = { ...layer, ...edit.fields };
  if ('parent' in edit.fields || 'kind' in edit.fields) draft.treeTouched = true;
  return { inverse: { ...edit, fields: standing<Layer>(layer, edit.fields) } };
}

function layerStep(draft: Draft, edit: Extract<Edit, { layer: string }>): Step {
  const index = indexOfLayer(draft, edit.layer);
  if (index < 0) return refuse({ code: 'no-such-layer', layer: edit.layer });
  switch (edit.type) {
    case 'remove-layer':
      return removeLayer(draft, index);
    case 'move-layer':
      return moveLayer(draft, index, edit.index);
    case 'set-layer':
      return setLayer(draft, index, edit);
    case 'set-track':
      return setTrack(draft, index, edit);
    case 'set-base':
      return setBase(draft, index, edit);
  }
}

function addRun(draft: Draft, index: number, run: RunRecord): Step {
  if (draft.runs.some(({ id }) => id === run.id)) return refuse({ code: 'id-taken', id: run.id });
  if (index > draft.runs.length) return refuse({ code: 'index-out-of-range', index, count: draft.runs.length + 1 });
  draft.runs = draft.runs.toSpliced(index, 0, run);
  return { inverse: { type: 'remove-run', run: run.id } };
}

function removeRun(draft: Draft, id: string): Step {
  const index = draft.runs.findIndex((run) => run.id === id);
  if (index < 0) return refuse({ code: 'no-such-run', run: id });
  const run = draft.runs[index];
  draft.runs = draft.runs.toSpliced(index, 1);
  return { inverse: { type: 'add-run', index, run } };
}

function setRun(draft: Draft, run: RunRecord): Step {
  const index = draft.runs.findIndex(({ id }) => id === run.id);
  if (index < 0) return refuse({ code: 'no-such-run', run: run.id });
  const before = draft.runs[index];
  draft.runs = draft.runs.with(index, run);
  return { inverse: { type: 'set-run', run: before } };
}

function step(draft: Draft, edit: Edit): Step {
  switch (edit.type) {
    case 'set-scene': {
      const fields = standing(draft.header, edit.fields);
      draft.header = { ...draft.header, ...edit.fields };
      return { inverse: { type: 'set-scene', fields } };
    }
    case 'add-layer':
      return insertLayer(draft, edit.index, edit.layer);
    case 'add-run':
      return addRun(draft, edit.index, edit.run);
    case 'remove-run':
      return removeRun(draft, edit.run);
    case 'set-run':
      return setRun(draft, edit.run);
    default:
      return layerStep(draft, edit);
  }
}

/**
 * Applies a list of edits, all or nothing. The old scene is left as it was and shares with the new one whatever did
 * not change; `inverse` leads back, in the order in which it is to be applied.
 */
export function apply(scene: Scene, edits: readonly Edit[]): ApplyResult {
  const { layers, runs, ...header } = scene;
  const draft: Draft = {
    header,
    layers: [...layers],
    runs,
    indices: null,
    ids: null,
    near: 0,
    treeTouched: false,
    owned: new WeakSet(),
  };
  const inverse: Edit[] = [];
  for (const edit of edits) {
    const result = step(draft, edit);
    if ('problem' in result) return { ok: false, problem: result.problem };
    inverse.push(result.inverse);
  }
  const message = draft.treeTouched ? treeProblem(draft.layers) : null;
  if (message) return { ok: false, problem: { code: 'broken-tree', message } };
  const sameLayers = draft.layers.length === layers.length && draft.layers.every((layer, i) => layer === layers[i]);
  const next = { ...draft.header, layers: sameLayers ? layers : draft.layers, runs: draft.runs as RunRecord[] };
  return { ok: true, scene: next, inverse: inverse.reverse() };
}

/** The edits that undo `edits` on this scene; null when they cannot be applied to it. */
export function invert(scene: Scene, edits: readonly Edit[]): readonly Edit[] | null {
  const result = apply(scene, edits);
  return result.ok ? result.inverse : null;
}
