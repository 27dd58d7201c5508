import { describe, expect, test } from '@jest/globals';
import bezierEasing from 'bezier-easing';
import fc from 'fast-check';
import { unitCubic } from '../../basics/easing';
import { solveFrom } from './time-curve';

const share = fc.double({ min: 0, max: 1, noNaN: true });

function coefficients(x1: number, x2: number): [number, number, number] {
  return [1 + 3 * (x1 - x2), 3 * (x2 - 2 * x1), 3 * x1];
}

describe('solving a time curve', () => {
  test('finds the parameter from any starting point, also a useless one', () => {
    fc.assert(
      fc.property(share, share, share, fc.double({ min: -1, max: 2, noNaN: true }), (x1, x2, x, start) => {
        const u = solveFrom(start, ...coefficients(x1, x2), x);
        expect(u).toBeGreaterThanOrEqual(0);
        expect(u).toBeLessThanOrEqual(1);
        expect(Math.abs(unitCubic(x1, x2, u) - x)).toBeLessThan(1e-9);
      }),
      { numRuns: 500 },
    );
  });

  test('is right where the curve stands still in time: x1 = 1, x2 = 0, flat in the middle', () => {
    // x(u) = u³ − 3u²(1 − u)·… has slope 0 at u = 1/2, x = 1/2.
    for (const x of [0.499999, 0.5, 0.500001]) {
      const u = solveFrom(0.9, ...coefficients(1, 0), x);
      expect(Math.abs(unitCubic(1, 0, u) - x)).toBeLessThan(1e-9);
    }
  });

  test('agrees with bezier-easing (MIT, by G. Renaudeau), within that package’s own accuracy', () => {
    fc.assert(
      fc.property(share, share, share, (x1, x2, x) => {
        const u = solveFrom(x, ...coefficients(x1, x2), x);
        const eased = 3 * u * (1 - u) ** 2 * 0.2 + 3 * u * u * (1 - u) * 0.9 + u ** 3;
        // That package looks for a solution too coarsely where time hardly moves.
        const flat = (x1 > 0.9 && x2 < 0.1) || (x1 + x2 < 0.2 && x < 0.02) || (x1 + x2 > 1.8 && x > 0.98);
        if (!flat) expect(eased).toBeCloseTo(bezierEasing(x1, 0.2, x2, 0.9)(x), 2);
      }),
      { numRuns: 300 },
    );
  });
});
