import { transformPoint, type Point } from '../../basics/transform';
import { restValue, type Key, type Layer, type LayerSpan } from '../../scene/layer';
import { matrixAt } from '../../scene/sample';
import type { Scene } from '../../scene/scene';
import type { Staging } from '../order';
import { withInside } from '../stage';

/** What is multiplied: a layer with all that is in it, and where and how it rests in the scene. */
export interface Source {
  readonly layer: Layer;
  /** The layer first, then what is in it, from back to front. */
  readonly parts: readonly Layer[];
  /** Its anchor in scene px. */
  readonly at: Point;
}

/** The layers of a scene that are multiplied; those in another one of them are copied with that. */
export function sourcesOf(scene: Scene, indices: readonly number[], { compiled, rest }: Staging): Source[] {
  const ids = new Set(indices.map((index) => scene.layers[index].id));
  const isInside = (layer: Layer): boolean => {
    const byId = (id: string | null): Layer | undefined => scene.layers.find((one) => one.id === id);
    for (let up = byId(layer.parent); up; up = byId(up.parent)) if (ids.has(up.id)) return true;
    return false;
  };
  return indices
    .filter((index) => !isInside(scene.layers[index]))
    .map((index): Source => {
      const layer = scene.layers[index];
      const inside = withInside(scene, new Set([layer.id])).filter(({ id }) => id !== layer.id);
      const parent = compiled.parents[index];
      const own = { x: restValue(layer, 'position.x'), y: restValue(layer, 'position.y') };
      const at = parent < 0 ? own : transformPoint(matrixAt(rest, parent), own);
      return { layer, parts: [layer, ...inside], at };
    });
}

/** Ids of what a run makes: the same place in the list is the same layer. Runs have ids of at most 64 signs, and so have layers. */
export function groupId(run: string): string {
  return `${run.slice(0, 50)}-all`;
}

/** The id of a copy. */
export function copyId(run: string, copy: number): string {
  return `${run.slice(0, 50)}-c${copy + 1}`;
}

function partId(run: string, copy: number, part: number): string {
  return part === 0 ? copyId(run, copy) : `${copyId(run, copy)}-${part}`;
}

/** Keys of a copy are its own: the run that made the first ones does not know of it. */
function freed(tracks: Layer['tracks'], by: number): Layer['tracks'] {
  const move = ({ at, value, ease }: Key): Key => ({ at: at + by, value, ease });
  return Object.fromEntries(Object.entries(tracks).map(([channel, keys]) => [channel, keys.map(move)]));
}

/** The group that holds all copies: the frame itself, from the first to the last. */
export function groupOfCopies(run: string, name: string, { width, height }: Scene, span: LayerSpan): Layer {
  return {
    id: groupId(run),
    name: name.slice(0, 200),
    kind: 'group',
    parent: null,
    tags: ['copies'],
    locked: false,
    hidden: false,
    span,
    rest: { 'position.x': width / 2, 'position.y': height / 2, 'size.x': width, 'size.y': height },
    tracks: {},
    look: {},
    source: { type: 'none' },
    data: {},
  };
}

/**
 * A copy with all that is in it, as it is without the run: at rest where the first one is, from where it lives. Keys of the layer
 * itself give way to those of the run; keys within it are moved along with it.
 */
export function copyOf(run: string, copy: number, { layer, parts, at }: Source, span: LayerSpan): Layer[] {
  const ids = new Map(parts.map(({ id }, part) => [id, partId(run, copy, part)]));
  const by = span.in - layer.span.in;
  return parts.map((part, i): Layer => {
    const { base: _runs, copy: _row, ...own } = part;
    const isTop = i === 0;
    const moved = { in: part.span.in + by, out: part.span.out + by };
    // What lasts as long as its group does so in the copy, too; what ends before it ends as much later.
    const out = part.span.out >= layer.span.out ? Math.max(moved.out, span.out) : moved.out;
    return {
      ...own,
      id: ids.get(part.id) as string,
      name: isTop ? `${part.name.slice(0, 190)} ${copy + 1}` : part.name,
      parent: isTop ? groupId(run) : (ids.get(part.parent ?? '') ?? groupId(run)),
      hidden: isTop ? false : part.hidden,
      locked: false,
      // Whoever picks by tag means the first ones; copies are picked by their group.
      tags: ['copy'],
      copy: { of: part.id },
      span: isTop ? span : { in: moved.in, out },
      rest: isTop ? { ...part.rest, 'position.x': at.x, 'position.y': at.y } : part.rest,
      tracks: isTop ? {} : freed(part.tracks, by),
    };
  });
}
