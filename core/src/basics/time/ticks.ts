import * as z from '../schema';

/**
 * Ticks in one second. 705 600 000 is divisible by every listed frame rate (and by 1001-based ones after
 * multiplying by 1001), so that one frame is always a whole number of ticks.
 */
export const TICKS_PER_SECOND = 705_600_000;

/** A time or a duration in ticks: an integer, exact up to 2^53 (about 147 days). */
export type Ticks = number;

/** The longest time that can be held exactly, in ticks: about 147 days. */
export const MOST_TICKS: Ticks = Number.MAX_SAFE_INTEGER;

/** True for a time that can be held exactly. */
export function isHeldExactly(ticks: number): boolean {
  return Number.isInteger(ticks) && Math.abs(ticks) <= MOST_TICKS;
}

/** A time in whole ticks of 1/705 600 000 s, within what numbers hold exactly. */
export const ticksSchema = z
  .int()
  .min(-MOST_TICKS)
  .max(MOST_TICKS)
  .describe('A time in ticks; 705 600 000 ticks are one second.');

/** Seconds (any real number) to the nearest tick. */
export function ticksFromSeconds(seconds: number): Ticks {
  return Math.round(seconds * TICKS_PER_SECOND);
}

/** Ticks to seconds. */
export function secondsFromTicks(ticks: Ticks): number {
  return ticks / TICKS_PER_SECOND;
}
