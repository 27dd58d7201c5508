import { describe, expect, test } from '@jest/globals';
import { key } from '../../testing/scenes';
import { settled, type Entry } from './picked';

/** Values of keys that came to stand at one frame, each picked or not, by which is kept. */
function kept(...keys: readonly (readonly [frame: number, value: number, isPicked: boolean])[]): number[] {
  const entries = keys.map(([frame, value, isPicked]): Entry => ({ key: key(frame, value), isPicked }));
  return (settled(new Map([['opacity', entries]])).get('opacity') ?? []).map((entry) => entry.key.value);
}

describe('keys that came to stand at one time', () => {
  test('leave the picked one, whether it comes first or last', () => {
    expect(kept([4, 1, true], [4, 2, false])).toEqual([1]);
    expect(kept([4, 1, false], [4, 2, true])).toEqual([2]);
  });

  test('leave the later one of two that are alike', () => {
    expect(kept([4, 1, true], [4, 2, true])).toEqual([2]);
    expect(kept([4, 1, false], [4, 2, false])).toEqual([2]);
  });

  test('are looked at in order of time, whichever way they were moved past each other', () => {
    expect(kept([9, 1, true], [4, 2, false], [6, 3, false])).toEqual([2, 3, 1]);
    expect(kept([9, 1, true], [9, 2, false], [3, 3, true], [3, 4, false])).toEqual([3, 1]);
  });
});
