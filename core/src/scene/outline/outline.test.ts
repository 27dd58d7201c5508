import { describe, expect, test } from '@jest/globals';
import { maskOutline, outlinePath, regularPath } from '.';

const points = (d: string): number[][] =>
  [...d.matchAll(/(-?[\d.]+) (-?[\d.]+)/g)].map(([, x, y]) => [Number(x), Number(y)]);

describe('regular shapes', () => {
  test('have their corners as far from the middle as each other, the first on top', () => {
    for (const corners of [3, 5, 6, 60]) {
      const at = points(regularPath(corners));
      expect(at).toHaveLength(corners);
      expect(at[0]).toEqual([50, 0]);
      for (const [x, y] of at) expect(Math.hypot(x - 50, y - 50)).toBeCloseTo(50, 2);
      const side = (i: number): number =>
        Math.hypot(at[i][0] - at[(i + 1) % corners][0], at[i][1] - at[(i + 1) % corners][1]);
      // A side of a regular polygon is 2 r sin(π / n) long.
      for (let i = 0; i < corners; i++) expect(side(i)).toBeCloseTo(100 * Math.sin(Math.PI / corners), 1);
    }
  });

  test('are stars with corners between them that lie further in', () => {
    const at = points(regularPath(5, 20));
    expect(at).toHaveLength(10);
    expect(at.map(([x, y]) => Math.round(Math.hypot(x - 50, y - 50)))).toEqual([
      50, 20, 50, 20, 50, 20, 50, 20, 50, 20,
    ]);
  });
});

test('a path is stretched over the box of its layer, a rectangle and an ellipse lie in it', () => {
  const d = 'M0 0 L100 50 L25 100 Z';
  expect(points(outlinePath({ type: 'path', d }, 300, 40, 0).replace(/[A-Z]/g, ' $&'))).toEqual([
    [0, 0],
    [300, 20],
    [75, 40],
  ]);
  expect(outlinePath({ type: 'ellipse' }, 60, 20, 0)).toBe('M30 0 A30 10 0 0 1 30 20 A30 10 0 0 1 30 0 Z');
  expect(
    points(outlinePath({ type: 'rectangle' }, 60, 20, 5))
      .flat()
      .every((at) => at >= 0 && at <= 60),
  ).toBe(true);
});

describe('the outline of a mask', () => {
  test('is that of its shape; words and pictures have none', () => {
    expect(maskOutline({ shape: 'polygon', corners: 3 })).toBe(regularPath(3));
    expect(maskOutline({ shape: 'polygon' })).toBe(regularPath(6));
    expect(maskOutline({ shape: 'rectangle' })).toBe('M0 0 H100 V100 H0 Z');
    expect(maskOutline({ shape: 'path', d: 'M0 0 L9 9' })).toBe('M0 0 L9 9');
    expect([maskOutline({ shape: 'words' }), maskOutline({ shape: 'picture' })]).toEqual([null, null]);
  });
});
