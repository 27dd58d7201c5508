/** A spring that starts at rest, pulled to 1. */
export interface SpringShape {
  /** Damping ratio, > 0: below 1 it swings past, at 1 it settles fastest without swinging, above 1 it creeps. */
  readonly damping: number;
  /** Share of the way within which it counts as settled, in (0, 1). */
  readonly within: number;
}

/** Below this distance from 1 the two exponentials of the damped cases are too close to tell apart. */
const NEARLY_CRITICAL = 1e-6;
const ROUNDS = 80;

/**
 * Share of the way still to go, after `t` radians of the undamped motion; 1 at 0. Closed form for all three cases.
 * Source: the damped harmonic oscillator of any mechanics handbook.
 */
export function springRemainder(damping: number, t: number): number {
  if (Math.abs(damping - 1) < NEARLY_CRITICAL) return (1 + t) * Math.exp(-t);
  if (damping < 1) {
    const turn = Math.sqrt(1 - damping * damping);
    return Math.exp(-damping * t) * (Math.cos(turn * t) + (damping / turn) * Math.sin(turn * t));
  }
  const root = Math.sqrt(damping * damping - 1);
  const [slow, fast] = [damping - root, damping + root];
  return (fast * Math.exp(-slow * t) - slow * Math.exp(-fast * t)) / (2 * root);
}

/** A stretch that begins outside `within` and ends inside for good. */
function lastCrossing({ damping, within }: SpringShape): readonly [number, number] {
  if (damping < 1 - NEARLY_CRITICAL) {
    // The remainder is extreme every half turn, where it is e^(−damping·t).
    const half = Math.PI / Math.sqrt(1 - damping * damping);
    const turns = Math.max(1, Math.ceil(-Math.log(within) / (damping * half)));
    return [(turns - 1) * half, turns * half];
  }
  let end = 1;
  while (Math.abs(springRemainder(damping, end)) > within) end *= 2;
  return [0, end];
}

/** Radians of the undamped motion after which the spring stays within `within` of its place. */
export function springSettleTime(shape: SpringShape): number {
  let [low, high] = lastCrossing(shape);
  for (let round = 0; round < ROUNDS; round++) {
    const middle = (low + high) / 2;
    if (Math.abs(springRemainder(shape.damping, middle)) > shape.within) low = middle;
    else high = middle;
  }
  return high;
}

/** Half turns that a spring makes before it has settled; 0 for one that does not swing. */
export function springSwings(shape: SpringShape): number {
  if (shape.damping >= 1) return 0;
  return (springSettleTime(shape) * Math.sqrt(1 - shape.damping * shape.damping)) / Math.PI;
}

/** The way of a spring up to where it counts as settled, without the last jump home. */
export function springPath(shape: SpringShape): (u: number) => number {
  const length = springSettleTime(shape);
  return (u) => 1 - springRemainder(shape.damping, u * length);
}

/** A spring as an easing: it settles as the segment ends. Ends are exact; the last step is at most `within`. */
export function createSpring(shape: SpringShape): (u: number) => number {
  const path = springPath(shape);
  return (u) => (u <= 0 ? 0 : u >= 1 ? 1 : path(u));
}
