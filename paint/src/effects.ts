import { drawInMatrix, twoColourMatrix } from '@wexikine/core';
import type { Sheet } from './brush';
import { hasBorder, type Subject } from './contents';
import { valueAt } from './look';
import { faded, shadowsOf, type Shadow } from './shadows';

/** Colour functions of CSS in the order in which they are done. Source: W3C Filter Effects 1, section 6. */
const COLOURS = [
  ['colour.brightness', 'brightness', 1],
  ['colour.contrast', 'contrast', 1],
  ['colour.saturation', 'saturate', 1],
  ['colour.grey', 'grayscale', 0],
] as const;

function colourFilter({ frame, index }: Subject): string[] {
  const parts = COLOURS.flatMap(([channel, name, none]) => {
    const value = valueAt(frame, index, channel);
    return value === none ? [] : [`${name}(${value})`];
  });
  const hue = valueAt(frame, index, 'colour.hue');
  return hue === 0 ? parts : [...parts, `hue-rotate(${hue}deg)`];
}

/** What is done to a layer once it is drawn, at one frame. */
export interface Effects {
  readonly shadows: readonly Shadow[];
  readonly inner: Shadow | null;
  readonly tint: string | null;
  /** The two colours that it is drawn in, and how far. */
  readonly two: { readonly dark: string; readonly light: string; readonly amount: number } | null;
  /** Functions of a canvas's filter; the blur is added where its size on the screen is known. */
  readonly colours: readonly string[];
  /** Deviation in px of the layer. */
  readonly blur: number;
  /** A way in px of the layer along which it is smeared. */
  readonly streak: { readonly x: number; readonly y: number } | null;
}

/** The effects of a layer at a frame; null where it has none. */
export function effectsOf(subject: Subject): Effects | null {
  const { frame, layer, index } = subject;
  const shadows = shadowsOf(subject);
  const [inner, tint] = [valueAt(frame, index, 'inner.opacity'), valueAt(frame, index, 'tint.amount')];
  const colours = colourFilter(subject);
  const blur = valueAt(frame, index, 'blur');
  const length = valueAt(frame, index, 'streak.length');
  const hasInner = layer.look.inner !== undefined && inner > 0;
  const hasTint = layer.look.tint !== undefined && tint > 0;
  const two = layer.look.two === undefined ? 0 : valueAt(frame, index, 'colour.two');
  if (shadows.length === 0 && !hasInner && !hasTint && two <= 0 && colours.length === 0 && blur <= 0 && length <= 0)
    return null;
  const angle = (valueAt(frame, index, 'streak.angle') * Math.PI) / 180;
  return {
    shadows,
    inner:
      hasInner && layer.look.inner !== undefined
        ? {
            colour: faded(layer.look.inner, inner),
            x: valueAt(frame, index, 'inner.x'),
            y: valueAt(frame, index, 'inner.y'),
            blur: valueAt(frame, index, 'inner.blur'),
            spread: valueAt(frame, index, 'inner.spread'),
          }
        : null,
    tint: hasTint && layer.look.tint !== undefined ? faded(layer.look.tint, tint) : null,
    two: layer.look.two && two > 0 ? { ...layer.look.two, amount: two } : null,
    colours,
    blur,
    streak: length > 0 ? { x: Math.cos(angle) * length, y: Math.sin(angle) * length } : null,
  };
}

/** Lays a colour over what is drawn, and nowhere else. */
export function tintSheet({ context, patch: { width, height } }: Sheet, colour: string): void {
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.globalCompositeOperation = 'source-atop';
  context.fillStyle = colour;
  context.fillRect(0, 0, width, height);
  context.globalCompositeOperation = 'source-over';
}

/** Draws what is on a sheet in two colours. */
export function drawInTwo(
  { context, patch: { width, height } }: Sheet,
  { dark, light, amount }: NonNullable<Effects['two']>,
): void {
  if (width <= 0 || height <= 0) return;
  const image = context.getImageData(0, 0, width, height);
  drawInMatrix(image.data, twoColourMatrix(dark, light, amount));
  context.putImageData(image, 0, 0);
}

/** True where a layer is of parts that lie over each other, which would show through each other one by one. */
export function hasParts(subject: Subject, effects: Effects | null): boolean {
  const { fill, stroke } = subject.layer.look;
  return (fill !== undefined && stroke !== undefined) || hasBorder(subject) || (effects?.shadows.length ?? 0) > 0;
}

/** What a canvas's filter is to do with a layer that is drawn so much larger; null for nothing. */
export function filterOf({ colours, blur }: Effects, larger: number): string | null {
  const all = blur > 0 ? [...colours, `blur(${blur * larger}px)`] : colours;
  return all.length > 0 ? all.join(' ') : null;
}
