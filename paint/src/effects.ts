import { drawPatch, growth, type Linear, type Patch } from './brush';
import { hasBorder, type Subject } from './contents';
import { valueAt } from './look';
import type { Context, Surfaces } from './surfaces';

/** The deviation of a shadow is half its blur on a canvas, and all of it in the filter of CSS. */
const CSS_BLUR = 2;
/** A blur is seen so many deviations away. */
const BLUR_REACH = 3;
/** Passes of a streak at most: each doubles how many copies are laid over each other. */
const MOST_PASSES = 8;

/** A shadow in the layer's own pixels. */
interface Shadow {
  readonly colour: string;
  readonly x: number;
  readonly y: number;
  readonly blur: number;
}

function faded(colour: string, opacity: number): string {
  return `color-mix(in srgb, ${colour} ${Number((opacity * 100).toFixed(3))}%, transparent)`;
}

/** The shadows that a layer throws, the uppermost first: its own, further ones, and its glow. */
function shadowsOf({ frame, layer, index }: Subject): Shadow[] {
  const { shadow, shadows = [], glow } = layer.look;
  const [opacity, shining] = [valueAt(frame, index, 'shadow.opacity'), valueAt(frame, index, 'glow.opacity')];
  return [
    ...(shadow !== undefined && opacity > 0
      ? [
          {
            colour: faded(shadow, opacity),
            x: valueAt(frame, index, 'shadow.x'),
            y: valueAt(frame, index, 'shadow.y'),
            blur: valueAt(frame, index, 'shadow.blur'),
          },
        ]
      : []),
    ...shadows,
    ...(glow !== undefined && shining > 0
      ? [{ colour: faded(glow, shining), x: 0, y: 0, blur: valueAt(frame, index, 'glow.size') }]
      : []),
  ];
}

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
  if (shadows.length === 0 && !hasInner && !hasTint && colours.length === 0 && blur <= 0 && length <= 0) return null;
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
          }
        : null,
    tint: hasTint && layer.look.tint !== undefined ? faded(layer.look.tint, tint) : null,
    colours,
    blur,
    streak: length > 0 ? { x: Math.cos(angle) * length, y: Math.sin(angle) * length } : null,
  };
}

/** True where a layer is of parts that lie over each other, which would show through each other one by one. */
export function hasParts(subject: Subject): boolean {
  const { fill, stroke } = subject.layer.look;
  return (fill !== undefined && stroke !== undefined) || hasBorder(subject) || shadowsOf(subject).length > 0;
}

/** How far beyond its box a layer's effects can be seen, px of the layer. */
export function effectsReach(effects: Effects | null): number {
  if (!effects) return 0;
  const { shadows, blur, streak } = effects;
  const thrown = shadows.reduce((far, { x, y, blur: soft }) => far + Math.hypot(x, y) + soft * BLUR_REACH, 0);
  return thrown + blur * BLUR_REACH + (streak ? Math.hypot(streak.x, streak.y) / 2 : 0);
}

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

/** Lays a colour over what is drawn, and nowhere else. */
export function tintSurface(surface: Context, colour: string, { x, y, width, height }: Patch): void {
  surface.setTransform(1, 0, 0, 1, 0, 0);
  surface.globalCompositeOperation = 'source-atop';
  surface.fillStyle = colour;
  surface.fillRect(x, y, width, height);
  surface.globalCompositeOperation = 'source-over';
}

/** Draws a shadow that falls into what is drawn: that of all that is not there. */
export function shadeInside(surfaces: Surfaces, surface: Context, shadow: Shadow, linear: Linear, patch: Patch): void {
  const { width, height } = surface.canvas;
  const around = surfaces.take(width, height, patch);
  around.fillStyle = '#000';
  around.fillRect(patch.x, patch.y, patch.width, patch.height);
  around.globalCompositeOperation = 'destination-out';
  drawPatch(around, surface, patch);
  around.globalCompositeOperation = 'source-over';
  surface.setTransform(1, 0, 0, 1, 0, 0);
  surface.globalCompositeOperation = 'source-atop';
  // What throws the shadow is drawn far aside, so that only its shadow is seen.
  const aside = width + patch.width;
  useShadow(surface, shadow, linear, aside);
  surface.drawImage(
    around.canvas,
    patch.x,
    patch.y,
    patch.width,
    patch.height,
    patch.x - aside,
    patch.y,
    patch.width,
    patch.height,
  );
  noShadow(surface);
  surface.globalCompositeOperation = 'source-over';
  surfaces.give(around);
}

/** Smears what is drawn evenly along a way on the screen, in place: copies are laid over each other, twice as many each pass. */
function smear(surfaces: Surfaces, surface: Context, x: number, y: number, patch: Patch): void {
  const passes = Math.min(MOST_PASSES, Math.max(1, Math.ceil(Math.log2(Math.hypot(x, y)))));
  const other = surfaces.take(surface.canvas.width, surface.canvas.height, patch);
  const { x: left, y: top, width, height } = patch;
  const copy = (onto: Context, from: Context, dx: number, dy: number): void =>
    onto.drawImage(from.canvas, left, top, width, height, left + dx, top + dy, width, height);
  for (let pass = 1; pass <= passes; pass++) {
    const [dx, dy] = [x / 2 ** (pass + 1), y / 2 ** (pass + 1)];
    other.clearRect(left, top, width, height);
    other.globalAlpha = 0.5;
    other.globalCompositeOperation = 'lighter';
    copy(other, surface, -dx, -dy);
    copy(other, surface, dx, dy);
    other.globalAlpha = 1;
    other.globalCompositeOperation = 'source-over';
    surface.setTransform(1, 0, 0, 1, 0, 0);
    surface.clearRect(left, top, width, height);
    copy(surface, other, 0, 0);
  }
  surfaces.give(other);
}

/** Draws a finished surface with its streak, colours, blur and shadows. */
export function drawWithEffects(
  surfaces: Surfaces,
  context: Context,
  surface: Context,
  effects: Effects,
  linear: Linear,
  patch: Patch,
): void {
  const [a, b, c, d] = linear;
  const { streak, colours, blur, shadows } = effects;
  if (streak) smear(surfaces, surface, a * streak.x + c * streak.y, b * streak.x + d * streak.y, patch);
  const filters = [...colours, ...(blur > 0 ? [`blur(${blur * growth(linear)}px)`] : [])];
  const filter = filters.length > 0 ? filters.join(' ') : 'none';
  let from = surface;
  // Each further shadow is thrown by all that is above it, as in a chain of filters.
  shadows.forEach((shadow, i) => {
    const isLast = i === shadows.length - 1;
    const onto = isLast ? context : surfaces.take(surface.canvas.width, surface.canvas.height, patch);
    if (!isLast) onto.globalAlpha = 1;
    onto.filter = i === 0 ? filter : 'none';
    useShadow(onto, shadow, linear);
    drawPatch(onto, from, patch);
    onto.filter = 'none';
    noShadow(onto);
    if (from !== surface) surfaces.give(from);
    from = onto;
  });
  if (shadows.length > 0) return;
  context.filter = filter;
  drawPatch(context, surface, patch);
  context.filter = 'none';
}
