import type { Key, Track } from '../layer';
import type { Ticks } from '../../basics/time';
import { sampleTrack } from './segment';

/** Greatest error of a fitted segment, as a share of how far the channel moves. */
export const FIT_ERROR = 0.001;
const FIT_DEPTH = 10;

/** A moving value to be followed by segments: its value and speed at a time, and how far off they may be. */
export interface Fit {
  readonly value: (at: Ticks) => number;
  readonly speed: (at: Ticks) => number;
  readonly tolerance: number;
}

/** One cubic segment with the right values and speeds at both ends (Hermite form written as free handles). */
function hermite(fit: Fit, from: Ticks, to: Ticks): Key {
  const third = (to - from) / 3;
  const inset = (to - from) * 1e-6;
  const leave = fit.speed(from + inset) * third;
  const arrive = -fit.speed(to - inset) * third;
  const ease = {
    type: 'handles',
    leave: { time: 1 / 3, value: leave },
    arrive: { time: 1 / 3, value: arrive },
  } as const;
  return { at: from, value: fit.value(from), ease };
}

function isClose(fit: Fit, key: Key, to: Ticks): boolean {
  const trial: Track = [key, { at: to, value: fit.value(to), ease: { type: 'linear' } }];
  return [0.25, 0.5, 0.75].every((share) => {
    const at = key.at + (to - key.at) * share;
    return Math.abs(sampleTrack(trial, at) - fit.value(at)) <= fit.tolerance;
  });
}

/** A key of a fitted segment, and where it stands among the halves of the whole: '' is the first, '01' the second quarter. */
export interface FittedKey {
  readonly key: Key;
  readonly half: string;
}

/** Segments that follow a moving value within its tolerance, halving where one is not enough. */
export function fitSegments(fit: Fit, from: Ticks, to: Ticks, half = ''): FittedKey[] {
  const key = hermite(fit, from, to);
  const middle = Math.round((from + to) / 2);
  if (half.length >= FIT_DEPTH || middle <= from || middle >= to || isClose(fit, key, to)) return [{ key, half }];
  return [...fitSegments(fit, from, middle, `${half}0`), ...fitSegments(fit, middle, to, `${half}1`)];
}
