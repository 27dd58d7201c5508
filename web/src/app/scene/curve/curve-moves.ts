import {
  apply,
  channelOf,
  movePicks,
  perUnit,
  setPickedValues,
  type ChannelUnit,
  type HandChange,
  type HandPicks,
  type Point,
  type Rate,
  type Scene,
  type Ticks,
} from '@wexikine/core';
import { snapTime } from '../keys/snap';
import type { KeyMark } from './curve-model';
import type { ValueScale } from './curve-shape';

/** By how much keys move: in time, and in the value of their channel. */
export interface KeyMove {
  readonly by: Ticks;
  readonly more: number;
}

/** What a key that is dragged can hold on to. */
export interface DragGround {
  readonly scale: ValueScale;
  readonly rate: Rate;
  /** Times that it takes where it comes near. */
  readonly targets: readonly Ticks[];
  /** How much time lies across so many pixels. */
  readonly ticksOf: (px: number) => Ticks;
}

/** Pixels within which a dragged key takes the time of something else. */
const REACH_PX = 6;
/** Steps of a value that can be told apart over the height that is seen. */
const GRAINS = 200;

/** A dragged difference on round steps that can be told apart in what is seen: 1, 0.1 … and never more than 1. */
export function roundTo(value: number, seen: number): number {
  const grain = Math.min(1, 10 ** Math.floor(Math.log10(Math.max(seen, 1e-6) / GRAINS)));
  return Math.round(value / grain) * grain;
}

/** By how much a key moves that is dragged from one place to another, px; held straight it goes the longer of the two ways. */
export function draggedBy(
  { line, at, y }: Pick<KeyMark, 'line' | 'at' | 'y'>,
  [from, to]: readonly [Point, Point],
  isStraight: boolean,
  { scale, rate, targets, ticksOf }: DragGround,
): KeyMove {
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  const isAcross = !isStraight || Math.abs(dx) >= Math.abs(dy);
  const isAlong = !isStraight || Math.abs(dy) > Math.abs(dx);
  const by = snapTime(at + (isAcross ? ticksOf(dx) : 0), targets, ticksOf(REACH_PX), rate) - at;
  const unit = perUnit(line.channel);
  const raw = isAlong ? scale.valueAt(y + dy) - scale.valueAt(y) : 0;
  // Whole pixels, degrees and per cent, or finer where these are large on screen.
  const more = roundTo(raw * unit, Math.abs(scale.high - scale.low) * unit) / unit;
  return { by: isAcross ? by : 0, more };
}

/** Picked keys moved in time, and those of one unit in value. */
export function movedPicks(scene: Scene, picks: HandPicks, { by, more }: KeyMove, unit: ChannelUnit): HandChange {
  const risen =
    more === 0
      ? { edits: [], picks }
      : setPickedValues(scene, picks, (value, channel) => (channelOf(channel).unit === unit ? value + more : value));
  if (by === 0) return risen;
  const between = apply(scene, risen.edits);
  if (!between.ok) return risen;
  const moved = movePicks(between.scene, picks, by);
  return { edits: [...risen.edits, ...moved.edits], picks: moved.picks };
}

/** Marks that lie within a box. */
export function marksWithin(
  marks: readonly KeyMark[],
  { x, y, width, height }: Point & { readonly width: number; readonly height: number },
): KeyMark[] {
  return marks.filter((mark) => mark.x >= x && mark.x <= x + width && mark.y >= y && mark.y <= y + height);
}
