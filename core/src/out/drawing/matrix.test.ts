import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { IDENTITY, multiply, transformPoint, type Matrix } from '../../basics/transform';
import { asChannels, evenScale, readTransform, viewBoxMatrix } from './matrix';

const rounded = (matrix: readonly number[]): number[] => matrix.map((part) => Number(part.toFixed(9)) + 0);

describe('a list of transforms', () => {
  // Source: the matrices of CSS Transforms 1, section 12 (mathematical description).
  test.each<[string, Matrix]>([
    ['matrix(1 2 3 4 5 6)', [1, 2, 3, 4, 5, 6]],
    ['translate(7)', [1, 0, 0, 1, 7, 0]],
    ['translate(7, -2)', [1, 0, 0, 1, 7, -2]],
    ['scale(3)', [3, 0, 0, 3, 0, 0]],
    ['scale(3 0.5)', [3, 0, 0, 0.5, 0, 0]],
    ['rotate(90)', [0, 1, -1, 0, 0, 0]],
    ['rotate(90 10 20)', [0, 1, -1, 0, 30, 10]],
    ['skewX(45)', [1, 0, 1, 1, 0, 0]],
    ['skewY(45)', [1, 1, 0, 1, 0, 0]],
    ['ROTATE(180)', [-1, 0, 0, -1, 0, 0]],
    ['scale(2) translate(1e1,.5)', [2, 0, 0, 2, 20, 1]],
    ['scale(-2-3)', [-2, 0, 0, -3, 0, 0]],
    ['translate(7px, 2px)', [1, 0, 0, 1, 7, 2]],
    ['matrix(1 2 3)', [1, 0, 0, 1, 0, 0]],
    ['translate() scale() rotate() skewX() skewY()', [1, 0, 0, 1, 0, 0]],
    ['sideways(3) scale(2)', [2, 0, 0, 2, 0, 0]],
    ['', [1, 0, 0, 1, 0, 0]],
  ])('%s', (text, matrix) => {
    expect(rounded(readTransform(text))).toEqual(matrix);
  });

  test('that is not there changes nothing', () => {
    expect(readTransform(undefined)).toBe(IDENTITY);
  });
});

describe('a matrix as channels of a layer', () => {
  const part = fc.integer({ min: -40, max: 40 }).map((n) => n / 8);

  test('is the same when it is put together again', () => {
    fc.assert(
      fc.property(part, part, part, part, (a, b, c, d) => {
        fc.pre(Math.abs(a * d - b * c) > 0.2);
        const { rotation, skew, 'scale.x': sx, 'scale.y': sy } = asChannels([a, b, c, d, 0, 0]);
        fc.pre(Math.abs(skew) < 89);
        const again = readTransform(`rotate(${rotation}) skewX(${skew}) scale(${sx} ${sy})`);
        again.slice(0, 4).forEach((one, i) => expect(one).toBeCloseTo([a, b, c, d][i], 6));
      }),
    );
  });

  test('that is flat or almost so leans as far as layers lean', () => {
    expect(asChannels([1, 0, 1, 0, 0, 0])).toEqual({ rotation: 0, skew: 0, 'scale.x': 1, 'scale.y': 0 });
    expect(asChannels([1, 0, 500, 1, 0, 0]).skew).toBe(89);
    expect(asChannels([1, 0, -500, 1, 0, 0]).skew).toBe(-89);
  });
});

describe('how much longer lengths become', () => {
  test('is told where it is alike in all directions, turned and flipped too', () => {
    for (const text of ['scale(3)', 'rotate(33) scale(3)', 'scale(3 -3)', 'translate(9) rotate(-80) scale(-3)'])
      expect(evenScale(readTransform(text))).toBeCloseTo(3, 9);
  });

  test.each(['scale(3 2)', 'skewX(20)', 'scale(1 0)', 'rotate(45) scale(1 1.01)'])('is not told of %s', (text) => {
    expect(evenScale(readTransform(text))).toBeNull();
  });
});

describe('the matrix of a viewBox', () => {
  const box = [10, 20, 100, 50];
  const corners = (matrix: Matrix): number[] =>
    [
      { x: 10, y: 20 },
      { x: 110, y: 70 },
    ].flatMap((point) => {
      const { x, y } = transformPoint(matrix, point);
      return rounded([x, y]);
    });

  // Source: SVG 2, section 8.6: meet keeps all of the box within the room, slice fills the room, none stretches.
  test.each<[string | undefined, number, number, number[]]>([
    [undefined, 200, 200, [0, 50, 200, 150]],
    ['xMidYMid meet', 400, 100, [100, 0, 300, 100]],
    ['xMinYMin', 200, 200, [0, 0, 200, 100]],
    ['xMaxYMax', 200, 200, [0, 100, 200, 200]],
    ['xMinYMid', 400, 100, [0, 0, 200, 100]],
    ['xMaxYMid', 400, 100, [200, 0, 400, 100]],
    ['xMidYMid slice', 200, 200, [-100, 0, 300, 200]],
    ['xMinYMax slice', 400, 100, [0, -100, 400, 100]],
    ['xMaxYMin slice', 200, 200, [-200, 0, 200, 200]],
    ['none', 200, 200, [0, 0, 200, 200]],
    ['  none  ', 50, 100, [0, 0, 50, 100]],
  ])('%s', (aspect, width, height, wanted) => {
    expect(corners(viewBoxMatrix(box, width, height, aspect))).toEqual(wanted);
  });

  test('that is none leaves everything where it is', () => {
    for (const none of [null, [0, 0, 9], [0, 0, 9, 9, 9], [0, 0, 0, 9], [0, 0, 9, -1], [0, 0, NaN, 9]])
      expect(viewBoxMatrix(none, 100, 100, undefined)).toBe(IDENTITY);
  });

  test('goes with what is around it', () => {
    const inner = viewBoxMatrix([0, 0, 10, 10], 20, 20, undefined);
    expect(rounded(multiply(readTransform('translate(5)'), inner))).toEqual([2, 0, 0, 2, 5, 0]);
  });
});
