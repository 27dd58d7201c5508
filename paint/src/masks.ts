import { maskOutline } from '@wexikine/core';
import { drawPatch, growth, type Linear, type Patch } from './brush';
import type { Subject } from './contents';
import { valueAt } from './look';
import type { Context, Surfaces } from './surfaces';

/** What a mask does to what came before it. */
const HOW = { add: 'source-over', take: 'destination-out', overlap: 'destination-in' } as const;

/** Leaves of a surface what the masks of a layer let through. They are moved, scaled, turned and softened together by channels. */
export function cutByMasks(
  surfaces: Surfaces,
  surface: Context,
  { frame, layer, index, width, height }: Subject,
  matrix: readonly [...Linear, number, number],
  patch: Patch,
): void {
  const masks = layer.look.masks ?? [];
  const [a, b, c, d, e, f] = matrix;
  const soft = valueAt(frame, index, 'mask.soft');
  const [x, y] = [valueAt(frame, index, 'mask.x') * width, valueAt(frame, index, 'mask.y') * height];
  const [scale, turn] = [valueAt(frame, index, 'mask.scale'), valueAt(frame, index, 'mask.rotation')];
  const { width: w, height: h } = surface.canvas;
  const over = surfaces.take(w, h, patch);
  // What is first taken away is taken from everything.
  if (masks[0]?.how === 'take') over.fillRect(patch.x, patch.y, patch.width, patch.height);
  for (const mask of masks) {
    const blur = (soft + mask.soft) * growth([a, b, c, d]);
    const one = surfaces.take(w, h, patch);
    one.setTransform(a, b, c, d, e, f);
    one.translate(width / 2 + x, height / 2 + y);
    one.rotate((turn * Math.PI) / 180);
    one.scale(scale, scale);
    one.translate((mask.x - 0.5) * width, (mask.y - 0.5) * height);
    one.rotate((mask.turn * Math.PI) / 180);
    one.scale((mask.width * width) / 100, (mask.height * height) / 100);
    one.translate(-50, -50);
    one.fillStyle = '#000';
    one.fill(surfaces.path(maskOutline(mask)), 'evenodd');
    over.globalCompositeOperation = HOW[mask.how];
    over.filter = blur > 0 ? `blur(${blur}px)` : 'none';
    drawPatch(over, one, patch);
    over.filter = 'none';
    surfaces.give(one);
  }
  surface.globalAlpha = 1;
  surface.globalCompositeOperation = 'destination-in';
  drawPatch(surface, over, patch);
  surface.globalCompositeOperation = 'source-over';
  surfaces.give(over);
}

/** Weights of red, green and blue in brightness. Source: W3C Compositing 1, section 13; CSS Masking 1, section 7.10 (luminance). */
const [RED, GREEN, BLUE] = [0.2125, 0.7154, 0.0721];

/** Makes a surface as transparent as it is dark. */
export function brightnessToAlpha(surface: Context, { x, y, width, height }: Patch): void {
  if (width <= 0 || height <= 0) return;
  const image = surface.getImageData(x, y, width, height);
  const { data } = image;
  for (let i = 0; i < data.length; i += 4) {
    const brightness = (RED * data[i] + GREEN * data[i + 1] + BLUE * data[i + 2]) / 255;
    data[i + 3] = Math.round(data[i + 3] * brightness);
  }
  surface.putImageData(image, x, y);
}
