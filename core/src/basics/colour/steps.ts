import { converter, formatHex, formatHex8, toGamut } from 'culori/fn';
import { relativeLuminance } from './luminance';
import { cssFromOklab, oklabFromCss } from './oklab';

/** How a colour goes on: lightness and chroma in OKLCH (0…1, 0…about 0.4), hue in degrees. */
export interface ColourStep {
  readonly lightness: number;
  readonly chroma: number;
  readonly hue: number;
}

/** A colour in OKLCH: lightness [0, 1], chroma about [0, 0.4], hue in degrees. */
export interface Lch {
  readonly l: number;
  readonly c: number;
  /** Degrees; of a grey 0. */
  readonly h: number;
  readonly alpha: number;
}

/** Chroma under which a colour is a grey, whose hue says nothing. Source: CSS Color 4, section 12.2 (powerless hues). */
const GREY = 4e-6;

/** Reads a CSS colour as OKLCH; null when it is none. */
export function lchFromCss(text: string): Lch | null {
  const lab = oklabFromCss(text);
  if (!lab) return null;
  const c = Math.hypot(lab.a, lab.b);
  return { l: lab.l, c, h: c < GREY ? 0 : (Math.atan2(lab.b, lab.a) * 180) / Math.PI, alpha: lab.alpha };
}

const toLch = converter('oklch');
const toRgb = converter('rgb');
const intoRgb = toGamut('rgb', 'oklch');
/** Half a step of what a screen shows: a colour that lies no further out is one on the edge, but for rounding. */
const HALF_STEP = 0.5 / 255;

/** CSS text of a colour in OKLCH; one that no screen shows loses chroma until it can be shown (CSS Color 4, section 13.2). */
export function cssFromLch({ l, c, h, alpha }: Lch): string {
  const lch = toLch({ mode: 'oklch', l: Math.min(1, Math.max(0, l)), c: Math.max(0, c), h, alpha });
  const exact = toRgb(lch);
  const isShown = [exact.r, exact.g, exact.b].every((part) => part >= -HALF_STEP && part <= 1 + HALF_STEP);
  const rgb = isShown ? exact : intoRgb(lch);
  return alpha < 1 ? formatHex8(rgb) : formatHex(rgb);
}

/** A colour so many steps further; what is no CSS colour stays as it is. */
export function steppedColour(text: string, { lightness, chroma, hue }: ColourStep, steps: number): string {
  const lch = lchFromCss(text);
  if (!lch || steps === 0) return text;
  return cssFromLch({
    l: lch.l + lightness * steps,
    c: lch.c + chroma * steps,
    h: lch.h + hue * steps,
    alpha: lch.alpha,
  });
}

/** The shorter way from one hue to another, degrees. Source: CSS Color 4, section 12.4 (shorter). */
function hueBetween(from: number, to: number, share: number): number {
  const way = ((((to - from) % 360) + 540) % 360) - 180;
  return from + way * share;
}

/**
 * The colour at a share (0…1) of a ramp through two or more colours, each as far from the next, in OKLCH with hues the shorter
 * way round. A grey takes on the hue of the colour beside it, so that a ramp to white does not turn.
 */
export function rampColour(colours: readonly string[], share: number): string {
  const stops = colours.map(lchFromCss).filter((one) => one !== null);
  if (stops.length === 0) return '#000000';
  if (stops.length === 1) return cssFromLch(stops[0]);
  const at = Math.min(1, Math.max(0, share)) * (stops.length - 1);
  const index = Math.min(stops.length - 2, Math.floor(at));
  const [from, to, part] = [stops[index], stops[index + 1], at - index];
  const [fromHue, toHue] = [from.c < GREY ? to.h : from.h, to.c < GREY ? from.h : to.h];
  const mixed = (a: number, b: number): number => a + (b - a) * part;
  return cssFromLch({
    l: mixed(from.l, to.l),
    c: mixed(from.c, to.c),
    h: hueBetween(fromHue, toHue, part),
    alpha: mixed(from.alpha, to.alpha),
  });
}

/** Relative luminance of a colour, 0…1; its alpha is left out of account. */
function luminance(text: string): number {
  const lab = oklabFromCss(text);
  if (!lab) return 0;
  // As it is written in whole steps of 255, which is what a screen shows.
  const hex = cssFromOklab({ ...lab, alpha: 1 });
  const part = (place: number): number => parseInt(hex.slice(place, place + 2), 16) / 255;
  return relativeLuminance([part(1), part(3), part(5)]);
}

/** Contrast ratio of two colours, 1…21; their alpha is left out of account. Source: WCAG 2.2, definition of contrast ratio. */
export function contrastRatio(a: string, b: string): number {
  const [first, second] = [luminance(a), luminance(b)];
  return (Math.max(first, second) + 0.05) / (Math.min(first, second) + 0.05);
}
