import { formatShort, frameTicks, TICKS_PER_SECOND, type Rate, type Ticks } from '@wexikine/core';

export interface RulerMark {
  readonly x: number;
  /** Text of a main mark; null for a small one. */
  readonly label: string | null;
}

/** Seconds between main marks that are worth having. */
const STEPS = [0.2, 0.5, 1, 2, 5, 10, 15, 30, 60, 120, 300, 600];
const LEAST_PIXELS = 52;
const SMALL_MARKS = 5;

/** Marks of a time ruler over a width in pixels, with main ones at least 52 pixels apart. */
export function rulerMarks(length: Ticks, width: number, rate: Rate): RulerMark[] {
  const seconds = length / TICKS_PER_SECOND;
  if (width <= 0 || seconds <= 0) return [];
  const step = STEPS.find((candidate) => (candidate / seconds) * width >= LEAST_PIXELS) ?? seconds;
  const small = step / SMALL_MARKS;
  const count = Math.floor(seconds / small + 1e-9);
  return Array.from({ length: count + 1 }, (_, i) => {
    const at = i * small;
    const isMain = i % SMALL_MARKS === 0 && (at / seconds) * width < width - LEAST_PIXELS / 2;
    const frame = frameTicks(rate);
    const ticks = Math.round((at * TICKS_PER_SECOND) / frame) * frame;
    return { x: (at / seconds) * width, label: isMain ? formatShort(ticks, rate) : null };
  });
}
