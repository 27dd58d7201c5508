import { CHANNEL_COUNT, CHANNELS, movedShadow, type Box, type Layer } from '@wexikine/core';
import { LRUCache } from 'lru-cache';
import { drawSheet, growth, type Linear, type Matrix, type Sheet } from './brush';
import type { Contents, Subject } from './contents';
import { grownAlpha } from './grow';
import { valueAt } from './look';
import type { Context, Surfaces } from './surfaces';

/** The deviation of a shadow is half its blur on a canvas, and all of it in the filter of CSS. */
const CSS_BLUR = 2;
/** Shadows whose deviation is less than this, device px, are drawn where they fall, so that their edges stay sharp. */
const LEAST_SOFT = 1;
/** A shadow is drawn no larger than makes its deviation this many px: finer would not be seen. */
const FINE = 6;

/** A shadow in the layer's own pixels. */
export interface Shadow {
  readonly colour: string;
  readonly x: number;
  readonly y: number;
  readonly blur: number;
  /** How far it reaches beyond what throws it, px; not at all where it is not stated. */
  readonly spread?: number | undefined;
}

/** A colour that is so much fainter. */
export function faded(colour: string, opacity: number): string {
  return `color-mix(in srgb, ${colour} ${Number((opacity * 100).toFixed(3))}%, transparent)`;
}

/** The shadows that a layer throws, the uppermost first: its own, further ones, and its glow. */
export function shadowsOf({ frame, layer, index }: Subject): Shadow[] {
  const { shadow, shadows = [], glow } = layer.look;
  const all: Shadow[] = [];
  const opacity = shadow === undefined ? 0 : valueAt(frame, index, 'shadow.opacity');
  if (shadow !== undefined && opacity > 0) {
    const [x, y] = [valueAt(frame, index, 'shadow.x'), valueAt(frame, index, 'shadow.y')];
    const [blur, spread] = [valueAt(frame, index, 'shadow.blur'), valueAt(frame, index, 'shadow.spread')];
    all.push({ colour: faded(shadow, opacity), x, y, blur, spread });
  }
  for (const [place, further] of shadows.entries()) {
    const { colour, opacity: seen, ...moved } = movedShadow(further, place, (id) => valueAt(frame, index, id));
    if (seen > 0) all.push({ ...moved, colour: seen < 1 ? faded(colour, seen) : colour });
  }
  const shining = glow === undefined ? 0 : valueAt(frame, index, 'glow.opacity');
  if (glow !== undefined && shining > 0) {
    all.push({ colour: faded(glow, shining), x: 0, y: 0, blur: valueAt(frame, index, 'glow.size') });
  }
  return all;
}

/** Lets what is drawn next throw a shadow; `aside` is how far to the left it itself is drawn. */
function useShadow(context: Context, { colour, x, y, blur }: Shadow, [a, b, c, d]: Linear, aside = 0): void {
  context.shadowColor = colour;
  context.shadowOffsetX = a * x + c * y + aside;
  context.shadowOffsetY = b * x + d * y;
  context.shadowBlur = blur * CSS_BLUR * growth([a, b, c, d]);
}

function noShadow(context: Context): void {
  context.shadowColor = 'transparent';
  context.shadowOffsetX = 0;
  context.shadowOffsetY = 0;
  context.shadowBlur = 0;
}

/** Draws a sheet onto another one through a filter, and with a shadow where one is given. */
export function drawThrough(
  surfaces: Surfaces,
  onto: Sheet,
  sheet: Sheet,
  filter: string,
  shadow: Shadow | null,
  linear: Linear,
): void {
  if (shadow?.spread) return drawSpread(surfaces, onto, sheet, filter, shadow, linear);
  onto.context.filter = filter;
  if (shadow) useShadow(onto.context, shadow, linear);
  drawSheet(onto, sheet);
  onto.context.filter = 'none';
  noShadow(onto.context);
}

