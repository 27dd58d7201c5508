import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { boundsOf, centreOf, IDENTITY, inverse, multiply, transformPoint, writeLayerMatrix, type Matrix } from '.';
import { CHANNEL_COUNT, channelOf, type ChannelId } from '../channel';

const translate = (x: number, y: number): Matrix => [1, 0, 0, 1, x, y];
const scale = (x: number, y: number): Matrix => [x, 0, 0, y, 0, 0];
const skewX = (degrees: number): Matrix => [1, 0, Math.tan((degrees * Math.PI) / 180), 1, 0, 0];
function rotate(degrees: number): Matrix {
  const angle = (degrees * Math.PI) / 180;
  return [Math.cos(angle), Math.sin(angle), -Math.sin(angle), Math.cos(angle), 0, 0];
}

const number = fc.integer({ min: -400, max: 400 }).map((n) => n / 8);
const matrices = fc.tuple(number, number, number, number, number, number);

function expectClose(found: readonly number[], wanted: readonly number[]): void {
  expect(found).toHaveLength(wanted.length);
  found.forEach((one, i) => expect(Math.abs(one - wanted[i])).toBeLessThan(1e-6 * (1 + Math.abs(wanted[i]))));
}

describe('a transform', () => {
  test('of several in turn is their product in the order in which they are written', () => {
    // Source: the worked example of SVG 1.1, section 7.5 (Nested transformations), which rounds to three places.
    const [a, b, c, d, e, f] = [translate(50, 90), rotate(-45), translate(130, 160)].reduce(multiply);
    expectClose(
      [a, b, c, d].map((part) => Number(part.toFixed(3))),
      [0.707, -0.707, 0.707, 0.707],
    );
    expect(Math.abs(e - 255.03)).toBeLessThan(0.05);
    expect(Math.abs(f - 111.21)).toBeLessThan(0.05);
  });

  test('takes a point where its two steps take it', () => {
    fc.assert(
      fc.property(matrices, matrices, number, number, (m, n, x, y) => {
        const { x: x1, y: y1 } = transformPoint(multiply(m, n), { x, y });
        const inTurn = transformPoint(m, transformPoint(n, { x, y }));
        expectClose([x1, y1], [inTurn.x, inTurn.y]);
      }),
    );
  });

  test('is taken back by its inverse, on either side; one that makes all flat has none', () => {
    fc.assert(
      fc.property(matrices, (m) => {
        const back = inverse(m);
        fc.pre(back !== null);
        // Far from flat, so that rounding stays small.
        fc.pre(Math.abs(m[0] * m[3] - m[1] * m[2]) > 0.5);
        for (const both of [multiply(m, back), multiply(back, m)])
          both.forEach((part, i) => expect(Math.abs(part - IDENTITY[i])).toBeLessThan(1e-7));
      }),
    );
    expect(inverse(scale(0, 3))).toBeNull();
    expect(inverse([2, 4, 1, 2, 9, 9])).toBeNull();
    expect(inverse([2, 0, 0, 4, 6, 8])).toEqual([0.5, -0, -0, 0.25, -3, -2]);
  });

  test('of a rectangle lies within the box around its four corners', () => {
    fc.assert(
      fc.property(matrices, number, number, (m, width, height) => {
        const corners = [
          [0, 0],
          [width, 0],
          [0, height],
          [width, height],
        ].map(([x, y]) => transformPoint(m, { x, y }));
        const [xs, ys] = [corners.map(({ x }) => x), corners.map(({ y }) => y)];
        const { left, right, top, bottom } = boundsOf(m, width, height);
        expectClose([left, right, top, bottom], [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)]);
      }),
    );
    expect(centreOf({ left: -2, right: 6, top: 1, bottom: 4 })).toEqual({ x: 2, y: 2.5 });
  });
});

describe('the matrix of a layer', () => {
  const CHANNELS: readonly ChannelId[] = [
    'position.x',
    'position.y',
    'anchor.x',
    'anchor.y',
    'scale.x',
    'scale.y',
    'rotation',
    'skew',
    'size.x',
    'size.y',
  ];
  const layers = fc.tuple(
    number,
    number,
    number,
    number,
    number,
    number,
    number,
    fc.integer({ min: -80, max: 80 }),
    number,
    number,
  );

  /** As CSS writes it: translate, rotate, skew, scale, then back by the anchor. */
  function inWords(
    [px, py, ax, ay, sx, sy, rotation, skew, width, height]: readonly number[],
    along: readonly number[],
  ): Matrix {
    const [x, y, turn] = along;
    return [
      translate(px + x, py + y),
      rotate(rotation + turn),
      skewX(skew),
      scale(sx, sy),
      translate(-ax * width, -ay * height),
    ].reduce(multiply);
  }

  test('is that of its transforms in turn, within its group’s and with what a path adds', () => {
    fc.assert(
      fc.property(layers, layers, fc.tuple(number, number, number), (group, layer, along) => {
        const values = new Float64Array(2 * CHANNEL_COUNT);
        CHANNELS.forEach((id, i) => {
          values[channelOf(id).slot] = group[i];
          values[CHANNEL_COUNT + channelOf(id).slot] = layer[i];
        });
        const out = new Float64Array(12);
        writeLayerMatrix(values, 0, -1, out);
        writeLayerMatrix(values, 1, 0, out, Float64Array.from(along));
        const outer = inWords(group, [0, 0, 0]);
        expectClose([...out.subarray(0, 6)], outer);
        expectClose([...out.subarray(6)], multiply(outer, inWords(layer, along)));
      }),
    );
  });
});
