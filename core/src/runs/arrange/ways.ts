import type { ArrangeWay } from '../../scene/recipe';
import { centreOf, type Box, type Point } from '../../basics/transform';
import { alongAxis, moveAlong, outerBox, STAYS, type Move, type Placed } from './boxes';

interface Frame {
  readonly width: number;
  readonly height: number;
}

type WayOf<B extends ArrangeWay['by']> = Extract<ArrangeWay, { by: B }>;

function lengthAlong(box: Box, axis: 'across' | 'down'): number {
  const [from, to] = alongAxis(box, axis);
  return to - from;
}

/** Puts boxes one after the other along an axis, from an edge, with a gap. */
function row(placed: readonly Placed[], axis: 'across' | 'down', from: number, gap: number): Move[] {
  let at = from;
  return placed.map(({ box }) => {
    const move = moveAlong(axis, at - alongAxis(box, axis)[0]);
    at += lengthAlong(box, axis) + gap;
    return move;
  });
}

function spread(placed: readonly Placed[], { axis, between, margin }: WayOf<'spread'>, frame: Frame): Move[] {
  const outer = alongAxis(outerBox(placed.map(({ box }) => box)), axis);
  const whole = axis === 'across' ? frame.width : frame.height;
  const [from, to] = between === 'outer' ? outer : [margin, whole - margin];
  const filled = placed.reduce((sum, { box }) => sum + lengthAlong(box, axis), 0);
  if (placed.length === 1) return row(placed, axis, (from + to - filled) / 2, 0);
  return row(placed, axis, from, (to - from - filled) / (placed.length - 1));
}

function grid(placed: readonly Placed[], { columns, gap }: WayOf<'grid'>): Move[] {
  const boxes = placed.map(({ box }) => box);
  const { left, top } = outerBox(boxes);
  const width = Math.max(...boxes.map((box) => lengthAlong(box, 'across'))) + gap;
  const height = Math.max(...boxes.map((box) => lengthAlong(box, 'down'))) + gap;
  return boxes.map((box, i) => ({
    by: { x: left + (i % columns) * width - box.left, y: top + Math.floor(i / columns) * height - box.top },
  }));
}

const RADIANS = Math.PI / 180;
const QUARTER = 90;

function towards(box: Box, point: Point): Point {
  const { x, y } = centreOf(box);
  return { x: point.x - x, y: point.y - y };
}

function circle(placed: readonly Placed[], way: WayOf<'circle'>, frame: Frame): Move[] {
  const isWhole = way.round !== 0 && way.round % 360 === 0;
  const step = way.round / Math.max(1, isWhole ? placed.length : placed.length - 1);
  return placed.map(({ box, matrix }, i) => {
    const degrees = way.from + step * i;
    const point = {
      x: way.x * frame.width + way.radius * Math.cos(degrees * RADIANS),
      y: way.y * frame.height + way.radius * Math.sin(degrees * RADIANS),
    };
    const standing = Math.atan2(matrix[1], matrix[0]) / RADIANS;
    return { by: towards(box, point), ...(way.turned ? { turn: degrees + QUARTER - standing } : {}) };
  });
}

function slots(placed: readonly Placed[], { axis, slots: count }: WayOf<'slots'>, frame: Frame): Move[] {
  const whole = axis === 'across' ? frame.width : frame.height;
  return placed.map(({ box }, i) => {
    const middle = (((i % count) + 0.5) * whole) / count;
    const { x, y } = centreOf(box);
    return moveAlong(axis, middle - (axis === 'across' ? x : y));
  });
}

function align(placed: readonly Placed[], { edge, to }: WayOf<'align'>, frame: Frame): Move[] {
  const whole = { left: 0, top: 0, right: frame.width, bottom: frame.height };
  const goal = to === 'frame' ? whole : to === 'first' ? placed[0].box : outerBox(placed.map(({ box }) => box));
  return placed.map(({ box }) => {
    switch (edge) {
      case 'left':
        return moveAlong('across', goal.left - box.left);
      case 'right':
        return moveAlong('across', goal.right - box.right);
      case 'centre':
        return moveAlong('across', centreOf(goal).x - centreOf(box).x);
      case 'top':
        return moveAlong('down', goal.top - box.top);
      case 'bottom':
        return moveAlong('down', goal.bottom - box.bottom);
      case 'middle':
        return moveAlong('down', centreOf(goal).y - centreOf(box).y);
    }
  });
}

function size(placed: readonly Placed[], { match, of }: WayOf<'size'>): Move[] {
  const sizes = placed.map(({ box }) => ({ x: lengthAlong(box, 'across'), y: lengthAlong(box, 'down') }));
  const wanted = (values: readonly number[]): number =>
    of === 'first' ? values[0] : of === 'largest' ? Math.max(...values) : Math.min(...values);
  const goal = { x: wanted(sizes.map(({ x }) => x)), y: wanted(sizes.map(({ y }) => y)) };
  return sizes.map(({ x, y }) => {
    if (x === 0 || y === 0) return STAYS;
    const factors = { x: goal.x / x, y: goal.y / y };
    const all = match === 'width' ? factors.x : factors.y;
    return { by: STAYS.by, scale: match === 'both' ? factors : { x: all, y: all } };
  });
}

/** Where layers go, in their order. Covering the frame looks at the keys too and stands apart. */
export function movesOf(way: Exclude<ArrangeWay, { by: 'cover' }>, placed: readonly Placed[], frame: Frame): Move[] {
  switch (way.by) {
    case 'spread':
      return spread(placed, way, frame);
    case 'butt':
      return row(placed, way.axis, alongAxis(placed[0].box, way.axis)[0], way.gap);
    case 'grid':
      return grid(placed, way);
    case 'circle':
      return circle(placed, way, frame);
    case 'slots':
      return slots(placed, way, frame);
    case 'align':
      return align(placed, way, frame);
    case 'size':
      return size(placed, way);
  }
}
