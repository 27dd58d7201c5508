import type { Ticks } from '@wexikine/core';

/** The stretch of a scene that the strips show. */
export interface TimeWindow {
  readonly from: Ticks;
  /** Ticks across the width. */
  readonly span: Ticks;
}

/** Frames that a window shows at least. */
const LEAST_FRAMES = 8;

/** A window brought within a scene: not shorter than some frames, not beyond its ends. */
export function withinScene({ from, span }: TimeWindow, length: Ticks, frame: Ticks): TimeWindow {
  const wide = Math.min(length, Math.max(span, Math.min(length, LEAST_FRAMES * frame)));
  return { from: Math.min(length - wide, Math.max(0, from)), span: wide };
}

/** A window zoomed by a factor (above 1: closer) about a time that keeps its place. */
export function zoomed({ from, span }: TimeWindow, factor: number, about: Ticks): TimeWindow {
  const next = span / factor;
  return { from: about - ((about - from) / span) * next, span: next };
}

/** A little room on both sides of what is to be seen. */
const AIR = 0.06;

/** The window that shows a stretch of time with a little room around it. */
export function around(first: Ticks, last: Ticks, frame: Ticks): TimeWindow {
  const span = Math.max(last - first, frame);
  return { from: first - span * AIR, span: span * (1 + 2 * AIR) };
}

/** Where a time stands across a width in pixels. */
export function xIn({ from, span }: TimeWindow, at: Ticks, width: number): number {
  return ((at - from) / span) * width;
}
