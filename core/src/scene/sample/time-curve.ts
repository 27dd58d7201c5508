import { solveBezier, unitCubic } from '../../basics/easing';

/** One time curve takes so many numbers: a cache line of 64 bytes, which is read at once. */
export const CURVE_STRIDE = 8;
/** Where the starting points begin among the curve's numbers, counted in numbers of half the size. */
export const FIRST_START = 6;
/** Evenly spaced intervals of x for which a starting point is known at both ends. */
export const INTERVALS = 8;

const CUBIC = 0;
const SQUARE = 1;
const LINE = 2;

/** The number of the time curve that goes straight. */
export const STRAIGHT = 0;

const FIRST_ROOM = 16;

/**
 * The time sides of cubic Béziers, each prepared once for all segments with the same x1 and x2: the polynomial
 * ((cubic·u + square)·u + line)·u, and the curve parameter at evenly spaced x from which solving starts. Both lie in one
 * cache line, since reading scattered memory is what solving costs most: `numbers` and `starts` are two views of it, which
 * are made anew, longer, when `indexOf` needs more room.
 */
export interface TimeCurves {
  readonly numbers: Float64Array;
  readonly starts: Float32Array;
  /** The number of the curve of x1 and x2, both in [0, 1]; it is prepared when it is first asked for. */
  readonly indexOf: (x1: number, x2: number) => number;
}

function write(numbers: Float64Array, starts: Float32Array, o: number, x1: number, x2: number): void {
  numbers[o + CUBIC] = 1 + 3 * (x1 - x2);
  numbers[o + SQUARE] = 3 * (x2 - 2 * x1);
  numbers[o + LINE] = 3 * x1;
  for (let i = 0; i <= INTERVALS; i++) starts[o * 2 + FIRST_START + i] = solveBezier(i / INTERVALS, x1, x2);
  starts[o * 2 + FIRST_START + INTERVALS + 1] = 1;
}

/** Prepares time curves, equal ones once; the straight one is there from the beginning. */
export function createTimeCurves(): TimeCurves {
  const known = new Map<number, Map<number, number>>();
  let count = 0;
  const indexOf = (x1: number, x2: number): number => {
    let ofFirst = known.get(x1);
    if (!ofFirst) known.set(x1, (ofFirst = new Map<number, number>()));
    const before = ofFirst.get(x2);
    if (before !== undefined) return before;
    if (count * CURVE_STRIDE === curves.numbers.length) {
      const numbers = new Float64Array(curves.numbers.length * 2);
      numbers.set(curves.numbers);
      curves.numbers = numbers;
      curves.starts = new Float32Array(numbers.buffer);
    }
    write(curves.numbers, curves.starts, count * CURVE_STRIDE, x1, x2);
    ofFirst.set(x2, count);
    return count++;
  };
  const numbers = new Float64Array(FIRST_ROOM * CURVE_STRIDE);
  const curves = { numbers, starts: new Float32Array(numbers.buffer), indexOf };
  indexOf(1 / 3, 2 / 3);
  return curves;
}

const CLOSE = 1e-11;
const ROUNDS = 5;

/**
 * Curve parameter at x ∈ [0, 1] for a polynomial without its constant, |x(u) − x| ≤ 1e-11: by Halley's third-order steps
 * from a starting point, and where the curve is too flat for these by bisection.
 */
export function solveFrom(start: number, cubic: number, square: number, line: number, x: number): number {
  let u = start;
  for (let round = 0; round < ROUNDS; round++) {
    const before = ((cubic * u + square) * u + line) * u - x;
    const slope = (3 * cubic * u + 2 * square) * u + line;
    u -= (before * slope) / (slope * slope - before * (3 * cubic * u + square));
    const miss = ((cubic * u + square) * u + line) * u - x;
    if (miss <= CLOSE && miss >= -CLOSE && u >= 0 && u <= 1) return u;
  }
  const [x1, x2] = [line / 3, (square + 2 * line) / 3];
  const isThere = u >= 0 && u <= 1 && Math.abs(unitCubic(x1, x2, u) - x) <= CLOSE;
  return isThere ? u : solveBezier(x, x1, x2);
}
