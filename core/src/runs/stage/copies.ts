import * as z from '../../basics/schema';
import type { Point } from '../../basics/transform';
import { dataProblems, readJson } from '../../basics/text';
import type { Edit } from '../../scene/edit';
import { layerSchema, type Key, type Layer } from '../../scene/layer';
import { rateSchema } from '../../basics/time';
import type { Scene } from '../../scene/scene';
import { changeChannels } from './channels';
import { topLayers, withInside } from './nesting';

const CLIP_FORMAT = 'wexikine-layers-1';

/** Layers on the clipboard, as readable text. */
export const layerClipSchema = z
  .strictObject({
    format: z.literal(CLIP_FORMAT),
    width: z.number().positive(),
    height: z.number().positive(),
    rate: rateSchema,
    layers: z.array(layerSchema).min(1).max(5_000),
  })
  .describe('Layers on the clipboard, each with all that is in it.');
/** Layers on the clipboard. */
export type LayerClip = Readonly<z.infer<typeof layerClipSchema>>;

/** A name that is not taken: the number at its end counts on, or begins at 2. */
export function nextName(name: string, taken: ReadonlySet<string>): string {
  const [, stem, number] = /^(.*?)(?:\s(\d{1,6}))?$/s.exec(name) ?? [];
  for (let count = Number(number ?? 1) + 1; ; count++) {
    const next = `${(stem ?? name).slice(0, 190)} ${count}`;
    if (!taken.has(next)) return next;
  }
}

/** Keys of a copy are set by hand: the run that made the first ones does not know of it. */
function freed(keys: readonly Key[]): Key[] {
  return keys.map(({ by: _run, ...key }) => key);
}

/** Copies of layers under new ids, without what runs know of them; those on top are moved by a way. */
export function copiesOf(
  layers: readonly Layer[],
  tops: ReadonlySet<string>,
  by: Point,
  names: Set<string>,
  newId: () => string,
): Layer[] {
  const ids = new Map(layers.map(({ id }) => [id, newId()]));
  return layers.map((layer) => {
    const { base: _runs, ...own } = layer;
    const isTop = tops.has(layer.id);
    const name = isTop ? nextName(layer.name, names) : layer.name;
    names.add(name);
    const tracks = Object.fromEntries(Object.entries(layer.tracks).map(([channel, keys]) => [channel, freed(keys)]));
    const copy: Layer = {
      ...own,
      id: ids.get(layer.id) as string,
      name,
      parent: ids.get(layer.parent ?? '') ?? layer.parent,
      tracks,
    };
    return isTop && (by.x !== 0 || by.y !== 0)
      ? changeChannels(copy, { 'position.x': (x) => x + by.x, 'position.y': (y) => y + by.y }, 'along', 0)
      : copy;
  });
}

/** Edits that add copies, with the ids of those on top. */
export interface Copied {
  readonly edits: readonly Edit[];
  readonly selected: readonly string[];
}

/** Copies layers, with all that is in them, in front of the first ones, moved by a way in px of their groups. */
export function duplicateLayers(scene: Scene, ids: ReadonlySet<string>, by: Point, newId: () => string): Copied {
  const tops = new Set(topLayers(scene, ids).map(({ id }) => id));
  const all = withInside(scene, tops);
  const copies = copiesOf(all, tops, by, new Set(scene.layers.map(({ name }) => name)), newId);
  const last = all.length === 0 ? -1 : scene.layers.indexOf(all[all.length - 1]);
  return {
    edits: copies.map((layer, i): Edit => ({ type: 'add-layer', index: last + 1 + i, layer })),
    selected: copies.filter((_, i) => tops.has(all[i].id)).map(({ id }) => id),
  };
}

/** Layers, with all that is in them, as text for the clipboard. */
export function copyLayers(scene: Scene, ids: ReadonlySet<string>): LayerClip | null {
  const tops = new Set(topLayers(scene, ids).map(({ id }) => id));
  const layers = withInside(scene, tops).map((layer): Layer => {
    const { base: _runs, ...own } = layer;
    const tracks = Object.fromEntries(Object.entries(layer.tracks).map(([channel, keys]) => [channel, freed(keys)]));
    return { ...own, tracks, parent: tops.has(layer.id) ? null : layer.parent };
  });
  const { width, height, rate } = scene;
  return layers.length === 0 ? null : { format: CLIP_FORMAT, width, height, rate, layers };
}

/** Reads layers from text; null where it speaks of something else, a sentence where it is wrong. */
export function readLayerClip(text: string): LayerClip | string | null {
  if (!text.includes(CLIP_FORMAT)) return null;
  const read = readJson(text);
  if (!read.ok) return `The layers on the clipboard cannot be read. ${read.message}`;
  const parsed = layerClipSchema.safeParse(read.data);
  if (parsed.success) return parsed.data;
  const [{ path, message }] = dataProblems(parsed.error, 1);
  return `The layers on the clipboard cannot be read. ${path}: ${message}`;
}

/**
 * Adds copies of what is on the clipboard in front of everything: where they were, or, from a frame of another size, as far
 * from the middle. Layers keep their times; what lies beyond the scene's end is kept as it is, and told by the checks.
 */
export function pasteLayers(scene: Scene, clip: LayerClip, by: Point, newId: () => string): Copied {
  const tops = new Set(clip.layers.filter(({ parent }) => parent === null).map(({ id }) => id));
  const middle = { x: (scene.width - clip.width) / 2 + by.x, y: (scene.height - clip.height) / 2 + by.y };
  const copies = copiesOf(clip.layers, tops, middle, new Set(scene.layers.map(({ name }) => name)), newId);
  const known = new Set(copies.map(({ id }) => id));
  const safe = copies.map((layer): Layer =>
    layer.parent !== null && !known.has(layer.parent) ? { ...layer, parent: null } : layer,
  );
  return {
    edits: safe.map((layer, i): Edit => ({ type: 'add-layer', index: scene.layers.length + i, layer })),
    selected: copies.filter((_, i) => tops.has(clip.layers[i].id)).map(({ id }) => id),
  };
}
