import { describe, expect, test } from '@jest/globals';
import { createEvenPath, evenPathOf, pathCurves, pathPoint, type EvenPath } from './even-path';

function pathOf(d: string): EvenPath {
  const path = createEvenPath(d);
  if (!path) throw new Error('no path');
  return path;
}

function at(d: string, distance: number): number[] {
  const { x, y, angle } = pathPoint(pathOf(d), distance);
  return [x, y, angle].map((one) => Number(one.toFixed(6)) + 0);
}

describe('a path that is gone along evenly', () => {
  test('has straight lines of every way of writing them', () => {
    for (const d of ['M10 20 L40 20 L40 60', 'M10 20 H40 V60', 'm10 20 l30 0 l0 40', 'm10 20 h30 v40']) {
      expect(pathOf(d).length).toBeCloseTo(70, 9);
      expect(at(d, 15)).toEqual([25, 20, 0]);
      expect(at(d, 50)).toEqual([40, 40, 90]);
      expect(pathOf(d).corners.map(Math.round)).toEqual([30]);
    }
  });

  test('has quadratic curves as the cubic ones that are the same line', () => {
    // A parabola's middle is halfway between that of its ends and its handle: (25 + 50 ÷ 2, 50).
    expect(pathCurves('M0 0 Q50 100 100 0').curves[0].map((one) => Number(one.toFixed(9)))).toEqual(
      [0, 0, 100 / 3, 200 / 3, 200 / 3, 200 / 3, 100, 0].map((one) => Number(one.toFixed(9))),
    );
    const half = pathOf('M0 0 Q50 100 100 0').length / 2;
    expect(at('M0 0 Q50 100 100 0', half)).toEqual([50, 50, 0]);
    // The length of the parabola y = 2x − x²/50 from 0 to 100, by its closed form: √5 · 50 + 25 · asinh 2.
    expect(pathOf('M0 0 Q50 100 100 0').length).toBeCloseTo(50 * Math.sqrt(5) + 25 * Math.asinh(2), 6);
    expect(pathCurves('M0 0 Q50 100 100 0 T200 0').curves).toHaveLength(2);
  });

  test('has arcs as long as they are', () => {
    expect(pathOf('M10 0 A10 10 0 0 1 -10 0').length).toBeCloseTo(Math.PI * 10, 2);
    const [x, y] = at('M10 0 A10 10 0 0 1 -10 0', Math.PI * 5);
    expect([x, y].map((one) => Math.round(one * 100) / 100 + 0)).toEqual([0, 10]);
  });

  test('is held at its ends, and goes round and round where it is closed', () => {
    expect(at('M0 0 H10', -5)).toEqual([0, 0, 0]);
    expect(at('M0 0 H10', 15)).toEqual([10, 0, 0]);
    const square = 'M0 0 H10 V10 H0 Z';
    expect(pathOf(square)).toMatchObject({ isClosed: true });
    expect(at(square, 35)).toEqual([0, 5, 270]);
    expect(at(square, 45)).toEqual([5, 0, 360]);
    expect(at(square, -5)).toEqual([0, 5, -90]);
    expect(at(square, 85)).toEqual([5, 0, 720]);
    expect(pathOf(square).corners.map(Math.round)).toEqual([10, 20, 30]);
  });

  test('ends where the pen is lifted, and is none where there is nothing to go along', () => {
    expect(pathOf('M0 0 H10 M50 50 H90').length).toBeCloseTo(10, 9);
    expect(pathOf('M5 5 M0 0 H10').length).toBeCloseTo(10, 9);
    expect(pathOf('M0 0 H10 Z H40')).toMatchObject({ isClosed: true });
    for (const nothing of ['', 'M0 0', 'M3 3 L3 3', 'nonsense']) expect(createEvenPath(nothing)).toBeNull();
  });

  test('goes the way of the nearest point that differs where handles lie on its ends', () => {
    expect(at('M0 0 C0 0 10 10 20 10', 0)[2]).toBe(45);
    const end = pathOf('M0 0 C10 0 20 10 20 10').length;
    expect(at('M0 0 C10 0 20 10 20 10', end)[2]).toBe(45);
    expect(at('M0 0 C0 0 0 30 0 30', 0)[2]).toBe(90);
  });

  test('gone in equal steps, is left behind in equal steps, whatever its handles are', () => {
    const path = pathOf('M0 0 C0 200 10 0 200 0');
    const places = Array.from({ length: 401 }, (_, i) => pathPoint(path, (path.length * i) / 400));
    const steps = places.slice(1).map(({ x, y }, i) => Math.hypot(x - places[i].x, y - places[i].y));
    for (const step of steps) expect(Math.abs(step / (path.length / 400) - 1)).toBeLessThan(0.02);
  });
});

test('a path is measured once for the same text, and again when many others came between', () => {
  const d = 'M0 0 H30 V40';
  const path = evenPathOf(d);
  expect(path?.length).toBeCloseTo(70, 9);
  expect(evenPathOf(d)).toBe(path);
  expect([evenPathOf('nonsense'), evenPathOf('nonsense')]).toEqual([null, null]);
  for (let i = 0; i < 500; i++) evenPathOf(`M0 0 H${i + 1}`);
  expect(evenPathOf('M0 0 H7')?.length).toBeCloseTo(7, 9);
  expect(evenPathOf(d)).not.toBe(path);
  expect(evenPathOf(d)?.length).toBeCloseTo(70, 9);
});
