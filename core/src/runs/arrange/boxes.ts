import { matrixAt, boundsAt } from '../../scene/sample';
import type { Staging } from '../order';
import { restValue } from '../../scene/layer';
import type { Box, Matrix, Point } from '../../basics/transform';

/** A layer as arranging sees it: where it rests on screen, and how it is turned. */
export interface Placed {
  readonly index: number;
  readonly place: number;
  /** Upright box of the rest pose, in scene pixels. */
  readonly box: Box;
  readonly matrix: Matrix;
  /** Own width and height, before any scaling. */
  readonly size: { readonly width: number; readonly height: number };
}

/** Where a layer is to be: moved by pixels of the scene, scaled by factors about its anchor, turned by degrees. */
export interface Move {
  readonly by: Point;
  readonly scale?: Point;
  readonly turn?: number;
}

/** No move. */
export const STAYS: Move = { by: { x: 0, y: 0 } };

/** A layer as it rests, with its place in the order. */
export function placedAt(staging: Staging, index: number, place: number): Placed {
  const layer = staging.scene.layers[index];
  return {
    index,
    place,
    box: boundsAt(staging.rest, index),
    matrix: matrixAt(staging.rest, index),
    size: { width: restValue(layer, 'size.x'), height: restValue(layer, 'size.y') },
  };
}

/** First and last edge of a box along an axis. */
export function alongAxis(box: Box, axis: 'across' | 'down'): readonly [number, number] {
  return axis === 'across' ? [box.left, box.right] : [box.top, box.bottom];
}

/** Smallest box around many. */
export function outerBox(boxes: readonly Box[]): Box {
  return boxes.reduce((all, box) => ({
    left: Math.min(all.left, box.left),
    top: Math.min(all.top, box.top),
    right: Math.max(all.right, box.right),
    bottom: Math.max(all.bottom, box.bottom),
  }));
}

/** A move along one axis. */
export function moveAlong(axis: 'across' | 'down', by: number): Move {
  return { by: axis === 'across' ? { x: by, y: 0 } : { x: 0, y: by } };
}

/**
 * The factor by which a layer must be scaled to cover a frame whose middle is its own: the frame's corners seen in the
 * layer's box, in half sizes. For a layer turned by θ: W|cosθ| + H|sinθ| over its width, W|sinθ| + H|cosθ| over its height.
 */
export function coverFactor(
  [a, b, c, d]: Matrix | readonly number[],
  size: { readonly width: number; readonly height: number },
  frame: { readonly width: number; readonly height: number },
): number {
  const area = a * d - b * c;
  if (area === 0 || size.width === 0 || size.height === 0) return Infinity;
  const reach = (x: number, y: number): number =>
    Math.max(
      Math.abs(d * x - c * y) / Math.abs(area) / (size.width / 2),
      Math.abs(a * y - b * x) / Math.abs(area) / (size.height / 2),
    );
  return Math.max(reach(frame.width / 2, frame.height / 2), reach(frame.width / 2, -frame.height / 2));
}
