import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { grownAlpha } from './grow';

/** The same, pixel by pixel over all others. */
function slowly(alpha: Uint8ClampedArray, width: number, by: number): number[] {
  return [...alpha].map((own, i) => {
    let best = own;
    alpha.forEach((value, j) => {
      if (value < 128) return;
      const distance = Math.hypot((i % width) - (j % width), Math.floor(i / width) - Math.floor(j / width));
      best = Math.max(best, (by - distance) * 255 + value);
    });
    return Math.min(255, Math.round(best));
  });
}

describe('a grown shape', () => {
  test('is larger by as much on all sides, and round', () => {
    const dot = new Uint8ClampedArray(81);
    dot[40] = 255;
    const grown = grownAlpha(dot, 9, 9, 3);
    expect([...grown.slice(36, 45)]).toEqual([0, 255, 255, 255, 255, 255, 255, 255, 0]);
    // Two px off both ways is 2.83 px off: all but covered; three both ways is 4.24 px off.
    expect(grown[20]).toBe(255);
    expect(grown[10]).toBe(0);
  });

  test('is what a search over all pixels gives, where edges are hard', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 9 }),
        fc.array(
          fc.nat(9).map((one) => one === 0),
          { minLength: 1, maxLength: 80 },
        ),
        fc.double({ min: 0, max: 6, noNaN: true }),
        (width, inside, by) => {
          const height = Math.ceil(inside.length / width);
          const alpha = new Uint8ClampedArray(width * height);
          inside.forEach((one, i) => (alpha[i] = one ? 255 : 0));
          const expected = slowly(alpha, width, by);
          [...grownAlpha(alpha, width, height, by)].forEach((value, i) =>
            expect(Math.abs(value - expected[i])).toBeLessThanOrEqual(1),
          );
        },
      ),
    );
  });

  test('finds the nearest pixel also where one between is further off', () => {
    // By rows: inside at both ends of the upper one, and far below between them.
    const alpha = new Uint8ClampedArray(7 * 6);
    for (const at of [0, 2, 5 * 7 + 1]) alpha[at] = 255;
    expect([...grownAlpha(alpha, 7, 6, 1.5)]).toEqual(slowly(alpha, 7, 1.5));
    expect(grownAlpha(alpha, 7, 6, 1.5)[3]).toBe(255);
  });

  test('does not grow out of seams that are less than half there, and keeps a smooth edge', () => {
    const seam = Uint8ClampedArray.from([0, 0, 60, 0, 0, 0]);
    expect([...grownAlpha(seam, 6, 1, 3)]).toEqual([0, 0, 60, 0, 0, 0]);
    const edge = Uint8ClampedArray.from([255, 200, 0, 0, 0]);
    expect([...grownAlpha(edge, 5, 1, 2)]).toEqual([255, 255, 255, 200, 0]);
  });

  test('of nothing is nothing, and growing by nothing leaves it as it is', () => {
    expect([...grownAlpha(new Uint8ClampedArray(6), 3, 2, 9)]).toEqual([0, 0, 0, 0, 0, 0]);
    const shape = Uint8ClampedArray.from([0, 90, 255, 140]);
    expect([...grownAlpha(shape, 2, 2, 0)]).toEqual([...shape]);
  });
});
