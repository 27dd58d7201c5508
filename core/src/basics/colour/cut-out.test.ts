import { describe, expect, test } from '@jest/globals';
import { cssFromOklab, oklabFromCss } from '.';
import { cutOut, edgeColour, showKept, type CutOut } from './cut-out';

type Pixel = readonly [number, number, number, number];

function cut(pixels: readonly Pixel[], how: Partial<CutOut> & Pick<CutOut, 'what'>): number[][] {
  const data = Uint8ClampedArray.from(pixels.flat());
  cutOut(data, { tolerance: 0.1, softness: 0.1, spill: 0, ...how });
  return pixels.map((_, i) => [...data.subarray(i * 4, i * 4 + 4)]);
}

/** A colour over another, so much of it: what anti-aliasing makes of an edge. */
function mixed(over: readonly number[], under: readonly number[], share: number): Pixel {
  return [...[0, 1, 2].map((i) => Math.round(over[i] * share + under[i] * (1 - share))), 255] as unknown as Pixel;
}

const green = [0, 177, 64];
const screen = { by: 'colour', colour: '#00b140' } as const;

describe('taking a colour out', () => {
  test('takes it and what is near it, and leaves what is far exactly as it is', () => {
    const [taken, near, skin, black] = cut(
      [
        [0, 177, 64, 255],
        [10, 170, 70, 255],
        [224, 172, 140, 255],
        [0, 0, 0, 255],
      ],
      { what: screen },
    );
    expect(taken[3]).toBe(0);
    expect(near[3]).toBe(0);
    expect(skin).toEqual([224, 172, 140, 255]);
    expect(black).toEqual([0, 0, 0, 255]);
  });

  test('goes by distance in OKLab: a pixel at tolerance + half the softness is half kept', () => {
    // Two greys, whose distance is that of their lightness; 0.4 is 1. Reference: culori's conversion.
    const light = oklabFromCss('#808080')?.l ?? 0;
    const other = oklabFromCss('#b0b0b0')?.l ?? 0;
    const far = (other - light) / 0.4;
    const half = cut([[176, 176, 176, 255]], {
      what: { by: 'colour', colour: '#808080' },
      tolerance: far - 0.1,
      softness: 0.2,
    });
    expect(half[0][3]).toBeGreaterThanOrEqual(127);
    expect(half[0][3]).toBeLessThanOrEqual(128);
  });

  test('what was see-through stays so, and is multiplied', () => {
    expect(
      cut(
        [
          [255, 0, 0, 100],
          [0, 177, 64, 100],
          [9, 9, 9, 0],
        ],
        { what: screen },
      ).map((pixel) => pixel[3]),
    ).toEqual([100, 0, 0]);
  });

  test('takes the cast of the colour back, and no other colour', () => {
    const cast = oklabFromCss('#a8b8a0');
    const [clean, red] = cut(
      [
        [168, 184, 160, 255],
        [200, 60, 90, 255],
      ],
      { what: screen, spill: 1 },
    );
    const after = oklabFromCss(`rgb(${clean.slice(0, 3).join(' ')})`);
    const key = oklabFromCss('#00b140');
    const along = (lab: typeof cast): number => (lab?.a ?? 0) * (key?.a ?? 0) + (lab?.b ?? 0) * (key?.b ?? 0);
    expect(along(cast)).toBeGreaterThan(0.001);
    expect(Math.abs(along(after))).toBeLessThan(0.0006);
    expect(after?.l).toBeCloseTo(cast?.l ?? 0, 2);
    expect(red.slice(0, 3)).toEqual([200, 60, 90]);
  });
});

