/** Where a CSS `steps()` easing jumps. */
export type Jump = 'start' | 'end' | 'none' | 'both';

/** Number of rises of a `steps(count, jump)`. */
function rises(count: number, jump: Jump): number {
  if (jump === 'none') return count - 1;
  return jump === 'both' ? count + 1 : count;
}

function lead(jump: Jump): number {
  return jump === 'start' || jump === 'both' ? 1 : 0;
}

/**
 * Whole steps that have begun at x. A step begins at the number that k ÷ count is as a double; multiplying instead
 * would be a step late at, say, 0.29 of a hundred.
 */
function begun(x: number, count: number): number {
  const nearest = Math.round(x * count);
  return nearest / count <= x ? nearest : nearest - 1;
}

/**
 * CSS `steps(count, jump)` as a function of x; within [0, 1] the output stays within [0, 1].
 * Source: CSS Easing Functions Level 1, section 2.4.
 */
export function createSteps(count: number, jump: Jump): (x: number) => number {
  const total = rises(count, jump);
  return (x) => {
    let step = begun(x, count) + lead(jump);
    if (x >= 0) step = Math.max(0, step);
    if (x <= 1) step = Math.min(total, step);
    return step / total;
  };
}

/** ⌊a·b ÷ c⌋ without a rounding error, for integers 0 ≤ a ≤ c, b ≥ 1 and c ≥ 1. */
function floorOfRatio(a: number, b: number, c: number): number {
  const product = a * b;
  if (product > Number.MAX_SAFE_INTEGER) return Number((BigInt(Math.floor(a)) * BigInt(b)) / BigInt(c));
  return (product - (product % c)) / c;
}

/**
 * Progress of a `steps(count, jump)` segment of `length` ticks after `elapsed` of them, in [0, 1]. Decided on integers,
 * so that a step begins exactly on its tick.
 */
export function stepProgress(count: number, jump: Jump, elapsed: number, length: number): number {
  const total = rises(count, jump);
  return Math.min(total, floorOfRatio(elapsed, count, length) + lead(jump)) / total;
}
