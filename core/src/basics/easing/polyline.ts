import type { LinearPoint } from './linear';

/** A `linear()` easing has at most this many points. */
export const MOST_POINTS = 4096;
const DEPTH = 16;
const FIRST_CUTS = 8;
/** Where a stretch is looked at; uneven, so that a curve that crosses its own middle is not taken for straight. */
const LOOKS = [0.21, 0.5, 0.79];
/** Inputs and outputs are written with so many decimals: a lightly damped spring crosses its way a hundred times. */
const DECIMALS = 8;

function rounded(value: number): number {
  return Number(value.toFixed(DECIMALS)) + 0;
}

/**
 * A progress function as points of a `linear()` easing, off by at most about `error` (share of the way) wherever it
 * is continuous. Ends are exact. `cuts` are the stretches that are looked at one by one; a function that swings needs
 * several for each swing.
 */
export function polylineOf(progress: (u: number) => number, error = 0.001, cuts = FIRST_CUTS): LinearPoint[] {
  const points: LinearPoint[] = [{ input: 0, output: rounded(progress(0)) }];
  const add = (a: number, b: number, depth: number): void => {
    const [from, to] = [progress(a), progress(b)];
    const isStraight = LOOKS.every((share) => {
      const chord = from + (to - from) * share;
      return Math.abs(progress(a + (b - a) * share) - chord) <= error;
    });
    if (isStraight || depth >= DEPTH || points.length > MOST_POINTS - cuts - DEPTH) {
      points.push({ input: rounded(b), output: rounded(to) });
      return;
    }
    const middle = (a + b) / 2;
    add(a, middle, depth + 1);
    add(middle, b, depth + 1);
  };
  for (let cut = 0; cut < cuts; cut++) add(cut / cuts, (cut + 1) / cuts, 3);
  return points;
}
