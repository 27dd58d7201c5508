import type { Box } from '../transform';
import { cubicTurns } from './cubic';
import { pathCurves } from './even-path';

/** A place, in px. */
interface Place {
  readonly x: number;
  readonly y: number;
}

/** A point of a path with the handles that shape the line before and after it; null where the line there is straight. */
export interface PathNode extends Place {
  readonly before: Place | null;
  readonly after: Place | null;
}

/** A path as the points by which it is edited. */
export interface NodePath {
  readonly nodes: readonly PathNode[];
  readonly isClosed: boolean;
}

const CLOSE = 1e-6;

function isStraight([x0, y0, x1, y1, x2, y2, x3, y3]: readonly number[]): boolean {
  const third = (from: number, to: number, share: number): number => from + (to - from) * share;
  const miss = (x: number, y: number, share: number): number =>
    Math.hypot(x - third(x0, x3, share), y - third(y0, y3, share));
  return miss(x1, y1, 1 / 3) < CLOSE && miss(x2, y2, 2 / 3) < CLOSE;
}

/** The points of SVG path data; no points for what is no path. Only its first line counts. */
export function nodesOfPath(d: string): NodePath {
  const { curves, isClosed } = pathCurves(d);
  const [first] = curves;
  if (!first) return { nodes: [], isClosed: false };
  const nodes: PathNode[] = [{ x: first[0], y: first[1], before: null, after: null }];
  for (const curve of curves) {
    const [, , x1, y1, x2, y2, x, y] = curve;
    const straight = isStraight(curve);
    const last = nodes[nodes.length - 1];
    nodes[nodes.length - 1] = { ...last, after: straight ? null : { x: x1, y: y1 } };
    nodes.push({ x, y, before: straight ? null : { x: x2, y: y2 }, after: null });
  }
  const end = nodes[nodes.length - 1];
  const meets = isClosed && nodes.length > 2 && Math.hypot(end.x - nodes[0].x, end.y - nodes[0].y) < CLOSE;
  if (!meets) return { nodes, isClosed: false };
  nodes.pop();
  nodes[0] = { ...nodes[0], before: end.before };
  return { nodes, isClosed: true };
}

function number(value: number, digits: number): string {
  return String(Number(value.toFixed(digits)));
}

function segment(from: PathNode, to: PathNode, digits: number): string {
  const at = ({ x, y }: Place): string => `${number(x, digits)} ${number(y, digits)}`;
  if (!from.after && !to.before) return `L${at(to)}`;
  return `C${at(from.after ?? from)} ${at(to.before ?? to)} ${at(to)}`;
}

/** SVG path data of points, to so many digits of a px; empty without points. */
export function pathOfNodes({ nodes, isClosed }: NodePath, digits = 2): string {
  const [first] = nodes;
  if (!first) return '';
  const lines = nodes.slice(1).map((node, i) => segment(nodes[i], node, digits));
  const last = isClosed && nodes.length > 1 ? [segment(nodes[nodes.length - 1], first, digits), 'Z'] : [];
  return [`M${number(first.x, digits)} ${number(first.y, digits)}`, ...lines, ...last].join(' ');
}

/** The box around a path, whatever its handles reach; null without points. */
export function boundsOfNodes({ nodes, isClosed }: NodePath): Box | null {
  if (nodes.length === 0) return null;
  const [xs, ys] = [nodes.map(({ x }) => x), nodes.map(({ y }) => y)];
  nodes.forEach((from, i) => {
    const to = nodes[i + 1] ?? (isClosed ? nodes[0] : null);
    if (!to || (!from.after && !to.before)) return;
    const [one, other] = [from.after ?? from, to.before ?? to];
    xs.push(...cubicTurns([from.x, one.x, other.x, to.x]));
    ys.push(...cubicTurns([from.y, one.y, other.y, to.y]));
  });
  const least = (list: readonly number[]): number => list.reduce((a, b) => Math.min(a, b));
  const most = (list: readonly number[]): number => list.reduce((a, b) => Math.max(a, b));
  return { left: least(xs), top: least(ys), right: most(xs), bottom: most(ys) };
}

