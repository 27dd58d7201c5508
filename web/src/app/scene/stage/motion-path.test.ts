import { describe, expect, test } from '@jest/globals';
import { compileScene, frameTicks, programmeBoard, type Key, type Layer, type Scene } from '@wexikine/core';
import { dotsOnPage, motionPaths } from './motion-path';

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

  test('of many layers have fewer dots each, and still end where they end', () => {
    const ids = Array.from({ length: 40 }, (_, i) => `l${i}`);
    const moving = { 'position.x': [key(0, 0), key(250, 250)] };
    const ways = waysOf(
      ids.map((id) => layer(id, { tracks: moving })),
      0,
      ...ids,
    );
    expect(ways).toHaveLength(40);
    expect(ways.reduce((sum, { dots }) => sum + dots.length, 0)).toBeLessThanOrEqual(4_080);
    expect(ways.map(({ dots }) => dots.at(-1)?.x)).toEqual(ids.map(() => 250));
  });

  test('are drawn with the dots that can be told apart, a pixel or more from each other', () => {
    const at = (x: number) => ({ x, y: 0 });
    const place = { zoom: 0.5, x: 7, y: 3 };
    const [way] = waysOf([layer('a', { tracks: { 'position.x': [key(0, 0), key(9, 9)] } })], 0, 'a');
    expect(dotsOnPage(way.dots, place).map(({ x }) => x)).toEqual([7, 8, 9, 10, 11]);
    expect(dotsOnPage([at(0), at(0), at(40), at(40)], place)).toEqual([
      { x: 7, y: 3 },
      { x: 27, y: 3 },
    ]);
  });
});
