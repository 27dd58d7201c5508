import { toFrameGrid, type Rate, type Ticks } from '@wexikine/core';
import { nearest } from './key-rows';

/** A dragged time: the nearest target within reach, else the nearest frame. */
export function snapTime(wanted: Ticks, targets: Iterable<Ticks>, within: Ticks, rate: Rate): Ticks {
  return nearest(targets, wanted, within) ?? toFrameGrid(wanted, rate);
}