/** Draws the shadow of a surface alone, which begins so far to the left and above: what throws it lies far aside, unseen. */
function drawShadow(
  onto: Context,
  from: Context,
  shadow: Shadow,
  linear: Linear,
  width: number,
  height: number,
  room = 0,
): void {
  const aside = 2 * Math.max(onto.canvas.width, width);
  onto.setTransform(1, 0, 0, 1, 0, 0);
  useShadow(onto, shadow, linear, aside);
  onto.drawImage(from.canvas, 0, 0, width, height, -aside - room, -room, width, height);
  noShadow(onto);
}

/** As `drawThrough`, with a shadow that reaches further than what throws it, which is drawn first. */
function drawSpread(
  surfaces: Surfaces,
  onto: Sheet,
  sheet: Sheet,
  filter: string,
  shadow: Shadow,
  linear: Linear,
): void {
  const { width, height } = sheet.patch;
  const seen: Sheet = { context: surfaces.take(width, height), patch: sheet.patch };
  drawThrough(surfaces, seen, sheet, filter, null, linear);
  const grown = grownShape(surfaces, seen.context, (shadow.spread ?? 0) * growth(linear), width, height);
  const dark: Sheet = { context: surfaces.take(width, height), patch: sheet.patch };
  drawShadow(dark.context, grown, shadow, linear, width, height);
  drawSheet(onto, dark);
  drawSheet(onto, seen);
  for (const { context } of [seen, dark]) surfaces.give(context);
  surfaces.give(grown);
}

/** What a surface shows, so many device px larger on all sides; round at its corners. Give it back. */
function grownShape(surfaces: Surfaces, from: Context, by: number, width: number, height: number): Context {
  const image = from.getImageData(0, 0, width, height);
  const { data } = image;
  const alpha = new Uint8ClampedArray(width * height);
  for (let i = 0; i < alpha.length; i++) alpha[i] = data[4 * i + 3];
  const grown = grownAlpha(alpha, width, height, by);
  for (let i = 0; i < alpha.length; i++) data[4 * i + 3] = grown[i];
  const context = surfaces.take(width, height);
  context.putImageData(image, 0, 0);
  return context;
}

/** A blur is seen so many deviations away. */
export const BLUR_REACH = 3;

/** How far from the edge of what it falls into a shadow comes, device px. */
export function reachInside({ x, y, blur, spread = 0 }: Shadow, linear: Linear): number {
  const [a, b, c, d] = linear;
  const away = Math.max(Math.abs(a * x + c * y), Math.abs(b * x + d * y));
  return Math.ceil(away + (blur * BLUR_REACH + spread) * growth(linear)) + 1;
}

/** Draws a shadow that falls into what is drawn: that of all that is not there, on the sheet and as far beyond it as counts. */
export function shadeInside(surfaces: Surfaces, { context, patch }: Sheet, shadow: Shadow, linear: Linear): void {
  const room = reachInside(shadow, linear);
  const [width, height] = [patch.width + 2 * room, patch.height + 2 * room];
  const around = surfaces.take(width, height);
  around.fillStyle = '#000';
  around.fillRect(0, 0, width, height);
  around.globalCompositeOperation = 'destination-out';
  around.drawImage(context.canvas, 0, 0, patch.width, patch.height, room, room, patch.width, patch.height);
  around.globalCompositeOperation = 'source-over';
  const by = (shadow.spread ?? 0) * growth(linear);
  const thrown = by > 0 ? grownShape(surfaces, around, by, width, height) : around;
  context.globalCompositeOperation = 'source-atop';
  drawShadow(context, thrown, shadow, linear, width, height, room);
  if (thrown !== around) surfaces.give(thrown);
  context.globalCompositeOperation = 'source-over';
  surfaces.give(around);
}

/** Channels that move a layer or colour it, and leave its shadow as it is. */
const ASIDE =
  /^(position|path|anchor|scale|rotation|skew|opacity|fill\.[lab]$|stroke\.[lab]$|colour|tint|inner|mask|streak)/;
const SHAPING = CHANNELS.filter(({ id }) => !ASIDE.test(id)).map(({ slot }) => slot);

