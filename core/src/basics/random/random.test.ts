import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { gradientNoise, randomAt, seedFromText, shuffled } from '.';

describe('seeded randomness', () => {
  test('numbers are spread evenly over [0, 1)', () => {
    const buckets = new Array<number>(10).fill(0);
    for (let i = 0; i < 10_000; i++) buckets[Math.floor(randomAt(42, i) * 10)]++;
    // Chi-square with 9 degrees of freedom stays below 27.9 with probability 0.999 (any statistics handbook).
    const chi = buckets.reduce((sum, n) => sum + (n - 1000) ** 2 / 1000, 0);
    expect(chi).toBeLessThan(27.9);
  });

  test('a shuffle keeps every item and depends on the seed alone', () => {
    fc.assert(
      fc.property(fc.array(fc.integer()), fc.nat(), (items, seed) => {
        const mixed = shuffled(items, seed);
        expect([...mixed].sort()).toEqual([...items].sort());
        expect(shuffled(items, seed)).toEqual(mixed);
      }),
    );
  });

  test('noise is 0 at whole numbers, within ±1, and smooth', () => {
    fc.assert(
      fc.property(fc.double({ min: -1000, max: 1000, noNaN: true }), fc.nat(), (x, seed) => {
        expect(Math.abs(gradientNoise(x, seed))).toBeLessThanOrEqual(1);
        expect(gradientNoise(Math.round(x), seed)).toBeCloseTo(0, 12);
        expect(Math.abs(gradientNoise(x + 1e-4, seed) - gradientNoise(x, seed))).toBeLessThan(1e-3);
      }),
    );
  });

  test('noise goes to either side alike, as far as two slopes against each other allow', () => {
    const all = Array.from({ length: 2_000 }, (_, seed) => gradientNoise(seed + 0.25, 7));
    expect(Math.abs(all.reduce((sum, value) => sum + value, 0) / all.length)).toBeLessThan(0.03);
    // The greatest is that of two slopes against each other, 2 × (0.25 + fade(0.25) × 0.5). Source: Perlin 2002.
    const most = 2 * (0.25 + 0.25 ** 3 * (0.25 * (0.25 * 6 - 15) + 10) * 0.5);
    expect(Math.max(...all.map(Math.abs))).toBeLessThanOrEqual(most);
    expect(Math.max(...all.map(Math.abs))).toBeGreaterThan(most * 0.8);
  });

  test('texts have seeds of their own', () => {
    expect(seedFromText('layer-1')).not.toBe(seedFromText('layer-2'));
  });
});
