import { maskOutline, type Mask } from '@wexikine/core';
import { drawSheet, growth, type Matrix, type Sheet } from './brush';
import type { Subject } from './contents';
import { valueAt } from './look';
import type { Context, Surfaces } from './surfaces';

/** What a mask does to what came before it. */
const HOW = { add: 'source-over', take: 'destination-out', overlap: 'destination-in' } as const;

/** Sets a context to a mask's own hundredths. They are moved, scaled and turned together by channels. */
function toMask(context: Context, { frame, index, width, height }: Subject, mask: Mask): void {
  const [x, y] = [valueAt(frame, index, 'mask.x') * width, valueAt(frame, index, 'mask.y') * height];
  const [scale, turn] = [valueAt(frame, index, 'mask.scale'), valueAt(frame, index, 'mask.rotation')];
  context.translate(width / 2 + x, height / 2 + y);
  context.rotate((turn * Math.PI) / 180);
  context.scale(scale, scale);
  context.translate((mask.x - 0.5) * width, (mask.y - 0.5) * height);
  context.rotate((mask.turn * Math.PI) / 180);
  context.scale((mask.width * width) / 100, (mask.height * height) / 100);
  context.translate(-50, -50);
}

/** Half the side of a square that holds all that a mask can lie in, in its own hundredths. */
const FAR = 1e5;

/**
 * Lets a context draw only where the masks of a layer let it, where that can be said by outlines: all of them sharp, the
 * first one showing or hiding, each further one hiding or keeping. Gives false and does nothing where it cannot.
 */
export function clipByMasks(surfaces: Surfaces, { context, patch }: Sheet, subject: Subject, matrix: Matrix): boolean {
  const masks = subject.layer.look.masks ?? [];
  const soft = valueAt(subject.frame, subject.index, 'mask.soft');
  const isPlain = masks.every(
    ({ how, rule, soft: own }, i) =>
      soft + own <= 0 && (i === 0 ? how !== 'overlap' : how !== 'add') && (how !== 'take' || rule === undefined),
  );
  if (!isPlain) return false;
  const [a, b, c, d, e, f] = matrix;
  for (const mask of masks) {
    context.setTransform(a, b, c, d, e - patch.x, f - patch.y);
    toMask(context, subject, mask);
    const path = surfaces.path(maskOutline(mask));
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
  const masks = subject.layer.look.masks ?? [];
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
    toMask(one.context, subject, mask);
    one.context.fillStyle = '#000';
    one.context.fill(surfaces.path(maskOutline(mask)), mask.rule ?? 'evenodd');
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
