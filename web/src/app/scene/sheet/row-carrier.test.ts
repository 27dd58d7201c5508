import { expect, test } from '@jest/globals';
import { driftAt } from './row-carrier';

test('rows go on by themselves only near the first and the last that is seen, the quicker the nearer, and never by more than a row', () => {
  const seen = [100, 500] as const;
  expect(driftAt(300, seen)).toBe(0);
  expect(driftAt(130, seen)).toBe(0);
  expect(driftAt(470, seen)).toBe(0);
  expect(driftAt(120, seen)).toBeLessThan(0);
  expect(driftAt(105, seen)).toBeLessThan(driftAt(120, seen));
  expect(driftAt(480, seen)).toBeGreaterThan(0);
  expect(driftAt(499, seen)).toBeGreaterThan(driftAt(480, seen));
  expect([driftAt(-5_000, seen), driftAt(5_000, seen)]).toEqual([-30, 30]);
});
