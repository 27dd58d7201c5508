import { describe, expect, test } from '@jest/globals';
import type { LayerValues } from '../operation';
import { solvedIn } from './solved';

function layers(...rows: readonly (readonly [place: number, starts: number, lasts: number])[]): LayerValues[] {
  return rows.map(([place, starts, lasts], i) => ({ layer: `l${i}`, place, starts, lasts }) as LayerValues);
}

describe('what follows from a dry run', () => {
  test('nothing of nobody, and no gap of one place', () => {
    expect(solvedIn([])).toEqual({ start: null, gap: null, length: null, finish: null });
    expect(solvedIn(layers([0, 5, 10]))).toEqual({ start: 5, gap: null, length: 10, finish: 15 });
    expect(solvedIn(layers([0, 5, 10], [0, 7, 10]))).toEqual({ start: 5, gap: null, length: 10, finish: 17 });
  });

  test('a gap that all places have between them, in whatever order the layers come', () => {
    expect(solvedIn(layers([2, 14, 10], [0, 6, 10], [1, 10, 10]))).toEqual({
      start: 6,
      gap: 4,
      length: 10,
      finish: 24,
    });
  });

  test('of several layers in one place the earliest counts', () => {
    expect(solvedIn(layers([0, 3, 1], [0, 0, 1], [1, 5, 1], [1, 9, 1], [2, 10, 1])).gap).toBe(5);
  });

  test('no gap where they differ, no length where layers differ; it is over when the last one is', () => {
    const solved = solvedIn(layers([0, 0, 40], [1, 4, 10], [2, 9, 10]));
    expect(solved).toEqual({ start: 0, gap: null, length: null, finish: 40 });
    expect(solvedIn(layers([0, 0, 10], [1, 4, 10], [2, 8, 11])).length).toBeNull();
    expect(solvedIn(layers([0, 0, 10], [1, -4, 10], [2, -8, 10]))).toMatchObject({ start: -8, gap: -4, finish: 10 });
  });
});
