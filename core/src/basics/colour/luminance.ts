import type { Rgb } from './oklab';

/** One part of sRGB in proportion to light, 0…1. Source: IEC 61966-2-1, as WCAG 2.2 cites it. */
function linear(part: number): number {
  return part <= 0.04045 ? part / 12.92 : ((part + 0.055) / 1.055) ** 2.4;
}

/** Relative luminance, 0 for black to 1 for white. Source: WCAG 2.2, definition of relative luminance. */
export function relativeLuminance([r, g, b]: Rgb): number {
  return 0.2126 * linear(r) + 0.7152 * linear(g) + 0.0722 * linear(b);
}

/** u′ and v′ of the white of sRGB (D65), which black is given. */
const WHITE = { u: 0.1978, v: 0.4683 };

/**
 * Chromaticity u′ and v′ (CIE 1976 UCS), and the share of red in red, green and blue, 0…1, by which a red is saturated
 * from 0.8 on. Source: WCAG 2.2, definition of general flash and red flash thresholds; matrix of IEC 61966-2-1.
 */
export function chromaticity(rgb: Rgb): { readonly u: number; readonly v: number; readonly redness: number } {
  const [r, g, b] = [linear(rgb[0]), linear(rgb[1]), linear(rgb[2])];
  const sum = r + g + b;
  if (sum === 0) return { ...WHITE, redness: 0 };
  const x = 0.4124 * r + 0.3576 * g + 0.1805 * b;
  const y = 0.2126 * r + 0.7152 * g + 0.0722 * b;
  const z = 0.0193 * r + 0.1192 * g + 0.9505 * b;
  const whole = x + 15 * y + 3 * z;
  return { u: (4 * x) / whole, v: (9 * y) / whole, redness: r / sum };
}
