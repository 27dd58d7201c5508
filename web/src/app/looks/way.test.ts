import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { toward, wayOf } from './way';

test('across and down are a direction clockwise from the right and a distance', () => {
  expect(wayOf(3, 4).distance).toBe(5);
  expect([wayOf(1, 0), wayOf(0, 1), wayOf(-1, 0), wayOf(0, -1)].map(({ direction }) => direction)).toEqual([
    0, 90, 180, 270,
  ]);
  expect(wayOf(0, 0)).toEqual({ direction: 90, distance: 0 });
});

test('a way leads where it points, and never backwards', () => {
  expect(toward({ direction: 90, distance: 12 })).toEqual({ x: 0, y: 12 });
  expect(toward({ direction: 180, distance: 8 })).toEqual({ x: -8, y: 0 });
  expect(toward({ direction: 45, distance: -8 })).toEqual({ x: 0, y: 0 });
});

test('there and back is where it was', () => {
  const length = fc.integer({ min: -5_000, max: 5_000 });
  fc.assert(
    fc.property(length, length, (x, y) => {
      expect(toward(wayOf(x, y))).toEqual({ x, y });
    }),
  );
});
