/** One point of a CSS `linear()` easing. */
export interface LinearPoint {
  readonly input: number;
  readonly output: number;
}

/** Index of the last point with input ≤ x, never the last point of all. */
function segmentBefore(points: readonly LinearPoint[], x: number): number {
  let low = 0;
  let high = points.length - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (points[middle].input <= x) low = middle;
    else high = middle - 1;
  }
  return Math.min(low, points.length - 2);
}

/**
 * CSS `linear()` as a function of x; beyond the ends the outer segments go on.
 * At a jump (equal inputs) the later point counts. Source: CSS Easing Functions Level 2, section 2.2.
 */
export function createLinearFunction(points: readonly LinearPoint[]): (x: number) => number {
  if (points.length === 1) return () => points[0].output;
  return (x) => {
    const at = segmentBefore(points, x);
    const [a, b] = [points[at], points[at + 1]];
    if (a.input === b.input) return x < a.input ? a.output : b.output;
    return a.output + ((b.output - a.output) * (x - a.input)) / (b.input - a.input);
  };
}
