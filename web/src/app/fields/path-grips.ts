import {
  createEvenPath,
  movedNode,
  pathOfNodes,
  pathPoint,
  withHandle,
  type Box,
  type NodePath,
  type PathNode,
  type Point,
} from '@wexikine/core';

/** A place of a line that can be taken hold of: a point, or a handle before or after one. */
export interface PathGrip extends Point {
  readonly kind: 'node' | 'before' | 'after';
  readonly index: number;
}

/** Room around the line, as a share of its size, and at least so many px. */
const ROOM = 0.16;
const LEAST_SIZE = 160;
/** Places along the line from which its size is taken, and marks on it that show its direction. */
const SIZED_BY = 64;
const TICKS = 12;

/** Every point of a line, and the handles of the one that is selected. */
export function gripsOf({ nodes }: NodePath, selected: number | null): PathGrip[] {
  const own = nodes.map(({ x, y }, index): PathGrip => ({ kind: 'node', index, x, y }));
  const node = selected === null ? undefined : nodes[selected];
  if (selected === null || !node) return own;
  const handles = (['before', 'after'] as const).flatMap((kind): PathGrip[] => {
    const place = node[kind];
    return place ? [{ kind, index: selected, ...place }] : [];
  });
  return [...own, ...handles];
}

/** What a grip is called where it is read aloud: "Point 2 of 5". */
export function gripName({ kind, index }: PathGrip, { nodes }: NodePath): string {
  if (kind === 'node') return `Point ${index + 1} of ${nodes.length}`;
  return kind === 'before' ? `Handle before point ${index + 1}` : `Handle after point ${index + 1}`;
}

/** Where a grip stands on a line now, which may have changed since the grip was drawn. */
export function placeOfGrip(path: NodePath, grip: PathGrip): Point {
  const node: PathNode | undefined = path.nodes[grip.index];
  return (grip.kind === 'node' ? node : node?.[grip.kind]) ?? grip;
}

/** A line with a grip at another place; `isSplit` leaves the handle across as it is. */
export function moveGrip(path: NodePath, { kind, index }: PathGrip, to: Point, isSplit: boolean): NodePath {
  const node = path.nodes[index];
  if (!node) return path;
  const moved = kind === 'node' ? movedNode(node, to.x - node.x, to.y - node.y) : withHandle(node, kind, to, isSplit);
  return { ...path, nodes: path.nodes.with(index, moved) };
}

/** Index of the point after which a new one comes: the selected one's, and before the last of an open line. */
export function addsAfter({ nodes, isClosed }: NodePath, selected: number | null): number {
  const wanted = selected ?? 0;
  return !isClosed && wanted === nodes.length - 1 ? wanted - 1 : wanted;
}

/** Marks at even distances along a line (SVG path data); none where it has no length. */
export function ticksAlong(d: string, count = TICKS): Point[] {
  const even = createEvenPath(d);
  return even ? Array.from({ length: count + 1 }, (_, i) => pathPoint(even, (even.length * i) / count)) : [];
}

/** What is shown of a line, in its own px. */
export type PathFrame = Pick<Box, 'left' | 'top'> & Readonly<Record<'width' | 'height', number>>;

/** What is shown of a line: all of it, its handles and its place of rest at 0, 0, with room around. */
export function frameOf(path: NodePath): PathFrame {
  const handles = path.nodes.flatMap(({ before, after }) => [before, after].filter((place) => place !== null));
  const all = [...ticksAlong(pathOfNodes(path), SIZED_BY), ...path.nodes, ...handles];
  const xs = [0, ...all.map(({ x }) => x)];
  const ys = [0, ...all.map(({ y }) => y)];
  const [left, top] = [Math.min(...xs), Math.min(...ys)];
  const width = Math.max(LEAST_SIZE, Math.max(...xs) - left);
  const height = Math.max(LEAST_SIZE * 0.6, Math.max(...ys) - top);
  return {
    left: left - width * ROOM,
    top: top - height * ROOM,
    width: width * (1 + 2 * ROOM),
    height: height * (1 + 2 * ROOM),
  };
}
