/**
 * A plane affine transform in the order of DOMMatrix and CSS `matrix(a, b, c, d, e, f)`:
 * x' = a·x + c·y + e, y' = b·x + d·y + f.
 */
export type Matrix = readonly [a: number, b: number, c: number, d: number, e: number, f: number];

/** The matrix that leaves everything where it is. */
export const IDENTITY: Matrix = [1, 0, 0, 1, 0, 0];

/** m × n: first n, then m. */
export function multiply(m: Matrix, n: Matrix): Matrix {
  return [
    m[0] * n[0] + m[2] * n[1],
    m[1] * n[0] + m[3] * n[1],
    m[0] * n[2] + m[2] * n[3],
    m[1] * n[2] + m[3] * n[3],
    m[0] * n[4] + m[2] * n[5] + m[4],
    m[1] * n[4] + m[3] * n[5] + m[5],
  ];
}

/** A place in px. */
export interface Point {
  readonly x: number;
  readonly y: number;
}

/** Image of a point. */
export function transformPoint(m: Matrix, { x, y }: Point): Point {
  return { x: m[0] * x + m[2] * y + m[4], y: m[1] * x + m[3] * y + m[5] };
}

/** A rectangle with its sides along the axes, in pixels. */
export interface Box {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** Smallest upright box around the image of the rectangle (0, 0)–(width, height). */
export function boundsOf(m: Matrix, width: number, height: number): Box {
  const [x1, x2] = [m[0] * width, m[2] * height];
  const [y1, y2] = [m[1] * width, m[3] * height];
  return {
    left: m[4] + Math.min(0, x1) + Math.min(0, x2),
    right: m[4] + Math.max(0, x1) + Math.max(0, x2),
    top: m[5] + Math.min(0, y1) + Math.min(0, y2),
    bottom: m[5] + Math.max(0, y1) + Math.max(0, y2),
  };
}

/** Centre of a box. */
export function centreOf({ left, top, right, bottom }: Box): Point {
  return { x: (left + right) / 2, y: (top + bottom) / 2 };
}

/** The transform that takes another one back; null where that one makes everything flat. */
export function inverse([a, b, c, d, e, f]: Matrix): Matrix | null {
  const area = a * d - b * c;
  if (Math.abs(area) < Number.EPSILON) return null;
  return [d / area, -b / area, -c / area, a / area, (c * f - d * e) / area, (b * e - a * f) / area];
}
