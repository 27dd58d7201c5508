import { describe, expect, test } from '@jest/globals';
import { dimOutside, drawGrid, drawGround, drawSafeAreas } from './marks';

type Call = readonly [name: string, ...numbers: number[]];

/** A canvas that notes what is asked of it. */
function canvas(width = 800, height = 600) {
  const calls: Call[] = [];
  const context = new Proxy({ canvas: { width, height } } as Record<string, unknown>, {
    get: (own, name: string) =>
      name in own ? own[name] : (...given: unknown[]) => void calls.push([name, ...given.map(Number)]),
    set: (own, name: string, value) => ((own[name] = value), true),
  });
  const of = (name: string): number[][] => calls.filter(([one]) => one === name).map(([, ...numbers]) => numbers);
  return { context: context as unknown as CanvasRenderingContext2D, of };
}

const PLACE = { x: 100, y: 50, width: 400, height: 200 };

describe('marks of the preview', () => {
  test('safe areas are 93 % and 90 % of the frame, in its middle (SMPTE ST 2046-1)', () => {
    const { context, of } = canvas();
    drawSafeAreas(context, PLACE, 1);
    expect(of('strokeRect')).toEqual([
      [expect.closeTo(114, 6), expect.closeTo(57, 6), expect.closeTo(372, 6), expect.closeTo(186, 6)],
      [expect.closeTo(120, 6), expect.closeTo(60, 6), expect.closeTo(360, 6), expect.closeTo(180, 6)],
    ]);
  });

  test('lines of a grid lie within the frame; where they would be a wall, every second one is left out', () => {
    const wide = canvas();
    drawGrid(wide.context, PLACE, 100, 1);
    expect(wide.of('moveTo')).toEqual([
      [200.5, 50],
      [300.5, 50],
      [400.5, 50],
      [100, 150.5],
    ]);
    const dense = canvas();
    drawGrid(dense.context, PLACE, 1.5, 1);
    const [first, second] = dense.of('moveTo');
    expect(second[0] - first[0]).toBe(6);
  });

  test('checks stand for transparency, and cover the frame and no more rows than it has', () => {
    const plain = canvas();
    drawGround(plain.context, PLACE, false, 1);
    expect(plain.of('fillRect')).toEqual([[100, 50, 400, 200]]);
    const checked = canvas();
    drawGround(checked.context, PLACE, true, 1);
    const [ground, ...checks] = checked.of('fillRect');
    expect(ground).toEqual([100, 50, 400, 200]);
    // Half of 50 by 25 fields of 8 px.
    expect(checks).toHaveLength(625);
    expect(checked.of('clip')).toHaveLength(1);
  });

  test('what lies outside the frame is dimmed, and the frame is not', () => {
    const { context, of } = canvas();
    dimOutside(context, PLACE);
    expect(of('rect')).toEqual([
      [0, 0, 800, 600],
      [100, 50, 400, 200],
    ]);
    expect(of('fill')).toHaveLength(1);
  });
});
