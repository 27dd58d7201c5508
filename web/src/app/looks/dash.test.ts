import { expect, test } from '@jest/globals';
import { dashProblem, readDash } from './dash';

test('dashes and gaps are lengths by turns, with spaces or commas; nothing and none are a whole line', () => {
  expect(readDash('12 6', 8)).toEqual([12, 6]);
  expect(readDash('4, 2,', 8)).toEqual([4, 2]);
  expect(readDash(' 4px, .5px,3 ', 8)).toEqual([4, 0.5, 3]);
  expect(['', '  ', 'none', ' None '].map((text) => readDash(text, 8))).toEqual([[], [], [], []]);
});

test('what cannot be stored is told: words, lengths below 0 or beyond all size, too many of them', () => {
  expect(['dashed', '4 x', '-3', '100001', '4 Infinity'].map((text) => readDash(text, 8))).toEqual(Array(5).fill(null));
  expect(readDash('100000', 1)).toEqual([100_000]);
  expect(readDash('1 2 3', 3)).toHaveLength(3);
  expect(readDash('1 2 3 4', 3)).toBeNull();
  expect(dashProblem(8)).toMatch(/at most 8 lengths/);
});
