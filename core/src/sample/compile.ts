import { CHANNEL_COUNT, channelOf } from '../channel';
import { asBezier, createProgress, type Easing } from '../easing';
import { restValues, tracksOf, type Layer, type Scene, type Track } from '../scene';
import { controlTimes, controlValues, createTimeCurve, SegmentKind, type TimeCurve } from './segment';

type Progress = (u: number) => number;

/**
 * A scene compiled into flat arrays, so that sampling a frame allocates nothing.
 * Tracks are numbered throughout; the keys of track t are the entries first[t] … first[t + 1] − 1.
 */
export interface CompiledScene {
  readonly layers: readonly Layer[];
  /** Index of each layer's parent, −1 for none. */
  readonly parents: Int32Array;
  /** Layer indices with every parent before its children. */
  readonly order: Int32Array;
  /** Rest values: CHANNEL_COUNT numbers a layer. */
  readonly rest: Float64Array;
  /** Where each track writes: layer index · CHANNEL_COUNT + slot. */
  readonly target: Int32Array;
  readonly first: Int32Array;
  /** Last used key of each track, a memo that makes playing forward fast; it never changes a result. */
  readonly cursor: Int32Array;
  readonly times: Float64Array;
  readonly values: Float64Array;
  /** 1 ÷ length of the segment after each key. */
  readonly inverse: Float64Array;
  readonly kinds: Uint8Array;
  /** Inner control values of the segment after each key. */
  readonly control1: Float64Array;
  readonly control2: Float64Array;
  /** Index into `curves` or `progress` of the segment after each key. */
  readonly easing: Int32Array;
  readonly curves: readonly TimeCurve[];
  readonly progress: readonly Progress[];
}

/** Numbers equal easings once, so that a thousand layers with the same curve share one table. */
function createPool<T>(create: (easing: Easing) => T, keyOf: (easing: Easing) => string) {
  const indices = new Map<string, number>();
  const items: T[] = [];
  const indexOf = (easing: Easing): number => {
    const key = keyOf(easing);
    const known = indices.get(key);
    if (known !== undefined) return known;
    indices.set(key, items.length);
    items.push(create(easing));
    return items.length - 1;
  };
  return { items, indexOf };
}

function kindOf(easing: Easing): number {
  switch (easing.type) {
    case 'hold':
      return SegmentKind.hold;
    case 'linear':
      return SegmentKind.linear;
    case 'bezier':
    case 'handles':
      return SegmentKind.bezier;
    case 'points':
    case 'steps':
      return SegmentKind.progress;
  }
}

/** Layer indices, parents first; layers whose parent is missing count as having none. */
function parentsFirst(parents: Int32Array): Int32Array {
  const order: number[] = [];
  const placed = new Uint8Array(parents.length);
  const place = (index: number): void => {
    if (placed[index]) return;
    placed[index] = 1;
    if (parents[index] >= 0) place(parents[index]);
    order.push(index);
  };
  for (let i = 0; i < parents.length; i++) place(i);
  return Int32Array.from(order);
}

interface TrackEntry {
  readonly target: number;
  readonly keys: Track;
}

function gatherTracks(layers: readonly Layer[]): TrackEntry[] {
  return layers.flatMap((layer, index) =>
    tracksOf(layer).map(([id, keys]) => ({ target: index * CHANNEL_COUNT + channelOf(id).slot, keys })),
  );
}

/** Compiles the layers of a scene. Costs about a microsecond a key; do it once per change, not per frame. */
export function compileScene(scene: Pick<Scene, 'layers'>): CompiledScene {
  const { layers } = scene;
  const indexById = new Map(layers.map((layer, index) => [layer.id, index]));
  const parents = Int32Array.from(layers, ({ parent }) => (parent === null ? -1 : (indexById.get(parent) ?? -1)));
  const rest = new Float64Array(layers.length * CHANNEL_COUNT);
  layers.forEach((layer, index) => rest.set(restValues(layer), index * CHANNEL_COUNT));
  return { layers, parents, order: parentsFirst(parents), rest, ...compileTracks(gatherTracks(layers)) };
}

function compileTracks(tracks: readonly TrackEntry[]) {
  const total = tracks.reduce((sum, { keys }) => sum + keys.length, 0);
  const curves = createPool(
    (easing) => createTimeCurve(...controlTimes(easing)),
    (easing) => controlTimes(easing).join(),
  );
  const progress = createPool<Progress>(
    (easing) => createProgress(easing as Exclude<Easing, { type: 'handles' }>),
    (easing) => JSON.stringify(easing),
  );
  const out = {
    target: Int32Array.from(tracks, ({ target }) => target),
    first: new Int32Array(tracks.length + 1),
    cursor: new Int32Array(tracks.length),
    times: new Float64Array(total),
    values: new Float64Array(total),
    inverse: new Float64Array(total),
    kinds: new Uint8Array(total),
    control1: new Float64Array(total),
    control2: new Float64Array(total),
    easing: new Int32Array(total),
    curves: curves.items,
    progress: progress.items,
  };
  let k = 0;
  tracks.forEach(({ keys }, track) => {
    out.first[track] = k;
    out.cursor[track] = k;
    keys.forEach((key, i) => {
      out.times[k] = key.at;
      out.values[k] = key.value;
      const next = keys[i + 1];
      if (next) {
        const ease = asBezier(key.ease, key.value, next.value) ?? key.ease;
        out.inverse[k] = 1 / (next.at - key.at);
        out.kinds[k] = kindOf(ease);
        [out.control1[k], out.control2[k]] = controlValues(ease, key.value, next.value);
        if (out.kinds[k] === SegmentKind.bezier) out.easing[k] = curves.indexOf(ease);
        if (out.kinds[k] === SegmentKind.progress) out.easing[k] = progress.indexOf(ease);
      }
      k++;
    });
  });
  out.first[tracks.length] = k;
  return out;
}
