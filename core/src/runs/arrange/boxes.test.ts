import { describe, expect, test } from '@jest/globals';
import { alongAxis, coverFactor, moveAlong, outerBox } from './boxes';

describe('boxes of layers', () => {
  test('have two ends along an axis, and one box around them all', () => {
    const box = { left: 10, top: 20, right: 30, bottom: 60 };
    expect([alongAxis(box, 'across'), alongAxis(box, 'down')]).toEqual([
      [10, 30],
      [20, 60],
    ]);
    expect(outerBox([box, { left: -5, top: 40, right: 12, bottom: 90 }])).toEqual({
      left: -5,
      top: 20,
      right: 30,
      bottom: 90,
    });
    expect([moveAlong('across', 7), moveAlong('down', -7)]).toEqual([{ by: { x: 7, y: 0 } }, { by: { x: 0, y: -7 } }]);
  });

  // The box around a turned rectangle (school geometry): W|cosθ| + H|sinθ| wide, W|sinθ| + H|cosθ| high.
  test.each([0, 15, 45, 90, 130, -70, 200])('cover a frame where a layer is turned by %d°', (degrees) => {
    const [cos, sin] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
    const frame = { width: 1920, height: 1080 };
    for (const size of [
      { width: 300, height: 40 },
      { width: 40, height: 300 },
      { width: 500, height: 500 },
    ]) {
      const [across, down] = [
        (frame.width * Math.abs(cos) + frame.height * Math.abs(sin)) / size.width,
        (frame.width * Math.abs(sin) + frame.height * Math.abs(cos)) / size.height,
      ];
      const factor = coverFactor([cos, sin, -sin, cos, 0, 0], size, frame);
      expect(factor).toBeCloseTo(Math.max(across, down), 9);
      // One that is drawn twice as large already needs half of it.
      const doubled = [2 * cos, 2 * sin, -2 * sin, 2 * cos];
      expect(coverFactor(doubled, size, frame)).toBeCloseTo(factor / 2, 9);
    }
  });

  test('without an area cover nothing, however large', () => {
    const frame = { width: 100, height: 100 };
    expect(coverFactor([1, 0, 0, 0, 0, 0], { width: 10, height: 10 }, frame)).toBe(Infinity);
    expect(coverFactor([1, 0, 0, 1, 0, 0], { width: 0, height: 10 }, frame)).toBe(Infinity);
    expect(coverFactor([1, 0, 0, 1, 0, 0], { width: 10, height: 0 }, frame)).toBe(Infinity);
  });
});
