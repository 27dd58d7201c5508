import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { exponential, sineCosine } from '.';

/** How far apart, in units of the last place of the one that is right. */
function apart(value: number, right: number): number {
  return Math.abs(value - right) / (Math.abs(right) * Number.EPSILON || Number.MIN_VALUE);
}

test('the exponential is the engine’s to two units in the last place, with its ends', () => {
  fc.assert(
    fc.property(fc.double({ min: -700, max: 700, noNaN: true }), (x) => {
      expect(apart(exponential(x), Math.exp(x))).toBeLessThanOrEqual(2);
    }),
  );
  expect([exponential(0), exponential(-1000), exponential(1000), exponential(NaN)]).toEqual([1, 0, Infinity, NaN]);
});

test('sine and cosine are the engine’s, and exact at quarter turns', () => {
  fc.assert(
    fc.property(fc.double({ min: -1e5, max: 1e5, noNaN: true }), (degrees) => {
      const [sine, cosine] = sineCosine(degrees);
      const exact = (degrees % 360) * (Math.PI / 180);
      expect(Math.abs(sine - Math.sin(exact))).toBeLessThan(4e-15);
      expect(Math.abs(cosine - Math.cos(exact))).toBeLessThan(4e-15);
    }),
  );
  expect([0, 90, 180, 270, -90, 450].map((degrees) => sineCosine(degrees).map((part) => part + 0))).toEqual([
    [0, 1],
    [1, 0],
    [0, -1],
    [-1, 0],
    [-1, 0],
    [1, 0],
  ]);
});
