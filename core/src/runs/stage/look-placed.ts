import { CHANNEL_COUNT, channelOf, type ChannelId } from '../../basics/channel';
import type { Point } from '../../basics/transform';
import type { Layer } from '../../scene/layer';
import type { DragSets } from './channels';
import type { StageMoment } from './drag';

/** A layer at a moment, whose look has handles. */
export interface Placed {
  readonly layer: Layer;
  /** Size of its box, px. */
  readonly width: number;
  readonly height: number;
  readonly sets: DragSets;
  readonly value: (id: ChannelId) => number;
}

/** A handle in px of the layer. */
export interface OwnHandle<Grip> {
  readonly grip: Grip;
  readonly label: string;
  readonly at: Point;
  /** What it is measured from. */
  readonly from: Point;
}

/** What channels and parts of a look are to be, by a handle at a point of the layer, and that in words. */
export interface HandleSet {
  readonly channels?: Readonly<Partial<Record<ChannelId, number>>>;
  readonly look?: Layer['look'];
  readonly words: string;
}

/** Degrees of one radian. */
export const DEGREES = 180 / Math.PI;
/** Turns by steps of these degrees where that is asked for. */
export const STEP = 15;

/** A layer of a moment by its index. */
export function placedAt({ compiled, frame, sets }: StageMoment, index: number): Placed {
  const value = (id: ChannelId): number => frame.values[index * CHANNEL_COUNT + channelOf(id).slot];
  return { layer: compiled.layers[index], width: value('size.x'), height: value('size.y'), sets, value };
}

/** A point turned about the origin, clockwise on screen. */
export function turned({ x, y }: Point, degrees: number): Point {
  const [cos, sin] = [Math.cos(degrees / DEGREES), Math.sin(degrees / DEGREES)];
  return { x: cos * x - sin * y, y: sin * x + cos * y };
}

/** A number to so many places, never a negative zero. */
export const round = (value: number, digits = 1): number => Number(value.toFixed(digits)) + 0;
/** A number as it is said, with a true minus. */
export const said = (value: number): string => String(round(value)).replace('-', '−');
