import { CHANNEL_COUNT, channelOf } from '../../basics/channel';
import { secondsFromTicks, TICKS_PER_SECOND, type Ticks } from '../../basics/time';
import type { ClipSource, Layer } from '../layer';

const SLOT = channelOf('clip.time').slot;

/** A layer whose clip is played by its span: where its time in the clip stands, when that is `from`, and how fast it goes on. */
interface Played {
  readonly cell: number;
  readonly begins: Ticks;
  readonly from: number;
  readonly pace: number;
}

/** Layers whose clips are played by their spans; null where there are none. */
export type CompiledClips = readonly Played[] | null;

/** Finds the layers whose clips are played by their spans; where `clip.time` has keys these say it. */
export function compileClips(layers: readonly Layer[]): CompiledClips {
  const clips = layers.flatMap(({ source, span, tracks }, index): Played[] => {
    if (source.type !== 'clip' || tracks['clip.time'] !== undefined) return [];
    const from = secondsFromTicks(source.from);
    return [{ cell: index * CHANNEL_COUNT + SLOT, begins: span.in, from, pace: source.pace }];
  });
  return clips.length > 0 ? clips : null;
}

/** Writes the times in clips at a time of the scene, seconds. Allocates nothing. */
export function playClips(clips: readonly Played[], time: Ticks, values: Float64Array): void {
  for (const { cell, begins, from, pace } of clips) {
    values[cell] = Math.max(0, from + ((time - begins) / TICKS_PER_SECOND) * pace);
  }
}

/** The time in its clip that a layer shows by its span, seconds; null for a layer without a clip. */
export function clipTimeAt({ source, span }: Pick<Layer, 'source' | 'span'>, time: Ticks): number | null {
  if (source.type !== 'clip') return null;
  return Math.max(0, secondsFromTicks(source.from) + ((time - span.in) / TICKS_PER_SECOND) * source.pace);
}

/** The frame of a clip that is shown at a time in it, both seconds: behind its end the last one, or again from the beginning. */
export function shownTime({ length, loops }: Pick<ClipSource, 'length' | 'loops'>, time: number): number {
  const whole = secondsFromTicks(length);
  const at = Math.max(0, time);
  if (at < whole) return at;
  return loops === true ? at % whole : whole;
}

/** How long a layer can be before its clip is at its end, ticks; Infinity where it never is. */
export function clipLasts({ from, length, pace, loops }: ClipSource): Ticks {
  return loops === true || pace === 0 ? Infinity : Math.max(1, Math.round((length - from) / pace));
}
