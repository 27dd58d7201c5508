import type { ChannelId, DryRun, Key, Layer, LayerPlan, LayerValues, RunHead, RunRecord, Scene } from '@wexikine/core';

/** What becomes different on a layer; a channel that is null has no keys any more. */
export interface LayerChange {
  readonly layer: string;
  /** Null where it stays as it is. */
  readonly span: Layer['span'] | null;
  readonly rest: Layer['rest'] | null;
  readonly look: Layer['look'] | null;
  readonly data: Layer['data'] | null;
  readonly tracks: Readonly<Partial<Record<ChannelId, readonly Key[] | null>>>;
}

/**
 * A dry run as the page shows it. It holds what changes and not whole layers, since the page has those: handing a
 * thousand layers from thread to thread would take longer than planning them.
 */
export interface PlannedRun extends Omit<DryRun, 'layers'> {
  readonly layers: readonly LayerValues[];
  readonly changes: readonly LayerChange[];
  /** False where applying it would change nothing. */
  readonly hasEdits: boolean;
}

/** What becomes different from one layer to the other, told by what they do not share. */
export function changeOf(before: Layer, after: Layer): LayerChange {
  const tracks: Partial<Record<ChannelId, readonly Key[] | null>> = {};
  for (const channel in after.tracks) {
    const id = channel as ChannelId;
    if (after.tracks[id] !== before.tracks[id]) tracks[id] = after.tracks[id] ?? null;
  }
  for (const channel in before.tracks) {
    if (after.tracks[channel as ChannelId] === undefined) tracks[channel as ChannelId] = null;
  }
  return {
    layer: before.id,
    span: before.span === after.span ? null : after.span,
    rest: before.rest === after.rest ? null : after.rest,
    look: before.look === after.look ? null : after.look,
    data: before.data === after.data ? null : after.data,
    tracks,
  };
}

/** The layers of a scene that another one has otherwise, as what becomes different on them. */
export function changesBetween(before: Scene, after: readonly Layer[]): LayerChange[] {
  const standing = new Map(before.layers.map((layer) => [layer.id, layer]));
  return after.flatMap((layer) => {
    const old = standing.get(layer.id);
    return old && old !== layer ? [changeOf(old, layer)] : [];
  });
}

function changed(layer: Layer, { span, rest, look, data, tracks }: LayerChange): Layer {
  const next: Partial<Record<ChannelId, readonly Key[]>> = Object.assign({}, layer.tracks);
  for (const channel in tracks) {
    const id = channel as ChannelId;
    const keys = tracks[id];
    if (keys) next[id] = keys;
    else delete next[id];
  }
  return Object.assign({}, layer, {
    span: span ?? layer.span,
    rest: rest ?? layer.rest,
    look: look ?? layer.look,
    data: data ?? layer.data,
    tracks: next,
  });
}

/** The runs of a scene with a dry run among them that rigs, or takes the place of rigs; others make keys, which are drawn. */
function withRig({ runs }: Scene, head: RunHead | null): Scene['runs'] {
  if (!head || (!head.rig && head.recipe.operation !== 'turn-into-keys')) return runs;
  const run: RunRecord = { ...head, sentence: '', made: {} };
  const index = runs.findIndex(({ id }) => id === run.id);
  return index < 0 ? [...runs, run] : runs.with(index, { ...runs[index], ...run });
}

/** Layers that come and go, where there are any. */
type Coming = Pick<DryRun, 'added' | 'removed'>;

/** Layers that come and go, without saying so where there are none. */
export function coming({
  added = [],
  removed = [],
}: { readonly [Part in keyof Coming]: Coming[Part] | undefined }): Coming {
  return { ...(added.length > 0 ? { added } : {}), ...(removed.length > 0 ? { removed } : {}) };
}

/** Layers that another scene has and this one has not, and the other way round. */
export function comingBetween(before: Scene, after: Scene): Coming {
  if (before.layers === after.layers) return {};
  const [old, now] = [before, after].map(({ layers }) => new Map(layers.map((layer) => [layer.id, layer])));
  // One that is there again as another one goes and comes.
  const isOther = (id: string): boolean => old.get(id)?.copy?.of !== now.get(id)?.copy?.of;
  return coming({
    added: after.layers.filter(({ id }) => !old.has(id) || isOther(id)),
    removed: before.layers.filter(({ id }) => !now.has(id) || isOther(id)).map(({ id }) => id),
  });
}

/** What is drawn of a dry run. */
export type DrawnRun = Pick<PlannedRun, 'changes'> & Partial<Pick<PlannedRun, 'run'>> & Coming;

/** A scene with a dry run in it; shares what does not change. */
export function drawRun(standing: Scene, { changes, run = null, added = [], removed = [] }: DrawnRun): Scene {
  const runs = withRig(standing, run);
  const scene = runs === standing.runs ? standing : { ...standing, runs };
  if (changes.length === 0 && added.length === 0 && removed.length === 0) return scene;
  const byLayer = new Map(changes.map((change) => [change.layer, change]));
  const layers = scene.layers.map((layer) => {
    const change = byLayer.get(layer.id);
    return change ? changed(layer, change) : layer;
  });
  if (added.length === 0 && removed.length === 0) return { ...scene, layers };
  const gone = new Set(removed);
  return { ...scene, layers: [...layers.filter(({ id }) => !gone.has(id)), ...added] };
}

/** What a run gives to a layer, without the layer. */
export function valuesOf({ layer, place, starts, lasts, moments, values }: LayerPlan): LayerValues {
  return { layer, place, starts, lasts, moments, values };
}
