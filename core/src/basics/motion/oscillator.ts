import { springSettleTime } from '../easing';
import { exponential, sineCosine } from '../maths';

/** Damping this close to 1 counts as critical: the two exponentials could not be told apart. */
const NEARLY_CRITICAL = 1e-6;

/** How a mass on a spring moves: turns a second of the undamped motion (Hz, > 0), and the damping ratio (≥ 0). */
export interface Oscillator {
  readonly pace: number;
  readonly damping: number;
}

/** What a step of an oscillator makes of an offset and a speed: offset' = xx·offset + xv·speed, speed' = vx·offset + vv·speed. */
export interface OscillatorStep {
  readonly xx: number;
  readonly xv: number;
  readonly vx: number;
  readonly vv: number;
}

const DEGREES = 180 / Math.PI;

/**
 * The damped oscillator x'' = −ω²x − 2ζωx' over a time h, in seconds, in the three cases of damping; the same on every
 * machine. Source: any mechanics handbook.
 */
export function oscillatorStep({ pace, damping }: Oscillator, h: number): OscillatorStep {
  const omega = 2 * Math.PI * pace;
  if (!(omega > 0)) return { xx: 1, xv: h, vx: 0, vv: 1 };
  const decay = damping * omega;
  if (Math.abs(damping - 1) < NEARLY_CRITICAL) {
    const fall = exponential(-omega * h);
    return { xx: (1 + omega * h) * fall, xv: h * fall, vx: -omega * omega * h * fall, vv: (1 - omega * h) * fall };
  }
  if (damping < 1) {
    const swing = omega * Math.sqrt(1 - damping * damping);
    const fall = exponential(-decay * h);
    const [sine, cosine] = sineCosine(swing * h * DEGREES);
    const side = (decay / swing) * sine;
    return {
      xx: fall * (cosine + side),
      xv: (fall * sine) / swing,
      vx: (-fall * omega * omega * sine) / swing,
      vv: fall * (cosine - side),
    };
  }
  const root = omega * Math.sqrt(damping * damping - 1);
  const [slow, fast] = [-decay + root, -decay - root];
  const [late, early] = [exponential(slow * h) / (slow - fast), exponential(fast * h) / (slow - fast)];
  return {
    xx: slow * early - fast * late,
    xv: late - early,
    vx: slow * fast * (early - late),
    vv: slow * late - fast * early,
  };
}

/** An oscillator after a time h (seconds) from an offset and a speed: `[offset, speed]`. */
export function oscillate(offset: number, speed: number, law: Oscillator, h: number): readonly [number, number] {
  const { xx, xv, vx, vv } = oscillatorStep(law, h);
  return [xx * offset + xv * speed, vx * offset + vv * speed];
}

/** Seconds until an oscillator that was let go stays within a share of its offset; infinite without damping or pace. */
export function oscillatorSettles({ pace, damping }: Oscillator, within: number): number {
  if (!(pace > 0) || !(damping > 0)) return Infinity;
  return springSettleTime({ damping, within }) / (2 * Math.PI * pace);
}