/** Points of a path with each of their places changed, handles too. */
export function mapNodes({ nodes, isClosed }: NodePath, change: (place: Place) => Place): NodePath {
  const handle = (place: Place | null): Place | null => place && change(place);
  const changed = nodes.map(({ x, y, before, after }) => {
    return { ...change({ x, y }), before: handle(before), after: handle(after) };
  });
  return { nodes: changed, isClosed };
}

/** A point moved by so much, with its handles. */
export function movedNode({ x, y, before, after }: PathNode, dx: number, dy: number): PathNode {
  const moved = (place: Place | null): Place | null => place && { x: place.x + dx, y: place.y + dy };
  return { x: x + dx, y: y + dy, before: moved(before), after: moved(after) };
}

/** A point with one handle set; the other one turns with it, keeping its length, unless they are split. */
export function withHandle(node: PathNode, side: 'before' | 'after', place: Place, isSplit: boolean): PathNode {
  const other = side === 'before' ? 'after' : 'before';
  const opposite = node[other];
  if (isSplit || !opposite) return { ...node, [side]: place };
  const [dx, dy] = [node.x - place.x, node.y - place.y];
  const reach = Math.hypot(dx, dy);
  const length = Math.hypot(opposite.x - node.x, opposite.y - node.y);
  if (reach < CLOSE) return { ...node, [side]: place };
  return { ...node, [side]: place, [other]: { x: node.x + (dx / reach) * length, y: node.y + (dy / reach) * length } };
}

/** A path with a point added halfway after one of its points; the line stays as it is (de Casteljau's division). */
export function withNodeAfter({ nodes, isClosed }: NodePath, index: number): NodePath {
  const to = (index + 1) % nodes.length;
  const [a, b] = [nodes[index], nodes[to]];
  if (!a || !b || (to === 0 && !isClosed)) return { nodes, isClosed };
  const middle = (p: Place, q: Place): Place => ({ x: (p.x + q.x) / 2, y: (p.y + q.y) / 2 });
  if (!a.after && !b.before) {
    return { nodes: nodes.toSpliced(index + 1, 0, { ...middle(a, b), before: null, after: null }), isClosed };
  }
  const [p1, p2] = [a.after ?? a, b.before ?? b];
  const [left, inner, right] = [middle(a, p1), middle(p1, p2), middle(p2, b)];
  const [before, after] = [middle(left, inner), middle(inner, right)];
  const changed = nodes.map((node, i) =>
    i === index ? { ...node, after: left } : i === to ? { ...node, before: right } : node,
  );
  return { nodes: changed.toSpliced(index + 1, 0, { ...middle(before, after), before, after }), isClosed };
}

/** A corner made round, with handles towards its neighbours, or a round point made a corner. */
export function withTurnedCorner({ nodes, isClosed }: NodePath, index: number): NodePath {
  const node = nodes[index];
  if (!node) return { nodes, isClosed };
  if (node.before || node.after) {
    return { nodes: nodes.with(index, { ...node, before: null, after: null }), isClosed };
  }
  const count = nodes.length;
  const before = nodes[index - 1] ?? (isClosed ? nodes[count - 1] : node);
  const after = nodes[index + 1] ?? (isClosed ? nodes[0] : node);
  const [dx, dy] = [(after.x - before.x) / 6, (after.y - before.y) / 6];
  const round = { ...node, before: { x: node.x - dx, y: node.y - dy }, after: { x: node.x + dx, y: node.y + dy } };
  return { nodes: nodes.with(index, round), isClosed };
}

/** A path without one of its points; two are always left. */
export function withoutNode({ nodes, isClosed }: NodePath, index: number): NodePath {
  if (nodes.length <= 2) return { nodes, isClosed };
  const left = nodes.toSpliced(index, 1);
  return { nodes: left, isClosed: isClosed && left.length > 2 };
}

/** SVG path data moved so that it begins at 0 0; as it is where it is no path. */
export function pathFromStart(d: string): string {
  const path = nodesOfPath(d);
  const [first] = path.nodes;
  return first ? pathOfNodes({ ...path, nodes: path.nodes.map((node) => movedNode(node, -first.x, -first.y)) }) : d;
}

/** SVG path data made larger by a factor about 0 0; as it is where it is no path. */
export function pathScaled(d: string, factor: number): string {
  const path = nodesOfPath(d);
  if (path.nodes.length === 0) return d;
  return pathOfNodes(mapNodes(path, ({ x, y }) => ({ x: x * factor, y: y * factor })));
}
