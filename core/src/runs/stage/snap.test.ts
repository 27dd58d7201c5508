import { describe, expect, test } from '@jest/globals';
import { snapMove, type SnapLine } from './snap';

const BOX = { left: 100, top: 40, right: 160, bottom: 80 };
const x = (at: number, of: SnapLine['of'] = 'layer'): SnapLine => ({ way: 'x', at, of });
const y = (at: number, of: SnapLine['of'] = 'layer'): SnapLine => ({ way: 'y', at, of });

describe('a box that is dragged', () => {
  test('snaps with its sides or its middle to the nearest line within reach, each direction by itself', () => {
    expect(snapMove(BOX, { x: 37, y: 5 }, [x(140)], 8)).toEqual({ by: { x: 40, y: 5 }, lines: [x(140)] });
    expect(snapMove(BOX, { x: 37, y: 5 }, [x(140)], 2)).toEqual({ by: { x: 37, y: 5 }, lines: [] });
    // Its middle is at 130, its right side at 160.
    expect(snapMove(BOX, { x: 3, y: 0 }, [x(135), x(160)], 8).by.x).toBe(5);
    expect(snapMove(BOX, { x: 1, y: 0 }, [x(135), x(160)], 8).by.x).toBe(0);
    expect(snapMove(BOX, { x: 0, y: 0 }, [y(63)], 8).by).toEqual({ x: 0, y: 3 });
  });

  test('tells every line that it then meets, those at one place once; across and down are two', () => {
    const lines = [x(140), x(140, 'grid'), x(200, 'frame'), y(140), y(100), x(170)];
    const snapped = snapMove(BOX, { x: 39, y: 59 }, lines, 8);
    expect(snapped.by).toEqual({ x: 40, y: 60 });
    // Now from 140 to 200, its middle at 170; and from 100 to 140 down.
    expect(snapped.lines).toEqual([x(140), x(200, 'frame'), x(170), y(140), y(100)]);
  });
});
