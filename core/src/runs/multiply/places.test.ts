import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { createDraw, weighted } from './draw';
import { placesOfCopies } from './places';

describe('places of copies', () => {
  const frame = { width: 1_000, height: 500 };
  const placing = { frame, count: 2_000, draw: createDraw({ seed: 9 }), seed: 9, draws: ['x', 'y'] as const };
  const whole = { x: 0.5, y: 0.5, width: 1, height: 1 };
  const own = () => ({ x: 500, y: 250 });

  test('a spread is even: each tenth of the frame has its share (chi-squared, 9 degrees of freedom, below 27.9 for 99.9 %)', () => {
    for (const part of ['x', 'y'] as const) {
      const size = part === 'x' ? 1_000 : 500;
      const counts = new Array<number>(10).fill(0);
      for (const at of placesOfCopies({ by: 'spread', shape: 'box', ...whole }, own, placing))
        counts[Math.floor((at[part] / size) * 10)]++;
      const chi = counts.reduce((sum, count) => sum + (count - 200) ** 2 / 200, 0);
      expect(chi).toBeLessThan(27.9);
    }
  });

  test('an ellipse is filled evenly: a quarter lies within half its radius, a sixth in each of six equal sectors', () => {
    const found = placesOfCopies({ by: 'spread', shape: 'ellipse', ...whole }, own, placing).map(({ x, y }) => ({
      x: (x - 500) / 500,
      y: (y - 250) / 250,
    }));
    expect(Math.max(...found.map(({ x, y }) => Math.hypot(x, y)))).toBeLessThanOrEqual(1);
    expect(found.filter(({ x, y }) => Math.hypot(x, y) <= 0.5).length / 2_000).toBeCloseTo(0.25, 1);
    const sectors = new Array<number>(6).fill(0);
    for (const { x, y } of found) sectors[Math.floor(((Math.atan2(y, x) / Math.PI + 1) / 2) * 6) % 6]++;
    // Chi-squared with 5 degrees of freedom: below 20.5 for 99.9 %.
    const chi = sectors.reduce((sum, count) => sum + (count - 2_000 / 6) ** 2 / (2_000 / 6), 0);
    expect(chi).toBeLessThan(20.5);
  });

  test('places that are apart do not come nearer than the gap, where there is room', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), (seed) => {
        const places = placesOfCopies({ by: 'apart', gap: 40, ...whole }, own, { ...placing, count: 80, seed });
        const least = Math.min(
          ...places.flatMap((a, i) => places.slice(i + 1).map((b) => Math.hypot(a.x - b.x, a.y - b.y))),
        );
        expect(least).toBeGreaterThanOrEqual(40);
      }),
      { numRuns: 20 },
    );
  });

  test('a direction leads from where the layer rests, a grid fills rows, a line is gone along evenly', () => {
    const [at] = placesOfCopies({ by: 'direction', degrees: 180, distance: 0.25, stray: 0 }, own, {
      ...placing,
      count: 1,
    });
    expect(at.x).toBeCloseTo(250, 9);
    expect(at.y).toBeCloseTo(250, 9);
    const grid = placesOfCopies({ by: 'grid', columns: 2, ...whole }, own, { ...placing, count: 4 });
    expect(grid.map(({ x, y }) => [x, y])).toEqual([
      [250, 125],
      [750, 125],
      [250, 375],
      [750, 375],
    ]);
    const line = placesOfCopies({ by: 'line', d: 'M0 0 L100 0' }, own, { ...placing, count: 5 });
    expect(line.map(({ x }) => Math.round(x))).toEqual([0, 25, 50, 75, 100]);
    const [alone] = placesOfCopies({ by: 'line', d: 'M0 0 L100 40' }, own, { ...placing, count: 1 });
    expect([alone.x, alone.y]).toEqual([expect.closeTo(50, 6), expect.closeTo(20, 6)]);
  });

  test('draws are the same whatever the number of copies, and known numbers on every machine', () => {
    const draw = createDraw({ seed: 7 });
    expect([draw(0, 'x'), draw(0, 'y'), draw(59, 'colour')].map((value) => Number(value.toFixed(9)))).toEqual([
      0.046734526, 0.427144776, 0.072458399,
    ]);
    expect(weighted([1, 0.0001, 3], 0.99)).toBe(2);
    expect(weighted([1], 0.5)).toBe(0);
  });
});

test('directions stray to either side alike, and never further than they may', () => {
  const draw = createDraw({ seed: 3 });
  const frame = { width: 1_000, height: 500 };
  const placing = { frame, count: 2_000, draw, seed: 3, draws: ['x', 'y'] as const };
  const places = placesOfCopies(
    { by: 'direction', degrees: 30, distance: 0.1, stray: 20 },
    () => ({ x: 500, y: 250 }),
    placing,
  );
  const angles = places.map(({ x, y }) => (Math.atan2(y - 250, x - 500) * 180) / Math.PI);
  expect(Math.min(...angles)).toBeGreaterThanOrEqual(10 - 1e-9);
  expect(Math.max(...angles)).toBeLessThanOrEqual(50 + 1e-9);
  // The mean of so many even draws of 40° is off by less than 40 / √(12 · 2000) · 4 (four standard errors).
  const mean = angles.reduce((sum, angle) => sum + angle, 0) / angles.length;
  expect(Math.abs(mean - 30)).toBeLessThan((40 / Math.sqrt(12 * 2_000)) * 4);
  for (const { x, y } of places) expect(Math.hypot(x - 500, y - 250)).toBeCloseTo(100, 9);
});
