import type { NodePath, PathNode, Point } from '@wexikine/core';

/** A path in the making: its points so far, in scene pixels. */
export type PenNodes = readonly PathNode[];

/** Steps to which Shift keeps a line or a handle, radians. */
const EIGHTH = Math.PI / 4;

/** A place kept to an eighth of a turn around another. */
export function straightened(from: Point, to: Point): Point {
  const turn = Math.round(Math.atan2(to.y - from.y, to.x - from.x) / EIGHTH) * EIGHTH;
  const far = Math.hypot(to.x - from.x, to.y - from.y);
  return { x: from.x + Math.cos(turn) * far, y: from.y + Math.sin(turn) * far };
}

/** One more corner. */
export function withCorner(nodes: PenNodes, { x, y }: Point): PenNodes {
  return [...nodes, { x, y, before: null, after: null }];
}

/** The last point made round: its handle drawn to a place, the one on the other side as long in the same line. */
export function withRound(nodes: PenNodes, to: Point): PenNodes {
  const last = nodes[nodes.length - 1];
  if (!last) return nodes;
  const { x, y } = last;
  return [...nodes.slice(0, -1), { x, y, before: { x: 2 * x - to.x, y: 2 * y - to.y }, after: { ...to } }];
}

/** Whether a place is so near to the first point that it closes the path. */
export function closes(nodes: PenNodes, { x, y }: Point, reach: number): boolean {
  const [first] = nodes;
  return nodes.length > 2 && first !== undefined && Math.hypot(first.x - x, first.y - y) <= reach;
}

/** The path as it would be with the pointer as its next point. */
export function penPath(nodes: PenNodes, pointer: Point | null, isClosing: boolean): NodePath {
  if (isClosing || !pointer || nodes.length === 0) return { nodes, isClosed: isClosing };
  return { nodes: withCorner(nodes, pointer), isClosed: false };
}
