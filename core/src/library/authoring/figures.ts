import { formatChannelValue, type ChannelId } from '../../basics/channel';
import { sampleTrack, trackSpeed } from '../../scene/sample';
import type { Track } from '../../scene/layer';
import { frameTicks, type Rate, type Ticks } from '../../basics/time';

/** What a curve comes to, for comparing two. Values in the channel's unit, times in frames. */
export interface CurveFigures {
  readonly least: number;
  readonly greatest: number;
  /** From the first key to the last. */
  readonly frames: number;
  /** Greatest change from one frame to the next, always ≥ 0. */
  readonly fastest: number;
}

const LOOKS_A_FRAME = 8;

/** Extremes, length and fastest frame of a track of at least one key. */
export function curveFigures(keys: Track, rate: Rate): CurveFigures {
  const frame = frameTicks(rate);
  const [first, last] = [keys[0].at, keys[keys.length - 1].at];
  let [least, greatest, fastest] = [Infinity, -Infinity, 0];
  const look = (at: Ticks): void => {
    const value = sampleTrack(keys, at);
    least = Math.min(least, value);
    greatest = Math.max(greatest, value);
    fastest = Math.max(fastest, Math.abs(trackSpeed(keys, at)) * frame);
  };
  for (let at = first; at < last; at += frame / LOOKS_A_FRAME) look(at);
  for (const { at } of keys) look(at);
  return { least, greatest, frames: (last - first) / frame, fastest };
}

/** The figures of a curve against those of another, in words: each says what changed, or that it is as before. */
export function figureWords(channel: ChannelId, before: CurveFigures, after: CurveFigures): string[] {
  const value = (number: number): string => formatChannelValue(channel, number);
  const frames = (number: number): string => `${Number(number.toFixed(2))} f`;
  const change = (words: string, a: string, b: string, unit = ''): string =>
    a === b ? `${words} ${b}${unit} as before` : `${words} ${a} → ${b}${unit}`;
  return [
    change('highest', value(before.greatest), value(after.greatest)),
    change('lowest', value(before.least), value(after.least)),
    change('lasts', frames(before.frames), frames(after.frames)),
    change('fastest', value(before.fastest), value(after.fastest), ' a frame'),
  ];
}
