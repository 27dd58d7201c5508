import { describe, expect, test } from '@jest/globals';
import type { Layer } from '@wexikine/core';
import { commonRatio, neighbourSize, ratioOf, readRatio } from './crop';

const picture = (id: string, width: number, height: number): Layer =>
  ({
    id,
    rest: { 'size.x': width, 'size.y': height },
    look: {},
    source: { type: 'picture', href: 'files/x.png' },
  }) as unknown as Layer;

describe('ratios', () => {
  test('are read in the ways in which people write them', () => {
    expect(readRatio(' 16:9 ')).toBeCloseTo(16 / 9, 12);
    expect(readRatio('4 x 5')).toBe(0.8);
    expect(readRatio('1,85')).toBe(1.85);
    expect(readRatio('File')).toBe('file');
    expect(['', '0:4', '4:0', 'wide', '-3', '1:2:3', '500:1'].map(readRatio)).toEqual(Array(7).fill(null));
  });

  test('are told by their usual names', () => {
    expect(commonRatio(ratioOf(picture('a', 1920, 1080)))).toBe('16:9');
    expect(commonRatio(1.85)).toBe('1.85:1');
    expect(commonRatio(1)).toBe('1:1');
  });
});

test('the size of the neighbours is the one that most of them have', () => {
  const [a, b, c, d] = [picture('a', 50, 50), picture('b', 320, 200), picture('c', 320, 200), picture('d', 10, 10)];
  expect(neighbourSize([a], [a, d, b, c])).toEqual({ width: 320, height: 200 });
  expect(neighbourSize([b], [b, c])).toBeNull();
  expect(neighbourSize([a], [a])).toBeNull();
});
