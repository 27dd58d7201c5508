import { describe, expect, test } from '@jest/globals';
import { compileScene, frameTicks, programmeBoard, type Key, type Layer, type Scene } from '@wexikine/core';
import { motionPaths } from './motion-path';

const board = programmeBoard();
const FRAME = frameTicks(board.rate);
const [like] = board.layers;
const key = (frame: number, value: number): Key => ({ at: frame * FRAME, value, ease: { type: 'linear' } });
const layer = (id: string, more: Partial<Layer> = {}): Layer => ({
  ...like,
  id,
  kind: 'card',
  parent: null,
  span: { in: 0, out: 100 * FRAME },
  rest: { 'position.x': 10, 'position.y': 20 },
  source: { type: 'rectangle' },
  tracks: {},
  ...more,
});
const across = { 'position.x': [key(0, 0), key(10, 100)] };

function waysOf(layers: readonly Layer[], at: number, ...ids: string[]) {
  const scene: Scene = { ...board, layers: [...layers], runs: [], cues: [] };
  return motionPaths(compileScene(scene), board.rate, new Set(ids), at * FRAME);
}

describe('the ways of layers', () => {
  test('have a dot for each frame between the first and the last key, and the keyed places', () => {
    const [way] = waysOf([layer('a', { tracks: across })], 3, 'a');
    expect(way.dots).toHaveLength(11);
    expect(way.dots[4]).toEqual({ x: 40, y: 20 });
    expect(way.now).toEqual({ x: 30, y: 20 });
    expect(way.keys.map(({ at, point }) => [at, point])).toEqual([
      [0, { x: 0, y: 20 }],
      [10 * FRAME, { x: 100, y: 20 }],
    ]);
  });

  test('are those of the layers asked for that move', () => {
    const layers = [layer('a', { tracks: across }), layer('b', { tracks: across }), layer('still')];
    expect(waysOf(layers, 0, 'b', 'still').map((way) => way.layer)).toEqual(['b']);
    expect(waysOf([layer('one', { tracks: { 'position.x': [key(0, 5)] } })], 0, 'one')).toEqual([]);
  });

  test('lie in their group as it is at the time', () => {
    const group = layer('group', {
      kind: 'group',
      source: { type: 'none' },
      rest: { 'position.x': 200, 'position.y': 0, 'size.x': 0, 'size.y': 0, 'scale.x': 2, 'scale.y': 2 },
      tracks: { 'position.y': [key(0, 0), key(10, 50)] },
    });
    const inside = layer('a', { parent: 'group', tracks: across });
    const [way] = waysOf([group, inside], 10, 'a');
    expect(way.dots[0]).toEqual({ x: 200, y: 90 });
    expect(way.now).toEqual({ x: 400, y: 90 });
  });

  test('of many frames skip some evenly, and end where they end', () => {
    const [way] = waysOf([layer('a', { tracks: { 'position.x': [key(0, 0), key(1_500, 1_500)] } })], 0, 'a');
    expect(way.dots.length).toBeLessThanOrEqual(601);
    expect(way.dots[0].x).toBe(0);
    expect(way.dots[1].x).toBeCloseTo(3, 9);
    expect(way.dots.at(-1)?.x).toBe(1_500);
  });
});
