import { boundsAt, isSeen, type Box, type Layer, type Point } from '@wexikine/core';
import type { Picture } from '@wexikine/paint';

/** A sampled scene in which layers are looked for. */
export type Sampled = Pick<Picture, 'compiled' | 'frame'>;

/** Whether a point of the scene is on what a layer draws. */
export type Touches = (layer: Layer, index: number, point: Point) => boolean;

/** All layers under a point of the scene, those in groups too, the topmost first. */
export function layersAt({ compiled, frame }: Sampled, point: Point, touches: Touches): Layer[] {
  return compiled.layers
    .filter((layer, index) => frame.live[index] === 1 && !layer.hidden && touches(layer, index, point))
    .reverse();
}

/** The topmost layer under a point that is no locked backdrop; of a group's parts, the group. */
export function topmostAt({ compiled, frame }: Sampled, point: Point, touches: Touches): string | null {
  const { layers, parents } = compiled;
  const topOf = (index: number): number => (parents[index] < 0 ? index : topOf(parents[index]));
  let found = -1;
  layers.forEach((layer, index) => {
    const top = topOf(index);
    // Layers that no group holds lie over each other in their order, with all that they hold.
    if (top < found || frame.live[index] === 0 || layer.hidden || layers[top].hidden || layers[top].locked) return;
    const isDrawn = layer.source.type !== 'none';
    const isBare = layer.kind !== 'group' && !isDrawn;
    if ((isDrawn || isBare) && touches(layer, index, point)) found = top;
  });
  return layers[found]?.id ?? null;
}

/** Drawn layers that no group holds and that a box of the scene touches. */
export function layersTouching({ compiled, frame }: Sampled, { left, right, top, bottom }: Box): string[] {
  return compiled.layers
    .filter((layer, index) => {
      if (frame.live[index] === 0 || layer.hidden || layer.locked || !isSeen(layer)) return false;
      if (compiled.parents[index] >= 0) return false;
      const box = boundsAt(frame, index);
      return box.right >= left && box.left <= right && box.bottom >= top && box.top <= bottom;
    })
    .map(({ id }) => id);
}

/** True for a layer that is selected, or is in a group that is. */
export function isInSelection(
  layers: readonly Layer[],
  { id, parent }: Layer,
  selection: ReadonlySet<string>,
): boolean {
  if (selection.has(id)) return true;
  const group = parent === null ? undefined : layers.find((layer) => layer.id === parent);
  return group !== undefined && isInSelection(layers, group, selection);
}

/** The outermost group that a layer is in; itself where it is in none. */
export function outermost(layers: readonly Layer[], layer: Layer): string {
  const group = layers.find(({ id }) => id === layer.parent);
  return group ? outermost(layers, group) : layer.id;
}