describe('taking out dark or light', () => {
  test('gives a white sign on black back as white, as see-through as it was mixed', () => {
    for (const share of [0.25, 0.5, 0.8]) {
      const [pixel] = cut([mixed([255, 255, 255], [0, 0, 0], share)], {
        what: { by: 'dark' },
        tolerance: 0,
        softness: 1,
      });
      expect(pixel.slice(0, 3)).toEqual([255, 255, 255]);
      expect(Math.abs(pixel[3] - 255 * share)).toBeLessThanOrEqual(1);
    }
  });

  test.each(['dark', 'light'] as const)('of %s takes no cast out of the colours that are kept', (by) => {
    const bright: Pixel[] = [
      [220, 60, 40, 255],
      [40, 190, 80, 255],
      [60, 80, 230, 255],
      [220, 200, 40, 255],
    ];
    expect(cut(bright, { what: { by }, tolerance: 0, softness: 0, spill: 1 })).toEqual(bright);
  });

  test('gives a black sign on white back as black', () => {
    const [edge, inside, paper] = cut([mixed([0, 0, 0], [255, 255, 255], 0.4), [0, 0, 0, 255], [255, 255, 255, 255]], {
      what: { by: 'light' },
      tolerance: 0,
      softness: 1,
    });
    expect(edge.slice(0, 3).every((part) => part <= 1)).toBe(true);
    expect(Math.abs(edge[3] - 102)).toBeLessThanOrEqual(1);
    expect(inside).toEqual([0, 0, 0, 255]);
    expect(paper[3]).toBe(0);
  });

  test('a softness of 0 makes a hard edge', () => {
    const alphas = cut(
      [
        [100, 100, 100, 255],
        [104, 104, 104, 255],
      ],
      { what: { by: 'dark' }, tolerance: 0.4, softness: 0 },
    );
    expect(alphas.map((pixel) => pixel[3])).toEqual([0, 255]);
  });
});

test('an edge over the taken colour, laid over black, is nearer to the sign alone than its mixture is', () => {
  const red = [214, 40, 40];
  const shares = Array.from({ length: 9 }, (_, i) => (i + 1) / 10);
  const edges = shares
    .map((share) => ({ share, mixture: mixed(red, green, share) }))
    .map(({ share, mixture }) => ({
      share,
      mixture,
      pixel: cut([mixture], { what: screen, tolerance: 0.02, softness: 0.75 })[0],
    }))
    .filter(({ pixel }) => pixel[3] > 0 && pixel[3] < 255);
  expect(edges.length).toBeGreaterThan(5);
  for (const { share, mixture, pixel } of edges) {
    const off = (colour: readonly number[]): number =>
      [0, 1, 2].reduce((sum, part) => sum + Math.abs((colour[part] * pixel[3]) / 255 - red[part] * share), 0);
    expect(off(pixel)).toBeLessThanOrEqual(off(mixture));
  }
});

test('the view of what is kept is its alpha in greys', () => {
  const data = Uint8ClampedArray.from([9, 8, 7, 255, 1, 2, 3, 0, 5, 5, 5, 100]);
  showKept(data);
  expect([...data]).toEqual([255, 255, 255, 255, 0, 0, 0, 255, 100, 100, 100, 255]);
});

test('the colour of most of the edge is found', () => {
  const [width, height] = [20, 10];
  const data = new Uint8ClampedArray(width * height * 4).fill(255);
  for (let i = 0; i < width * height; i++) data.set(i % 7 === 0 ? [250, 0, 0, 255] : [2, 178, 65, 255], i * 4);
  expect(edgeColour(data, width, height)).toBe('#02b241');
  expect(
    cssFromOklab(oklabFromCss(edgeColour(new Uint8ClampedArray(16), 2, 2)) ?? { l: 0, a: 0, b: 0, alpha: 1 }),
  ).toMatch(/^#/);
});

test('the edge is the first and the last row and column, and nothing within', () => {
  const red = [255, 0, 0, 255];
  // Red within and on the left; ten pixels of the edge are blue.
  const data = new Uint8ClampedArray(5 * 4 * 4);
  for (let y = 0; y < 4; y++) {
    for (let x = 0; x < 5; x++) {
      const isBlue = y === 0 || y === 3 ? x > 0 : x === 4;
      data.set(isBlue ? [0, 0, 250, 255] : red, (y * 5 + x) * 4);
    }
  }
  expect(edgeColour(data, 5, 4)).toBe('#0000fa');
});
