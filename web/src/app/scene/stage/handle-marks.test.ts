import { describe, expect, test } from '@jest/globals';
import { diamondMark, gapMark, knobMark, lineMark, sideMarks, toPage, toScene, type StagePlace } from './handle-marks';

const at = (x: number, y: number) => ({ x, y });
/** Half size, 100 px from the left and 40 from the top. */
const place: StagePlace = { zoom: 0.5, x: 100, y: 40 };
const box = [at(100, 100), at(300, 100), at(300, 140), at(100, 140)];

test('places of the scene and of the page are each other’s', () => {
  expect(toPage(place, at(200, 60))).toEqual(at(200, 70));
  expect(toScene(place, at(200, 70))).toEqual(at(200, 60));
});

describe('handles around what is selected', () => {
  test('at the sides are in their middles, where these are 48 px and longer', () => {
    expect(sideMarks(box).map(({ place: side, x, y, isAcross }) => [side, x, y, isAcross])).toEqual([
      [0, 200, 100, false],
      [2, 200, 140, false],
    ]);
    const high = [at(0, 0), at(47, 0), at(47, 48), at(0, 48)];
    expect(sideMarks(high).map(({ side, isAcross }) => [side, isAcross])).toEqual([
      [at(1, 0.5), true],
      [at(0, 0.5), true],
    ]);
    expect(sideMarks(box.slice(0, 3))).toEqual([]);
  });

  test('to turn it is straight out from the upper side, however the box lies', () => {
    expect(knobMark(box)).toEqual({ from: at(200, 100), to: at(200, 74) });
    // Turned by a quarter: what was above is to the right.
    expect(knobMark([at(50, 0), at(50, 80), at(0, 80), at(0, 0)])).toEqual({ from: at(50, 40), to: at(76, 40) });
    // Without any height it stays where the side is.
    expect(knobMark([at(0, 5), at(9, 5), at(9, 5), at(0, 5)])?.to).toEqual(at(4.5, 5));
    expect(knobMark([])).toBeNull();
  });

  test('of a look is a diamond', () => {
    expect(diamondMark(at(10, 20))).toBe('M4 20L10 14L16 20L10 26z');
  });
});

describe('what a drag meets', () => {
  test('is a line over all of the stage, at its place on the page', () => {
    expect(lineMark(place, { way: 'x', at: 300, of: 'frame' })).toEqual({ d: 'M250 0V8192', of: 'frame' });
    expect(lineMark(place, { way: 'y', at: 300, of: 'layer' })).toEqual({ d: 'M0 190H8192', of: 'layer' });
  });

  test('is a gap as wide as others, with its width in px of the scene', () => {
    expect(gapMark(place, { way: 'x', from: 100, to: 180.4, across: 20 })).toEqual({
      d: 'M150 46v8M190.2 46v8M150 50L190.2 50',
      x: 170.1,
      y: 44,
      text: '80',
    });
    expect(gapMark(place, { way: 'y', from: 0, to: 40, across: 0 })).toEqual({
      d: 'M96 40h8M96 60h8M100 40L100 60',
      x: 100,
      y: 44,
      text: '40',
    });
  });
});
