import type { Ticks } from '../../basics/time';
import type { Track } from '../layer';
import { createTrackSampler } from './segment';

/** The greatest move from one frame to the next. */
export interface FrameStep {
  /** In the channel's unit, ≥ 0. */
  readonly by: number;
  /** Time of the frame from which it goes. */
  readonly at: Ticks;
}

/** Frames that are looked at; a longer track is looked at in as many steps of one frame, evenly spread. */
const MOST_FRAMES = 20_000;

/** The greatest move in one frame of some channels together (as one distance), on the frames between two times. */
export function greatestStep(tracks: readonly Track[], frame: Ticks, from: Ticks, to: Ticks): FrameStep {
  const first = Math.floor(from / frame);
  const count = Math.max(0, Math.ceil(to / frame) - first);
  const stride = Math.max(1, Math.ceil(count / MOST_FRAMES));
  const samplers = tracks.map(createTrackSampler);
  let best: FrameStep = { by: 0, at: first * frame };
  for (let i = 0; i < count; i += stride) {
    const at = (first + i) * frame;
    const by = Math.hypot(...samplers.map((valueAt) => valueAt(at + frame) - valueAt(at)));
    if (by > best.by) best = { by, at };
  }
  return best;
}
