import { PEAKS_A_SECOND, secondsFromTicks, type Layer } from '@wexikine/core';
import type { TimeWindow } from '../sheet/time-window';

const STEP = 2;

/**
 * The loudness of a sound layer as the outline of an area, SVG path data: mirrored about the middle of a box so many px wide
 * and high that shows a stretch of time.
 */
export function wavePath(
  { source, span }: Layer,
  peaks: Float32Array,
  shown: TimeWindow,
  width: number,
  height: number,
): string {
  if (source.type !== 'sound' || width <= 0 || shown.span <= 0) return '';
  const timeAt = (x: number): number => shown.from + (x / width) * shown.span;
  const peakAt = (x: number): number => {
    const [from, to] = [timeAt(x), timeAt(x + STEP)].map((at) =>
      Math.floor(secondsFromTicks(source.from + at - span.in) * PEAKS_A_SECOND),
    );
    let most = 0;
    for (let i = Math.max(0, from); i <= to && i < peaks.length; i++) most = Math.max(most, peaks[i]);
    return Math.min(1, most * source.gain);
  };
  const xOf = (at: number): number => ((at - shown.from) / shown.span) * width;
  const [left, right] = [Math.max(0, xOf(span.in)), Math.min(width, xOf(span.out))];
  const points: [number, number][] = [];
  for (let x = left; x < right; x += STEP) points.push([Math.round(x), peakAt(x) * (height / 2 - 1)]);
  if (points.length === 0) return '';
  const middle = height / 2;
  const line = (sign: number, list: readonly [number, number][]): string =>
    list.map(([x, size]) => `${x} ${(middle + sign * Math.max(0.5, size)).toFixed(1)}`).join('L');
  return `M${line(-1, points)}L${line(1, [...points].reverse())}Z`;
}
