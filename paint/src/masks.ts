import { lineStep, maskOutline, movedMask, type Mask, type TextSource } from '@wexikine/core';
import { drawSheet, growth, type Matrix, type Sheet } from './brush';
import type { Subject } from './contents';
import { valueAt } from './look';
import type { Context, Surfaces } from './surfaces';
import { firstBaseline, reach, useFont } from './text';

/** What a mask does to what came before it. */
const HOW = { add: 'source-over', take: 'destination-out', overlap: 'destination-in' } as const;

/** The masks of a layer as they are at its moment, each moved by its own channels. */
function masksOf({ frame, layer, index }: Subject): Mask[] {
  return (layer.look.masks ?? []).map((mask, place) => movedMask(mask, place, (id) => valueAt(frame, index, id)));
}

/** Sets a context to the middle of a mask's box, in px of the layer. Masks are moved, scaled and turned together by channels. */
function toMask(context: Context, { frame, index, width, height }: Subject, mask: Mask): void {
  const [x, y] = [valueAt(frame, index, 'mask.x') * width, valueAt(frame, index, 'mask.y') * height];
  const [scale, turn] = [valueAt(frame, index, 'mask.scale'), valueAt(frame, index, 'mask.rotation')];
  context.translate(width / 2 + x, height / 2 + y);
  context.rotate((turn * Math.PI) / 180);
  context.scale(scale, scale);
  context.translate((mask.x - 0.5) * width, (mask.y - 0.5) * height);
  context.rotate((mask.turn * Math.PI) / 180);
}

/** From the middle of a mask's box to its hundredths. */
function toHundredths(context: Context, { width, height }: Subject, mask: Mask): void {
  context.scale((mask.width * width) / 100, (mask.height * height) / 100);
  context.translate(-50, -50);
}

/** Size that words are measured at, px. */
const MEASURED = 100;

/** Draws words about the middle, as large as they fit into a box. */
function drawWords(
  surfaces: Surfaces,
  context: Context,
  words: NonNullable<Mask['words']>,
  w: number,
  h: number,
): void {
  const source: TextSource = { type: 'text', ...words, size: MEASURED, align: 'middle' };
  const family = words.fontFile === undefined ? words.font : surfaces.family(words.fontFile, words.axes);
  useFont(context, source, family, 0);
  const lines = words.text.split('\n');
  const long = Math.max(...lines.map((line) => context.measureText(line).width));
  const high = lines.length * lineStep(source);
  if (long <= 0) return;
  const fit = Math.min(w / long, h / high);
  context.scale(fit, fit);
  const first = firstBaseline(source, high, reach(context)) - high / 2;
  lines.forEach((line, i) => context.fillText(line, 0, first + i * lineStep(source)));
}

/** Draws what a mask covers, opaque, or as opaque as its picture lets show. */
function drawMask(surfaces: Surfaces, sheet: Sheet, subject: Subject, mask: Mask): void {
  const { context } = sheet;
  toMask(context, subject, mask);
  const [w, h] = [mask.width * subject.width, mask.height * subject.height];
  const outline = maskOutline(mask);
  if (outline !== null) {
    toHundredths(context, subject, mask);
    context.fill(surfaces.path(outline), mask.rule ?? 'evenodd');
  } else if (mask.words) {
    drawWords(surfaces, context, mask.words, w, h);
  } else if (mask.picture && w > 0 && h > 0) {
    const { a, b, c, d } = context.getTransform();
    const picture = surfaces.picture(mask.picture.href, Math.max(w * Math.hypot(a, b), h * Math.hypot(c, d)));
    if (picture) context.drawImage(picture, -w / 2, -h / 2, w, h);
    if (mask.picture.by === 'brightness') brightnessToAlpha(sheet);
  }
}

/** Half the side of a square that holds all that a mask can lie in, in its own hundredths. */
const FAR = 1e5;

