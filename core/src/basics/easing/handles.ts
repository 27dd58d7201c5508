import { asBezier, LINEAR, type Easing } from './easing';

/** A point in time (ticks) and value (the channel's unit). */
export interface CurvePoint {
  readonly at: number;
  readonly value: number;
}

/** The control points of a segment, as the cubic Bézier from its first key to its second. */
export interface SegmentHandles {
  readonly leave: CurvePoint;
  readonly arrive: CurvePoint;
}

/** Share of a segment at which a handle stands that nobody has drawn out: an even cubic's. */
export const HANDLE_SHARE = 1 / 3;

/**
 * The control points of a segment between two keys; null where its easing is no single cubic: a hold, steps, points or
 * a spring.
 */
export function handlesBetween(from: CurvePoint, to: CurvePoint, ease: Easing): SegmentHandles | null {
  const [length, way] = [to.at - from.at, to.value - from.value];
  const point = (u: number, v: number): CurvePoint => ({ at: from.at + u * length, value: from.value + v * way });
  if (ease.type === 'linear') {
    return { leave: point(HANDLE_SHARE, HANDLE_SHARE), arrive: point(1 - HANDLE_SHARE, 1 - HANDLE_SHARE) };
  }
  if (ease.type === 'handles') {
    const { leave, arrive } = ease;
    return {
      leave: { at: from.at + leave.time * length, value: from.value + leave.value },
      arrive: { at: to.at - arrive.time * length, value: to.value + arrive.value },
    };
  }
  return ease.type === 'bezier' ? { leave: point(ease.x1, ease.y1), arrive: point(ease.x2, ease.y2) } : null;
}

/** A difference of values below which a Bézier in shares of the way would lose the shape of the handles. */
const LEAST_WAY = 1e-6;
/** The greatest share of the way that a Bézier's value is written in. */
const MOST_SHARES = 1000;

function shareOf(at: number, from: number, length: number): number {
  return length > 0 ? Math.min(1, Math.max(0, (at - from) / length)) : 0;
}

/**
 * The easing whose control points are these. Their times are kept within the segment, so that the curve never goes
 * back; a plain Bézier where the two values differ enough, else free handles, which can swing between equal values.
 */
export function easeOfHandles(from: CurvePoint, to: CurvePoint, { leave, arrive }: SegmentHandles): Easing {
  const length = to.at - from.at;
  const [x1, x2] = [shareOf(leave.at, from.at, length), shareOf(arrive.at, from.at, length)];
  const free: Easing = {
    type: 'handles',
    leave: { time: x1, value: leave.value - from.value },
    arrive: { time: 1 - x2, value: arrive.value - to.value },
  };
  const way = to.value - from.value;
  if (Math.abs(way) < LEAST_WAY) return free;
  const bezier = asBezier(free, from.value, to.value);
  if (bezier === null || Math.abs(bezier.y1) > MOST_SHARES || Math.abs(bezier.y2) > MOST_SHARES) return free;
  const { y1, y2 } = bezier;
  // What is even stays "even" instead of a Bézier that happens to be one.
  const isEven = [x1 - y1, x2 - y2].every((off) => Math.abs(off) < 1e-12) && Math.abs(x1 - HANDLE_SHARE) < 1e-12;
  return isEven && Math.abs(x2 - 2 * HANDLE_SHARE) < 1e-12 ? LINEAR : { type: 'bezier', x1, y1, x2, y2 };
}

/** An easing whose values are multiplied: free handles grow with them, so that the shape stays; others have no values. */
export function scaledEasing(easing: Easing, factor: number): Easing {
  if (easing.type !== 'handles') return easing;
  const { leave, arrive } = easing;
  return {
    type: 'handles',
    leave: { ...leave, value: leave.value * factor },
    arrive: { ...arrive, value: arrive.value * factor },
  };
}
