import * as z from '../schema';
import { TICKS_PER_SECOND, type Ticks } from './ticks';

/** A frame rate as a fraction of frames per second, such as 30000/1001. */
export interface Rate {
  readonly num: number;
  readonly den: number;
}

/** The rates that the application offers: cinema, PAL and NTSC families and common screen rates. */
export const LISTED_RATES: readonly Rate[] = [
  { num: 24000, den: 1001 },
  { num: 24, den: 1 },
  { num: 25, den: 1 },
  { num: 30000, den: 1001 },
  { num: 30, den: 1 },
  { num: 48000, den: 1001 },
  { num: 48, den: 1 },
  { num: 50, den: 1 },
  { num: 60000, den: 1001 },
  { num: 60, den: 1 },
  { num: 90, den: 1 },
  { num: 100, den: 1 },
  { num: 120, den: 1 },
];

/** Length of one frame in ticks; a whole number for every valid rate. */
export function frameTicks(rate: Rate): Ticks {
  return (TICKS_PER_SECOND / rate.num) * rate.den;
}

/** A frame rate as a fraction of whole numbers, such as 30000/1001. */
export const rateSchema = z
  .strictObject({ num: z.int().min(1).max(240_000), den: z.int().min(1).max(1001) })
  .refine((rate) => Number.isInteger(frameTicks(rate)), {
    error: 'One frame at this rate is not a whole number of ticks. Use a rate such as 25/1 or 30000/1001.',
  })
  .describe('Frames per second as a fraction.');

/** Frames per second as a number, for display and rough arithmetic only. */
export function fps(rate: Rate): number {
  return rate.num / rate.den;
}

/** Whole number of frames counted per timecode second: 30 for 29.97. */
export function nominalFps(rate: Rate): number {
  return Math.round(rate.num / rate.den);
}

/** Nearest frame number to a time; halves go to the later frame. */
export function nearestFrame(ticks: Ticks, rate: Rate): number {
  return Math.round(ticks / frameTicks(rate));
}

/** The time of a frame. */
export function ticksFromFrame(frame: number, rate: Rate): Ticks {
  return frame * frameTicks(rate);
}

/** The time of the nearest frame. */
export function toFrameGrid(ticks: Ticks, rate: Rate): Ticks {
  return ticksFromFrame(nearestFrame(ticks, rate), rate);
}

/** Shown form of a rate: "25", "29.97". */
export function formatRate(rate: Rate): string {
  return String(Number(fps(rate).toFixed(3)));
}

/** Reads "25", "30000/1001" or "29.97"; null when it names no rate with a whole number of ticks a frame. */
export function parseRate(text: string): Rate | null {
  const fraction = /^\s*(\d+)\s*\/\s*(\d+)\s*$/.exec(text);
  if (fraction) {
    const parsed = rateSchema.safeParse({ num: Number(fraction[1]), den: Number(fraction[2]) });
    return parsed.success ? parsed.data : null;
  }
  const number = Number(text);
  return LISTED_RATES.find((rate) => Math.abs(fps(rate) - number) < 0.005) ?? null;
}