/** Chromium clips with smooth edges on a page's canvas alone, not on offscreen ones. */
function clipsSmoothly(context: Context): boolean {
  return (
    typeof OffscreenCanvasRenderingContext2D === 'undefined' || !(context instanceof OffscreenCanvasRenderingContext2D)
  );
}

/**
 * Lets a context draw only where the masks of a layer let it, where that can be said by outlines: all of them sharp, the
 * first one showing or hiding, each further one hiding or keeping. Gives false and does nothing where it cannot, or where the
 * edges would not be smooth.
 */
export function clipByMasks(surfaces: Surfaces, { context, patch }: Sheet, subject: Subject, matrix: Matrix): boolean {
  if (!clipsSmoothly(context)) return false;
  const masks = masksOf(subject);
  const soft = valueAt(subject.frame, subject.index, 'mask.soft');
  const outlines = masks.map(maskOutline);
  const isPlain = masks.every(
    ({ how, rule, soft: own }, i) =>
      outlines[i] !== null &&
      soft + own <= 0 &&
      (i === 0 ? how !== 'overlap' : how !== 'add') &&
      (how !== 'take' || rule === undefined),
  );
  if (!isPlain) return false;
  const [a, b, c, d, e, f] = matrix;
  for (const [i, mask] of masks.entries()) {
    context.setTransform(a, b, c, d, e - patch.x, f - patch.y);
    toMask(context, subject, mask);
    toHundredths(context, subject, mask);
    const path = surfaces.path(outlines[i] ?? '');
    if (mask.how !== 'take') {
      context.clip(path, mask.rule ?? 'evenodd');
      continue;
    }
    const around = new Path2D();
    around.rect(-FAR, -FAR, 2 * FAR, 2 * FAR);
    around.addPath(path);
    context.clip(around, 'evenodd');
  }
  return true;
}

/** Leaves of a sheet what the masks of a layer let through; softened by a channel and by their own softness. */
export function cutByMasks(surfaces: Surfaces, sheet: Sheet, subject: Subject, matrix: Matrix): void {
  const masks = masksOf(subject);
  const [a, b, c, d, e, f] = matrix;
  const soft = valueAt(subject.frame, subject.index, 'mask.soft');
  const { width, height } = sheet.patch;
  const over: Sheet = { context: surfaces.take(width, height), patch: sheet.patch };
  // What is first taken away is taken from everything.
  if (masks[0]?.how === 'take') over.context.fillRect(0, 0, width, height);
  for (const mask of masks) {
    const blur = (soft + mask.soft) * growth([a, b, c, d]);
    const one: Sheet = { context: surfaces.take(width, height), patch: sheet.patch };
    one.context.setTransform(a, b, c, d, e - sheet.patch.x, f - sheet.patch.y);
    one.context.fillStyle = '#000';
    drawMask(surfaces, one, subject, mask);
    over.context.globalCompositeOperation = HOW[mask.how];
    over.context.filter = blur > 0 ? `blur(${blur}px)` : 'none';
    drawSheet(over, one);
    over.context.filter = 'none';
    surfaces.give(one.context);
  }
  sheet.context.globalAlpha = 1;
  sheet.context.globalCompositeOperation = 'destination-in';
  drawSheet(sheet, over);
  sheet.context.globalCompositeOperation = 'source-over';
  surfaces.give(over.context);
}

/** Weights of red, green and blue in brightness. Source: W3C Compositing 1, section 13; CSS Masking 1, section 7.10 (luminance). */
const [RED, GREEN, BLUE] = [0.2125, 0.7154, 0.0721];

/** Makes a sheet as transparent as it is dark. */
export function brightnessToAlpha({ context, patch: { width, height } }: Sheet): void {
  if (width <= 0 || height <= 0) return;
  const image = context.getImageData(0, 0, width, height);
  const { data } = image;
  for (let i = 0; i < data.length; i += 4) {
    const brightness = (RED * data[i] + GREEN * data[i + 1] + BLUE * data[i + 2]) / 255;
    data[i + 3] = Math.round(data[i + 3] * brightness);
  }
  context.putImageData(image, 0, 0);
}
