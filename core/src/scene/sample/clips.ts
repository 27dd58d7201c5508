import { CHANNEL_COUNT, channelOf } from '../../basics/channel';
import { secondsFromTicks, TICKS_PER_SECOND, type Ticks } from '../../basics/time';
import type { ClipSource, Layer } from '../layer';

const SLOT = channelOf('clip.time').slot;

/** How the time in a clip goes on by its layer's span: where it stands, seconds, when that begins, and how fast it goes on. */
interface Course {
  readonly begins: Ticks;
  readonly from: number;
  readonly pace: number;
}

/** A layer whose clip is played by its span, with the cell that holds its time. */
interface Played extends Course {
  readonly cell: number;
}

/** Layers whose clips are played by their spans; null where there are none. */
export type CompiledClips = readonly Played[] | null;

function courseOf({ from, pace }: ClipSource, begins: Ticks): Course {
  return { begins, from: secondsFromTicks(from), pace };
}

/** The time in a clip, seconds, at a time of the scene. */
function timeIn({ begins, from, pace }: Course, time: Ticks): number {
  return Math.max(0, from + ((time - begins) / TICKS_PER_SECOND) * pace);
}

/** Finds the layers whose clips are played by their spans; where `clip.time` has keys these say it. */
export function compileClips(layers: readonly Layer[]): CompiledClips {
  const clips = layers.flatMap(({ source, span, tracks }, index): Played[] => {
    if (source.type !== 'clip' || tracks['clip.time'] !== undefined) return [];
    return [{ cell: index * CHANNEL_COUNT + SLOT, ...courseOf(source, span.in) }];
  });
  return clips.length > 0 ? clips : null;
}

/** Writes the times in clips at a time of the scene, seconds. Allocates nothing. */
export function playClips(clips: readonly Played[], time: Ticks, values: Float64Array): void {
  for (const clip of clips) values[clip.cell] = timeIn(clip, time);
}

/** The time in its clip that a layer shows by its span, seconds; null for a layer without a clip. */
export function clipTimeAt({ source, span }: Pick<Layer, 'source' | 'span'>, time: Ticks): number | null {
  return source.type === 'clip' ? timeIn(courseOf(source, span.in), time) : null;
}

/** The frame of a clip that is shown at a time in it, both seconds: behind its end the last one, or again from the beginning. */
export function shownTime({ length, loops }: Pick<ClipSource, 'length' | 'loops'>, time: number): number {
  const whole = secondsFromTicks(length);
  const at = Math.max(0, time);
  if (at < whole) return at;
  return loops === true ? at % whole : whole;
}
