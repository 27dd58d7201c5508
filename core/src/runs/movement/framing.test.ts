import { expect, test } from '@jest/globals';
import { wayByTurns } from './framing';

test('framings by turns are drawn anew by seed: no two neighbours alike, and each of them as often as the others', () => {
  const drawn = (ways: number, seed: number): number[] =>
    Array.from({ length: 3_000 }, (_, place) => wayByTurns(ways, place, seed));
  for (const seed of [1, 7]) {
    const places = drawn(4, seed);
    expect(places.slice(1).every((way, i) => way !== places[i])).toBe(true);
    // Chi-squared over the three ways to go on from each, 11 degrees of freedom: below 31.3 for 99.9 %.
    const counts = new Map<string, number>();
    places
      .slice(1)
      .forEach((way, i) => counts.set(`${places[i]} ${way}`, (counts.get(`${places[i]} ${way}`) ?? 0) + 1));
    expect(counts.size).toBe(12);
    const wanted = 2_999 / 12;
    expect([...counts.values()].reduce((sum, count) => sum + (count - wanted) ** 2 / wanted, 0)).toBeLessThan(31.3);
  }
  expect(drawn(4, 1)).toEqual(drawn(4, 1));
  expect(drawn(4, 2)).not.toEqual(drawn(4, 1));
  expect(new Set(drawn(1, 1))).toEqual(new Set([0]));
  // Two ways can only take turns.
  expect(
    drawn(2, 5)
      .slice(0, 6)
      .map((way, i) => (way + i) % 2),
  ).toEqual(Array(6).fill(drawn(2, 5)[0]));
});
