import {
  CHANNEL_COUNT,
  CHANNELS,
  cssFromOklab,
  oklabFromCss,
  type Border,
  type Channel,
  type ChannelId,
  type Frame,
  type Layer,
  type Scene,
} from '@wexikine/core';
import type { View } from './brush';
import type { Context } from './surfaces';

/** A fill of many stops. */
export type ManyStops = Extract<Layer['look']['fill'], { stops: unknown }>;

/** Channels by name: a painter asks for thousands of values a frame. */
const BY_NAME = Object.fromEntries(CHANNELS.map((channel) => [channel.id, channel])) as Record<ChannelId, Channel>;

/** Drawn value of a channel of one layer in a sampled frame, within the channel's limits. */
export function valueAt(frame: Frame, index: number, id: ChannelId): number {
  const { slot, min, max } = BY_NAME[id];
  return Math.min(max, Math.max(min, frame.values[index * CHANNEL_COUNT + slot]));
}

function keyedColour(frame: Frame, layer: Layer, index: number, part: 'fill' | 'stroke', still: string): string {
  if (!layer.tracks[`${part}.l`] && !layer.tracks[`${part}.a`] && !layer.tracks[`${part}.b`]) return still;
  const value = (letter: 'l' | 'a' | 'b'): number => valueAt(frame, index, `${part}.${letter}`);
  return cssFromOklab({ l: value('l'), a: value('a'), b: value('b'), alpha: oklabFromCss(still)?.alpha ?? 1 });
}

/** Fill of a layer at a frame: a CSS colour or a gradient over its box; null for none. */
export function fillStyle(
  context: Context,
  frame: Frame,
  layer: Layer,
  index: number,
  width: number,
  height: number,
): string | CanvasGradient | null {
  const { fill } = layer.look;
  if (fill === undefined) return null;
  if (typeof fill === 'string') return keyedColour(frame, layer, index, 'fill', fill);
  if ('stops' in fill) return fill.stops[0].colour;
  const angle = fill.angle + valueAt(frame, index, 'fill.turn');
  const gradient = gradientAcross(context, angle, width, height);
  gradient.addColorStop(0, fill.from);
  gradient.addColorStop(1, fill.to);
  return gradient;
}

/** A straight gradient as CSS draws it: 0° runs down, and its ends touch the corners of the box. */
function gradientAcross(context: Context, angle: number, width: number, height: number, out = 0): CanvasGradient {
  const radians = (angle * Math.PI) / 180;
  const [dx, dy] = [-Math.sin(radians), Math.cos(radians)];
  const half = (Math.abs(dx) * (width + 2 * out) + Math.abs(dy) * (height + 2 * out)) / 2;
  const [x, y] = [width / 2, height / 2];
  return context.createLinearGradient(x - dx * half, y - dy * half, x + dx * half, y + dy * half);
}

/** Fills the frame of a scene behind all layers; a scene without a background stays as it is. */
export function paintBackground(
  context: Context,
  { background, width, height }: Pick<Scene, 'background' | 'width' | 'height'>,
  { scale, x, y }: View,
): void {
  if (!background) return;
  context.save();
  context.setTransform(scale, 0, 0, scale, x, y);
  const mapped = typeof background === 'object' && 'stops' in background;
  if (typeof background === 'string' || mapped) {
    context.fillStyle = typeof background === 'string' ? background : background.stops[0].colour;
  } else {
    const gradient = gradientAcross(context, background.angle, width, height);
    gradient.addColorStop(0, background.from);
    gradient.addColorStop(1, background.to);
    context.fillStyle = gradient;
  }
  context.fillRect(0, 0, width, height);
  context.restore();
}

/** The paint of a border: its colour, or a gradient over the layer's box and so many px around it, turned by degrees. */
export function acrossStyle(
  context: Context,
  { colour, to, angle = 0 }: Border,
  { width, height }: { readonly width: number; readonly height: number },
  out: number,
  turn: number,
): string | CanvasGradient {
  if (to === undefined) return colour;
  const gradient = gradientAcross(context, angle + turn, width, height, out);
  gradient.addColorStop(0, colour);
  gradient.addColorStop(1, to);
  return gradient;
}

/** Stroke colour of a layer at a frame; null where it has none or no width. */
export function strokeStyle(frame: Frame, layer: Layer, index: number): string | null {
  const { stroke } = layer.look;
  if (stroke === undefined || valueAt(frame, index, 'stroke.width') <= 0) return null;
  return keyedColour(frame, layer, index, 'stroke', stroke);
}

/**
 * A gradient of many stops, and the matrix in whose space it is drawn, px of the box, turned by degrees about the middle of
 * the box; null where that is flat.
 */
export function mappedGradient(
  context: Context,
  { kind, stops, map }: ManyStops,
  width: number,
  height: number,
  turn: number,
): { readonly gradient: CanvasGradient; readonly matrix: DOMMatrix } | null {
  const [a, b, c, d, e, f] = map;
  const [x, y] = [width / 2, height / 2];
  const matrix = new DOMMatrix()
    .translateSelf(x, y)
    .rotateSelf(turn)
    .translateSelf(-x, -y)
    .multiplySelf(new DOMMatrix([a * width, b * height, c * width, d * height, e * width, f * height]));
  if (Math.abs(matrix.a * matrix.d - matrix.b * matrix.c) < 1e-9) return null;
  const gradient =
    kind === 'linear' ? context.createLinearGradient(0, 0, 1, 0) : context.createRadialGradient(0, 0, 0, 0, 0, 1);
  for (const { at, colour } of stops) gradient.addColorStop(at, colour);
  return { gradient, matrix };
}
