import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { cubicTurns } from './cubic';

const place = fc.integer({ min: -100, max: 100 });

/** The polynomial of a cubic Bézier. Source: CSS Easing 1, and any handbook of geometry. */
function on([p0, p1, p2, p3]: readonly number[], t: number): number {
  return (1 - t) ** 3 * p0 + 3 * (1 - t) ** 2 * t * p1 + 3 * (1 - t) * t ** 2 * p2 + t ** 3 * p3;
}

describe('where a curve turns', () => {
  test('with its ends, is as far as it reaches', () => {
    fc.assert(
      fc.property(place, place, place, place, (...points) => {
        const walked = Array.from({ length: 1_001 }, (_, i) => on(points, i / 1_000));
        const ends = [points[0], points[3], ...cubicTurns(points)];
        expect(Math.max(...ends)).toBeCloseTo(Math.max(...walked), 2);
        expect(Math.min(...ends)).toBeCloseTo(Math.min(...walked), 2);
      }),
    );
  });

  test('is nowhere on a straight line, once on an arch, twice on a wave', () => {
    expect(cubicTurns([0, 1, 2, 3])).toEqual([]);
    expect(cubicTurns([5, 5, 5, 5])).toEqual([]);
    expect(cubicTurns([0, 80, 80, 0])).toEqual([60]);
    expect(cubicTurns([0, 90, -60, 30]).map(Math.round)).toHaveLength(2);
  });
});
