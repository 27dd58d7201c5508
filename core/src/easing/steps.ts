/** Where a CSS `steps()` easing jumps. */
export type Jump = 'start' | 'end' | 'none' | 'both';

/** Number of rises of a `steps(count, jump)`. */
function rises(count: number, jump: Jump): number {
  if (jump === 'none') return count - 1;
  return jump === 'both' ? count + 1 : count;
}

/**
 * CSS `steps(count, jump)` as a function of x; within [0, 1] the output stays within [0, 1].
 * Source: CSS Easing Functions Level 1, section 2.4.
 */
export function createSteps(count: number, jump: Jump): (x: number) => number {
  const total = rises(count, jump);
  const lead = jump === 'start' || jump === 'both' ? 1 : 0;
  return (x) => {
    let step = Math.floor(x * count) + lead;
    if (x >= 0) step = Math.max(0, step);
    if (x <= 1) step = Math.min(total, step);
    return step / total;
  };
}
