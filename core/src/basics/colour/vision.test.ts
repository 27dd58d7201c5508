import { expect, test } from '@jest/globals';
import { oklabFromCss } from './oklab';
import { seenAs, sightMatrix, SIGHTS } from './vision';

test('greys stay as they are in every sight: each row of its matrix adds up to one', () => {
  for (const { id } of SIGHTS) {
    for (const grey of ['#000000', '#777777', '#ffffff']) expect(seenAs(grey, id)).toBe(grey);
    const numbers = sightMatrix(id).split(' ').map(Number);
    expect(numbers).toHaveLength(20);
    for (const row of [0, 5, 10]) expect(numbers[row] + numbers[row + 1] + numbers[row + 2]).toBeCloseTo(1, 5);
  }
});

test('red and green of one lightness come near each other without red or green cones, and stay apart without blue ones', () => {
  const apart = (a: string, b: string): number => {
    const [x, y] = [oklabFromCss(a), oklabFromCss(b)];
    return Math.hypot((x?.a ?? 0) - (y?.a ?? 0), (x?.b ?? 0) - (y?.b ?? 0));
  };
  const [red, green] = ['#c0504d', '#4f9d4f'];
  const before = apart(red, green);
  for (const sight of ['protan', 'deutan'] as const) {
    expect(apart(seenAs(red, sight), seenAs(green, sight))).toBeLessThan(before * 0.5);
  }
  expect(apart(seenAs(red, 'tritan'), seenAs(green, 'tritan'))).toBeGreaterThan(before * 0.8);
  expect(seenAs('nonsense', 'protan')).toBe('nonsense');
});