/** The shadows of a layer as a picture of their own, in the layer's own pixels times `scale`. */
interface Thrown {
  readonly picture: ImageBitmap;
  readonly numbers: Float64Array;
  readonly arrived: number;
  readonly scale: number;
  readonly box: Box;
  readonly width: number;
  readonly height: number;
}

/** Pixels of all shadows that are kept, at four bytes each. */
const MOST_PIXELS = 12 * 1024 * 1024;

/** Draws the shadows of layers from pictures that are kept while a layer only moves, turns or grows. */
export function createShadows(
  surfaces: Surfaces,
  contents: Contents,
): (onto: Sheet, subject: Subject, shadows: readonly Shadow[], box: Box, matrix: Matrix) => boolean {
  const kept = new LRUCache<Layer, Thrown>({
    maxSize: MOST_PIXELS,
    sizeCalculation: ({ picture }) => picture.width * picture.height,
    dispose: ({ picture }) => picture.close(),
  });

  const shapeOf = ({ frame, index }: Subject): Float64Array =>
    Float64Array.from(SHAPING, (slot) => frame.values[index * CHANNEL_COUNT + slot]);

  const throwAnew = (subject: Subject, shadows: readonly Shadow[], box: Box, scale: number): Thrown => {
    const width = Math.ceil((box.right - box.left) * scale);
    const height = Math.ceil((box.bottom - box.top) * scale);
    const linear: Linear = [scale, 0, 0, scale];
    const above = surfaces.take(width, height);
    above.setTransform(scale, 0, 0, scale, -box.left * scale, -box.top * scale);
    contents.draw(above, subject);
    contents.drawBorder(above, subject);
    const context = surfaces.take(width, height);
    // Each further shadow is thrown by all that is above it, as in a chain of filters.
    for (const shadow of shadows) {
      const one = surfaces.take(width, height);
      const by = (shadow.spread ?? 0) * scale;
      const thrown = by > 0 ? grownShape(surfaces, above, by, width, height) : above;
      drawShadow(one, thrown, shadow, linear, width, height);
      if (thrown !== above) surfaces.give(thrown);
      for (const below of [context, above]) {
        below.setTransform(1, 0, 0, 1, 0, 0);
        below.globalCompositeOperation = 'destination-over';
        below.drawImage(one.canvas, 0, 0);
        below.globalCompositeOperation = 'source-over';
      }
      surfaces.give(one);
    }
    surfaces.give(above);
    const picture = surfaces.pictureOf(context);
    return { picture, numbers: shapeOf(subject), arrived: surfaces.arrived(), scale, box, width, height };
  };

  /** A power of two, so that a layer that grows does not need a new one in every frame. */
  const scaleFor = (larger: number, softest: number): number =>
    2 ** Math.ceil(Math.log2(Math.min(larger, FINE / softest)));

  return (onto, subject, shadows, box, matrix) => {
    const [a, b, c, d, e, f] = matrix;
    const larger = growth([a, b, c, d]);
    const softest = shadows.reduce((least, { blur }) => Math.min(least, blur), Infinity);
    if (softest * larger < LEAST_SOFT) return false;
    const scale = scaleFor(larger, softest);
    const { layer } = subject;
    let thrown = kept.get(layer);
    const isSame =
      thrown?.scale === scale &&
      thrown.arrived === surfaces.arrived() &&
      SHAPING.every((slot, i) => subject.frame.values[subject.index * CHANNEL_COUNT + slot] === thrown?.numbers[i]);
    if (!thrown || !isSame) {
      thrown = throwAnew(subject, shadows, box, scale);
      kept.set(layer, thrown);
    }
    const { width, height } = thrown;
    const back = 1 / thrown.scale;
    onto.context.setTransform(a, b, c, d, e - onto.patch.x, f - onto.patch.y);
    onto.context.drawImage(
      thrown.picture,
      0,
      0,
      width,
      height,
      thrown.box.left,
      thrown.box.top,
      width * back,
      height * back,
    );
    return true;
  };
}
