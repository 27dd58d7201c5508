/** The four numbers of CSS `cubic-bezier`. */
export interface BezierPoints {
  readonly x1: number;
  readonly y1: number;
  readonly x2: number;
  readonly y2: number;
}

const TOLERANCE = 1e-12;
const NEWTON_ROUNDS = 8;
/** Below this slope Newton's step is not trusted and bisection takes over. */
const FLAT = 1e-7;
const BISECTION_ROUNDS = 60;

/** Value at `u` of the cubic with ends 0 and 1 and inner control values `a` and `b`. */
export function unitCubic(a: number, b: number, u: number): number {
  return ((1 + 3 * (a - b)) * u + 3 * (b - 2 * a)) * u * u + 3 * a * u;
}

/** Slope at `u` of that cubic. */
export function unitCubicSlope(a: number, b: number, u: number): number {
  return 3 * ((1 + 3 * (a - b)) * u + 2 * (b - 2 * a)) * u + 3 * a;
}

function bisect(x: number, x1: number, x2: number): number {
  let low = 0;
  let high = 1;
  for (let round = 0; round < BISECTION_ROUNDS && high - low > Number.EPSILON; round++) {
    const middle = (low + high) / 2;
    if (unitCubic(x1, x2, middle) < x) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/**
 * Curve parameter u ∈ [0, 1] at which the x of a cubic-bezier is `x` ∈ [0, 1]; x1, x2 ∈ [0, 1].
 * Newton from `guess`, then bisection where the curve is flat; |x(u) − x| ≤ 1e-12.
 */
export function solveBezier(x: number, x1: number, x2: number, guess = x): number {
  let u = guess;
  for (let round = 0; round < NEWTON_ROUNDS; round++) {
    const miss = unitCubic(x1, x2, u) - x;
    if (Math.abs(miss) <= TOLERANCE) return u < 0 ? 0 : u > 1 ? 1 : u;
    const slope = unitCubicSlope(x1, x2, u);
    if (Math.abs(slope) < FLAT) break;
    u -= miss / slope;
  }
  return bisect(x, x1, x2);
}

/** Slope dy/dx at the start: from the first control point that differs from it. Source: CSS Easing Functions 1. */
function startSlope({ x1, y1, x2, y2 }: BezierPoints): number {
  if (x1 > 0) return y1 / x1;
  if (y1 === 0 && x2 > 0) return y2 / x2;
  return y1 === 0 && y2 === 0 ? 1 : 0;
}

function endSlope({ x1, y1, x2, y2 }: BezierPoints): number {
  if (x2 < 1) return (1 - y2) / (1 - x2);
  if (y2 === 1 && x1 < 1) return (1 - y1) / (1 - x1);
  return y2 === 1 && y1 === 1 ? 1 : 0;
}

/**
 * CSS `cubic-bezier` as a function of x. Ends are exact; outside [0, 1] it goes on along the end tangents.
 * Source: CSS Easing Functions Level 1, section 2.3.
 */
export function createCubicBezier(points: BezierPoints): (x: number) => number {
  const before = startSlope(points);
  const after = endSlope(points);
  return (x) => {
    if (x <= 0) return x * before;
    if (x >= 1) return 1 + (x - 1) * after;
    return unitCubic(points.y1, points.y2, solveBezier(x, points.x1, points.x2));
  };
}
