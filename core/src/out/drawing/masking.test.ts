import { describe, expect, test } from '@jest/globals';
import { lookSchema } from '../../scene/layer';
import { masksIn } from './masking';

const frame = { left: 100, top: 200, right: 120, bottom: 210 };

/** A rectangle about a place with a size, in shares of the frame. */
function shape(x: number, y: number, width: number, height: number) {
  const [w, h] = [20, 10];
  const box = {
    left: 100 + (x - width / 2) * w,
    right: 100 + (x + width / 2) * w,
    top: 200 + (y - height / 2) * h,
    bottom: 200 + (y + height / 2) * h,
  };
  return { shape: 'rectangle', d: '', box, rule: 'nonzero' } as const;
}

describe('shapes as masks of a layer', () => {
  test('are placed in shares of its box', () => {
    const mask = { shape: 'rectangle', how: 'add', x: 0.25, y: 0.75, width: 0.5, height: 2, turn: 0, soft: 0 };
    expect(masksIn([shape(0.25, 0.75, 0.5, 2)], frame)).toEqual([mask]);
  });

  test.each([
    [10, 0.5, 1, 1],
    [-10, 0.5, 1, 1],
    [0.5, 10, 1, 1],
    [0.5, -10, 1, 1],
    [0.5, 0.5, 20, 1],
    [0.5, 0.5, 1, 20],
  ])('may be at %d, %d and %d by %d: what a look can hold, and nothing beyond', (...place) => {
    const masks = masksIn([shape(...place)], frame);
    expect(masks).not.toBeNull();
    expect(lookSchema.safeParse({ masks }).error?.issues ?? []).toEqual([]);
    const beyond = place.map((one) => (Math.abs(one) >= 10 ? one * 1.01 : one)) as typeof place;
    expect(masksIn([shape(0.5, 0.5, 1, 1), shape(...beyond)], frame)).toBeNull();
  });
});
