import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { converter } from 'culori';
import { cssFromLch, cssFromOklab, lchFromCss, oklabFromCss, type Lch } from '.';

// CSS Color 4, section 9.4, example of oklch() values of sRGB colours, to the places given there.
test('red, green and blue in OKLCH are those that are published', () => {
  const near = (text: string, [l, c, h]: readonly [number, number, number]): void => {
    const read = lchFromCss(text) as Lch;
    expect(read.l).toBeCloseTo(l, 3);
    expect(read.c).toBeCloseTo(c, 3);
    expect((read.h + 360) % 360).toBeCloseTo(h, 1);
  };
  near('#ff0000', [0.62796, 0.25768, 29.23]);
  near('#00ff00', [0.86644, 0.29483, 142.5]);
  near('#0000ff', [0.45201, 0.31321, 264.05]);
});

test('a colour of the screen comes back as it was, and agrees with a reference library', () => {
  const reference = converter('oklch');
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 0xffffff }), (number) => {
      const text = `#${number.toString(16).padStart(6, '0')}`;
      const read = lchFromCss(text) as Lch;
      expect(cssFromLch(read)).toBe(text);
      expect(read.c).toBeCloseTo(reference(text)?.c ?? 0, 9);
    }),
    // On the edge of what screens show, where rounding falls outside.
    { examples: [[0x00bc4d], [0x00ff00], [0xff0000], [0x0000ff]] },
  );
});

test('what no screen shows loses chroma, not lightness', () => {
  const shown = lchFromCss(cssFromLch({ l: 0.7, c: 0.32, h: 200, alpha: 1 })) as Lch;
  expect(shown.c).toBeLessThan(0.2);
  expect(shown.l).toBeCloseTo(0.7, 1);
});

test.each(['#12ab34', '#12ab3480', '#12ab34fe', '#00000000'])(
  '%s is written as it was read, with its alpha only where it has one',
  (text) => {
    const read = oklabFromCss(text);
    expect(read && cssFromOklab(read)).toBe(text);
  },
);
