import type { Layer, Track } from '@wexikine/core';
import { xIn, type TimeWindow } from './time-window';

/** The pixels, from the left, 0 to `width`, in which any of the layers has a key within the window. */
export function keyedPixels(layers: readonly Layer[], window: TimeWindow, width: number): number[] {
  const [from, to] = [window.from, window.from + window.span];
  const isKeyed = new Uint8Array(Math.max(0, Math.ceil(width)) + 1);
  const mark = (keys: Track): void => {
    for (const { at } of keys) if (at >= from && at <= to) isKeyed[Math.round(xIn(window, at, width))] = 1;
  };
  for (const { tracks } of layers) for (const keys of Object.values(tracks)) mark(keys);
  return Array.from(isKeyed.keys()).filter((x) => isKeyed[x] === 1);
}
