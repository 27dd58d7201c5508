import { formatShort, frameTicks, TICKS_PER_SECOND, type Rate } from '@wexikine/core';
import { xIn, type TimeWindow } from './time-window';

/** A mark of the ruler and its label. */
export interface RulerMark {
  readonly x: number;
  /** Text of a main mark; null for a small one. */
  readonly label: string | null;
}

/** Seconds between main marks that are worth having. */
const STEPS = [0.2, 0.5, 1, 2, 5, 10, 15, 30, 60, 120, 300, 600];
const LEAST_PIXELS = 52;
const SMALL_MARKS = 5;

/** Marks of a time ruler over a stretch of time, with main ones at least 52 pixels apart. */
export function rulerMarks(shown: TimeWindow, width: number, rate: Rate): RulerMark[] {
  const seconds = shown.span / TICKS_PER_SECOND;
  if (width <= 0 || seconds <= 0) return [];
  const frame = frameTicks(rate);
  const steps = [...[1, 2, 5, 10].map((frames) => (frames * frame) / TICKS_PER_SECOND), ...STEPS];
  const step = steps.sort((a, b) => a - b).find((one) => (one / seconds) * width >= LEAST_PIXELS) ?? seconds;
  const small = (step * TICKS_PER_SECOND) / SMALL_MARKS;
  const first = Math.ceil(shown.from / small - 1e-9);
  const last = Math.floor((shown.from + shown.span) / small + 1e-9);
  return Array.from({ length: Math.max(0, last - first + 1) }, (_, i) => {
    const at = (first + i) * small;
    const x = xIn(shown, at, width);
    const isMain = (first + i) % SMALL_MARKS === 0 && x < width - LEAST_PIXELS / 2;
    return { x, label: isMain ? formatShort(Math.round(at / frame) * frame, rate) : null };
  });
}
