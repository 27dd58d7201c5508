import { describe, expect, test } from '@jest/globals';
import { converter, wcagLuminance } from 'culori';
import { chromaticity, relativeLuminance, rgbFromOklab, type Rgb } from '.';

const COLOURS: readonly Rgb[] = [
  [1, 0, 0],
  [0.2, 0.9, 0.4],
  [0.03, 0.02, 0.5],
  [0.5, 0.5, 0.5],
  [0.9, 0.1, 0.15],
];

describe('luminance and chromaticity of sRGB', () => {
  test('are those of a general-purpose library for colours', () => {
    const toXyz = converter('xyz65');
    for (const rgb of COLOURS) {
      const [r, g, b] = rgb;
      expect(relativeLuminance(rgb)).toBeCloseTo(wcagLuminance({ mode: 'rgb', r, g, b }), 3);
      const { x, y, z } = toXyz({ mode: 'rgb', r, g, b });
      const whole = x + 15 * y + 3 * z;
      expect(chromaticity(rgb).u).toBeCloseTo((4 * x) / whole, 3);
      expect(chromaticity(rgb).v).toBeCloseTo((9 * y) / whole, 3);
    }
  });

  test('u′ and v′ of the red and the white of sRGB are the published ones (IEC 61966-2-1, by the formulas of CIE 15)', () => {
    const red = chromaticity([1, 0, 0]);
    expect([red.u, red.v]).toEqual([expect.closeTo(0.4507, 3), expect.closeTo(0.5229, 3)]);
    const white = chromaticity([1, 1, 1]);
    expect([white.u, white.v]).toEqual([expect.closeTo(0.1978, 3), expect.closeTo(0.4683, 3)]);
    expect(chromaticity([0, 0, 0])).toEqual({ u: 0.1978, v: 0.4683, redness: 0 });
  });

  test('a red is saturated by its share of light', () => {
    expect(chromaticity([1, 0, 0]).redness).toBe(1);
    expect(chromaticity([1, 1, 1]).redness).toBeCloseTo(1 / 3, 9);
    expect(chromaticity([0.9, 0.2, 0.2]).redness).toBeGreaterThan(0.8);
    expect(chromaticity([0.9, 0.5, 0.5]).redness).toBeLessThan(0.8);
  });

  test('red, green and blue are clipped to what sRGB holds', () => {
    expect(rgbFromOklab({ l: 1, a: 0, b: 0 }).map((part) => Math.round(part * 255))).toEqual([255, 255, 255]);
    const out = rgbFromOklab({ l: 0.7, a: 0.4, b: 0.3 });
    expect(out.every((part) => part >= 0 && part <= 1)).toBe(true);
  });
});
