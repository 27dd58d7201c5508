import { CHANNEL_COUNT } from '../../basics/channel';
import { oklabFromCss } from '../../basics/colour';
import { writeRestValues, type Layer } from '../layer';
import { compileClips, type CompiledClips } from './clips';
import { compilePaths, type CompiledPaths } from './paths';
import { compileRigs, type CompiledRigs, type Rigged } from './rigs';
import { compileTracks, type CompiledTracks } from './tracks';

/** A function that keeps its results for one compilation; a thousand layers have few colours. */
function memoised<T>(compute: (text: string) => T): (text: string) => T {
  const known = new Map<string, T>();
  return (text) => {
    const before = known.get(text);
    if (before !== undefined) return before;
    const value = compute(text);
    known.set(text, value);
    return value;
  };
}

/** A scene compiled into flat arrays, so that sampling a frame allocates nothing. */
export interface CompiledScene {
  readonly layers: readonly Layer[];
  /** Index of each layer's parent, −1 for none. */
  readonly parents: Int32Array;
  /** Layer indices with every parent before its children. */
  readonly order: Int32Array;
  /** Rest values: CHANNEL_COUNT numbers a layer. */
  readonly rest: Float64Array;
  readonly tracks: CompiledTracks;
  /** What drives channels over their keys; null where nothing does. */
  readonly rigs: CompiledRigs | null;
  readonly paths: CompiledPaths;
  readonly clips: CompiledClips;
  /** Room for what a path adds to one layer. */
  readonly along: Float64Array;
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

/** What of layers no key changes: where they rest, and which is in which. */
interface Standing extends Pick<CompiledScene, 'parents' | 'order' | 'rest'> {
  readonly layers: readonly Layer[];
}

/**
 * Layers that were compiled last. Most changes of a scene leave where its layers rest, or change that of a few, and what was
 * worked out of the others serves again. It never changes a result, and what it gives is never written to.
 */
let last: Standing | null = null;

const restsAs = (a: Layer, b: Layer): boolean => a.rest === b.rest && a.look === b.look;
const standsAs = (a: Layer, b: Layer): boolean => a.id === b.id && a.parent === b.parent;

function restOf(layers: readonly Layer[], before: Standing | null): Float64Array {
  const colours = memoised(oklabFromCss);
  let rest = before?.rest ?? new Float64Array(layers.length * CHANNEL_COUNT);
  let isOwn = before === null;
  layers.forEach((layer, index) => {
    if (before && restsAs(layer, before.layers[index])) return;
    if (!isOwn) rest = rest.slice();
    isOwn = true;
    writeRestValues(layer, colours, rest, index * CHANNEL_COUNT);
  });
  return rest;
}

function nestingOf(layers: readonly Layer[], before: Standing | null): Pick<Standing, 'parents' | 'order'> {
  if (before && layers.every((layer, index) => standsAs(layer, before.layers[index]))) return before;
  const indexById = new Map(layers.map((layer, index) => [layer.id, index]));
  const parents = Int32Array.from(layers, ({ parent }) => (parent === null ? -1 : (indexById.get(parent) ?? -1)));
  return { parents, order: parentsFirst(parents) };
}

function standingOf(layers: readonly Layer[]): Standing {
  const before = last?.layers.length === layers.length ? last : null;
  const { parents, order } = nestingOf(layers, before);
  last = { layers, parents, order, rest: restOf(layers, before) };
  return last;
}

/** Compiles the layers of a scene with what drives them. Costs about a microsecond a track; do it once per change, not per frame. */
export function compileScene(scene: Rigged): CompiledScene {
  const { layers } = scene;
  const { parents, order, rest } = standingOf(layers);
  return {
    layers,
    parents,
    order,
    rest,
    tracks: compileTracks(layers),
    rigs: compileRigs(scene),
    paths: compilePaths(layers),
    clips: compileClips(layers),
    along: new Float64Array(3),
  };
}

/** Scenes that several look at: each is compiled once, and sampled by each into a frame of its own. */
const known = new WeakMap<Rigged, CompiledScene>();

/** A scene that others look at as well, compiled for all of them; it must not be changed. */
export function compiledOnce(scene: Rigged): CompiledScene {
  const before = known.get(scene);
  if (before) return before;
  const compiled = compileScene(scene);
  known.set(scene, compiled);
  return compiled;
}
