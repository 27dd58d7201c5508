import { solveBezier, unitCubic } from '../easing';

/** Numbers that the polynomial of one time curve takes, and that its table of starting points takes. */
export const CURVE_STRIDE = 4;
export const TABLE_STRIDE = 32;
const INTERVALS = TABLE_STRIDE - 2;

const CUBIC = 0;
const SQUARE = 1;
const LINE = 2;

/**
 * The time sides of cubic Béziers, each prepared once for all segments with the same x1 and x2: the polynomial
 * ((cubic·u + square)·u + line)·u, and the curve parameter at evenly spaced x from which solving starts. They lie in
 * two flat arrays, since reading scattered memory is what solving costs most.
 */
export interface TimeCurves {
  readonly polynomials: Float64Array;
  readonly tables: Float32Array;
}

/** Prepares the time curves of pairs of x1 and x2, all in [0, 1]; a curve's number is its place in the list. */
export function createTimeCurves(pairs: readonly (readonly [number, number])[]): TimeCurves {
  const polynomials = new Float64Array(pairs.length * CURVE_STRIDE);
  const tables = new Float32Array(pairs.length * TABLE_STRIDE);
  pairs.forEach(([x1, x2], curve) => {
    polynomials[curve * CURVE_STRIDE + CUBIC] = 1 + 3 * (x1 - x2);
    polynomials[curve * CURVE_STRIDE + SQUARE] = 3 * (x2 - 2 * x1);
    polynomials[curve * CURVE_STRIDE + LINE] = 3 * x1;
    for (let i = 0; i <= INTERVALS; i++) tables[curve * TABLE_STRIDE + i] = solveBezier(i / INTERVALS, x1, x2);
    tables[curve * TABLE_STRIDE + INTERVALS + 1] = 1;
  });
  return { polynomials, tables };
}

const CLOSE = 1e-11;
const ROUNDS = 5;

/**
 * Curve parameter at x ∈ [0, 1], |x(u) − x| ≤ 1e-11: from the table, then one of Halley's third-order steps, which is
 * mostly enough; it is taken before anything is compared, so that the processor need not guess.
 */
export function solveTimeCurve(curves: TimeCurves, curve: number, x: number): number {
  const { polynomials, tables } = curves;
  const p = curve * CURVE_STRIDE;
  const cubic = polynomials[p + CUBIC];
  const square = polynomials[p + SQUARE];
  const line = polynomials[p + LINE];
  const at = x * INTERVALS;
  const cell = at | 0;
  const low = tables[curve * TABLE_STRIDE + cell];
  let u = low + (tables[curve * TABLE_STRIDE + cell + 1] - low) * (at - cell);
  for (let round = 0; round < ROUNDS; round++) {
    u = halley(cubic, square, line, u, x);
    const miss = ((cubic * u + square) * u + line) * u - x;
    if (miss <= CLOSE && miss >= -CLOSE) return u;
  }
  return settle(line / 3, (square + 2 * line) / 3, u, x);
}

/** One step of Halley's method for the polynomial minus x; third order. */
function halley(cubic: number, square: number, line: number, u: number, x: number): number {
  const miss = ((cubic * u + square) * u + line) * u - x;
  const slope = (3 * cubic * u + 2 * square) * u + line;
  const bend = 3 * cubic * u + square;
  return u - (miss * slope) / (slope * slope - miss * bend);
}

/** Where the curve is too flat for Halley's step, the slow solver. */
function settle(x1: number, x2: number, u: number, x: number): number {
  const isThere = u >= 0 && u <= 1 && Math.abs(unitCubic(x1, x2, u) - x) <= CLOSE;
  return isThere ? u : solveBezier(x, x1, x2);
}
