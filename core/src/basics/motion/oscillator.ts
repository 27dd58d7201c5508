import { springSettleTime } from '../easing';

/** Damping this close to 1 counts as critical: the two exponentials could not be told apart. */
const NEARLY_CRITICAL = 1e-6;

/** How a mass on a spring moves: turns a second of the undamped motion (Hz, > 0), and the damping ratio (≥ 0). */
export interface Oscillator {
  readonly pace: number;
  readonly damping: number;
}

/**
 * The damped oscillator x'' = −ω²x − 2ζωx' after a time h (seconds) from an offset and a speed: `[offset, speed]`, in
 * the three cases of damping. Source: any mechanics handbook.
 */
export function oscillate(
  offset: number,
  speed: number,
  { pace, damping }: Oscillator,
  h: number,
): readonly [number, number] {
  const omega = 2 * Math.PI * pace;
  if (!(omega > 0)) return [offset + speed * h, speed];
  const decay = damping * omega;
  if (Math.abs(damping - 1) < NEARLY_CRITICAL) {
    const rise = speed + omega * offset;
    const fall = Math.exp(-omega * h);
    return [(offset + rise * h) * fall, (speed - omega * rise * h) * fall];
  }
  if (damping < 1) {
    const swing = omega * Math.sqrt(1 - damping * damping);
    const [sin, cos, fall] = [Math.sin(swing * h), Math.cos(swing * h), Math.exp(-decay * h)];
    const side = (speed + decay * offset) / swing;
    return [
      fall * (offset * cos + side * sin),
      fall * (speed * cos - ((omega * omega * offset + decay * speed) / swing) * sin),
    ];
  }
  const root = omega * Math.sqrt(damping * damping - 1);
  const [slow, fast] = [-decay + root, -decay - root];
  const share = (speed - fast * offset) / (slow - fast);
  const [a, b] = [share * Math.exp(slow * h), (offset - share) * Math.exp(fast * h)];
  return [a + b, slow * a + fast * b];
}

/** Seconds until an oscillator that was let go stays within a share of its offset; infinite without damping or pace. */
export function oscillatorSettles({ pace, damping }: Oscillator, within: number): number {
  if (!(pace > 0) || !(damping > 0)) return Infinity;
  return springSettleTime({ damping, within }) / (2 * Math.PI * pace);
}
