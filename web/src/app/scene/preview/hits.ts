import { boundsAt, isSeen, type Box, type Layer, type Point } from '@wexikine/core';
import type { Picture } from '@wexikine/paint';

/** A sampled scene in which layers are looked for. */
export type Sampled = Pick<Picture, 'compiled' | 'frame'>;

function holds({ left, right, top, bottom }: Box, { x, y }: Point): boolean {
  return x >= left && x <= right && y >= top && y <= bottom;
}

/** All layers under a point of the scene, those in groups too, the topmost first. */
export function layersAt({ compiled, frame }: Sampled, point: Point): Layer[] {
  return compiled.layers
    .filter((layer, index) => frame.live[index] === 1 && !layer.hidden && holds(boundsAt(frame, index), point))
    .reverse();
}

/** The topmost layer under a point that is no locked backdrop; of a group's parts, the group. */
export function topmostAt({ compiled, frame }: Sampled, point: Point): string | null {
  const found = compiled.layers.findLast(
    (layer, index) =>
      frame.live[index] === 1 &&
      !layer.hidden &&
      !layer.locked &&
      compiled.parents[index] < 0 &&
      holds(boundsAt(frame, index), point),
  );
  return found?.id ?? null;
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
