import { describe, expect, test } from '@jest/globals';
import {
  createShelf,
  frameTicks,
  programmeBoard,
  TICKS_PER_SECOND,
  type ChannelId,
  type Key,
  type Layer,
  type Scene,
} from '@wexikine/core';
import { keyEasing } from './key-easing';
import { curveWords, fieldText, nowWords, speedUnit, speedWords, stepFigure } from './curve-figures';
import { curveChannels, curveLines, MOST_OTHERS } from './curve-lines';
import {
  createScale,
  fittedRange,
  speedRange,
  gridLines,
  handleMarks,
  hasOneUnit,
  scalesFor,
  upWords,
  valuePath,
} from './curve-shape';

const board = programmeBoard();
const FRAME = frameTicks(board.rate);

function key(frame: number, value: number, ease: Key['ease'] = { type: 'linear' }): Key {
  return { at: frame * FRAME, value, ease };
}

function layer(id: string, tracks: Layer['tracks']): Layer {
  return { ...board.layers[0], id, name: id, tracks };
}

const soft: Key['ease'] = { type: 'bezier', x1: 0.5, y1: 0, x2: 0.5, y2: 1 };
const scene: Scene = {
  ...board,
  runs: [],
  layers: [
    layer('a', {
      'position.x': [key(0, 0), key(10, 30)],
      'position.y': [key(0, 100, soft), key(10, 60), key(20, 60)],
      opacity: [key(0, 0), key(5, 1)],
    }),
    layer('b', { 'position.y': [key(4, 200), key(14, 0)] }),
    layer('c', {}),
  ],
};
const room = { width: 200, height: 112, window: { from: 0, span: 20 * FRAME } };

function lines(channels: readonly ChannelId[], picked: readonly string[] = []) {
  const picks = new Map(picked.map((id) => [id, new Map([['position.y' as const, new Set([4 * FRAME])]])]));
  return curveLines(scene, 'a', picks, channels, null);
}

describe('lines of curves', () => {
  test('are of the selected layer, and behind it of other layers with picked keys', () => {
    expect(curveChannels(scene.layers[0], 0, null)).toEqual(['position.x', 'position.y', 'opacity']);
    expect(lines(['position.y']).map(({ id, isOwn }) => [id, isOwn])).toEqual([['a position.y', true]]);
    expect(lines(['position.y', 'opacity'], ['b', 'c']).map(({ id }) => id)).toEqual([
      'b position.y',
      'a position.y',
      'a opacity',
    ]);
    const many = { ...scene, layers: Array.from({ length: 90 }, (_, i) => layer(`l${i}`, scene.layers[1].tracks)) };
    const picks = new Map(many.layers.map(({ id }) => [id, new Map()]));
    expect(curveLines(many, null, picks, ['position.y'], null)).toHaveLength(MOST_OTHERS);
  });

  test('of one unit stand on one scale, the vertical position alone as on screen', () => {
    const [y] = lines(['position.y']);
    const scale = scalesFor([y], room, false, null).get(y.id);
    expect(scale?.isDown).toBe(true);
    expect((scale?.yOf(60) ?? 0) < (scale?.yOf(100) ?? 0)).toBe(true);
    const both = lines(['position.x', 'position.y']);
    const scales = scalesFor(both, room, false, null);
    expect(hasOneUnit(both)).toBe(true);
    expect(scales.get(both[0].id)).toBe(scales.get(both[1].id));
    expect(upWords(both, scales)).toBe('↑ further right, further down');
    expect(upWords([y], scalesFor([y], room, false, null))).toBe('↑ up on screen');
    expect(hasOneUnit(lines(['position.y', 'opacity']))).toBe(false);
    const own = scalesFor(both, room, true, null);
    expect([own.get(both[0].id)?.isDown, own.get(both[1].id)?.isDown]).toEqual([false, true]);
  });

  test('a place on a scale is the value that stands there, and back', () => {
    for (const isDown of [true, false]) {
      const scale = createScale({ low: -20, high: 80 }, 300, isDown);
      for (const value of [-20, 0, 33, 80]) expect(scale.valueAt(scale.yOf(value))).toBeCloseTo(value, 9);
    }
  });

  test('what is seen is fitted with air, what stands still too', () => {
    const [y] = lines(['position.y']);
    // A tenth of what is seen; where little height is there, as much as the words at the top take.
    const { low, high } = fittedRange([y], { ...room, height: 300 });
    expect(low).toBeCloseTo(56, 9);
    expect(high).toBeCloseTo(104, 9);
    for (const height of [80, 112, 150]) {
      const scale = createScale(fittedRange([y], { ...room, height }), height, false);
      expect(scale.yOf(100)).toBeCloseTo(20, 9);
      expect(scale.yOf(60)).toBeCloseTo(height - 20, 9);
      const speeds = createScale(speedRange(50, { height }), height, false);
      expect(speeds.yOf(50)).toBeCloseTo(17, 9);
      expect(speeds.yOf(-50)).toBeCloseTo(height - 17, 9);
    }
    const speeds = speedRange(50, { height: 400 });
    expect([speeds.low, speeds.high].map((speed) => Math.round(speed * 1e9) / 1e9)).toEqual([-55, 55]);
    // However low it is, curves have half of it.
    const flat = createScale(fittedRange([y], { ...room, height: 30 }), 30, false);
    expect(flat.yOf(60) - flat.yOf(100)).toBeCloseTo(9, 9);
    expect(fittedRange([], room)).toEqual({ low: 0, high: 1 });
    const still = fittedRange([{ ...y, drawn: [key(0, 50)], keys: [key(0, 50)] }], room);
    expect(still.low < 50 && still.high > 50).toBe(true);
  });

  test('are drawn through their keys exactly, and names stand at round values', () => {
    const [x] = lines(['position.x']);
    const scale = createScale({ low: 0, high: 30 }, 112, false);
    expect(valuePath(x, scale, room)).toContain('L100.0 6.0');
    expect(gridLines('position.x', scale, 3).map(({ label }) => label)).toEqual(['0 px', '10 px', '20 px', '30 px']);
    expect(gridLines('opacity', createScale({ low: 0, high: 1 }, 112, false), 2).map(({ label }) => label)).toEqual([
      '0 %',
      '50 %',
      '100 %',
    ]);
  });

  test('a picked key has the handles of the curves that meet at it', () => {
    const [y] = lines(['position.y']);
    const scale = createScale({ low: 0, high: 100 }, 112, false);
    const marks = handleMarks(y, new Set([10 * FRAME]), scale, room);
    expect(marks.map(({ side }) => side)).toEqual(['arrive', 'leave']);
    expect(marks[0]).toMatchObject({ x: 50, keyX: 100 });
    expect(marks[0].y).toBeCloseTo(scale.yOf(60), 9);
    const held = { ...y, keys: [key(0, 0, { type: 'hold' }), key(10, 5)] };
    expect(handleMarks(held, new Set([0, 10 * FRAME]), scale, room)).toEqual([]);
  });
});

describe('what curves say', () => {
  test('the greatest step of a frame, of both positions together', () => {
    const figure = stepFigure(lines(['position.x']), room.window, board.rate);
    expect(figure?.words).toMatch(/^at most 3 px in a frame, at 0:0\d$/);
    const both = stepFigure(lines(['position.x', 'position.y']), room.window, board.rate);
    expect(Number(/[\d.]+/.exec(both?.words ?? '')?.[0])).toBeGreaterThan(6);
    expect(stepFigure([], room.window, board.rate)).toBeNull();
  });

  test('speeds in the unit of their channel', () => {
    expect(speedWords('position.x', 30 / (10 * FRAME))).toBe('75 px/s');
    expect(nowWords(lines(['position.x']), 2 * FRAME)).toBe('now position x 75 px/s');
    expect(nowWords([], 0)).toBe('');
    expect(speedUnit('opacity')).toEqual({ by: TICKS_PER_SECOND * 100, words: '%/s' });
    expect([fieldText(null, 100), fieldText(0.333333, 100), fieldText(-0, 1)]).toEqual(['', '33.33', '0']);
  });

  test('what curve is on the keys, and whether the library’s', () => {
    const of = (ease: Key['ease'] | null, segments = 2) => ({
      departure: null,
      arrival: null,
      leave: null,
      arrive: null,
      ease,
      link: ease && 'curve' in ease ? (ease.curve ?? null) : null,
      segments,
    });
    expect(curveWords(of(null, 0))).toBe('nothing follows');
    expect(curveWords(of(null))).toBe('different curves');
    expect(curveWords(of({ type: 'spring', damping: 0.5, within: 0.01 }))).toBe('spring');
    const curve = { id: 'c', name: 'Soft', revision: 2, reversed: true as const };
    expect(curveWords(of({ ...soft, curve }))).toBe('Soft, revision 2, backwards');
  });

  test('a curve of the library is put on with its link, and played backwards where that was said', () => {
    const body = { easing: { type: 'bezier', x1: 0.1, y1: 0, x2: 0.2, y2: 1 } };
    const item = { id: 'c', kind: 'curve', name: 'Soft', revision: 4, state: 'published', body };
    const shelf = createShelf([item as never]);
    const is = body.easing as never;
    expect(keyEasing({ type: 'curve', id: 'c', revision: 1, is }, shelf)).toEqual({
      ...body.easing,
      curve: { id: 'c', name: 'Soft', revision: 4 },
    });
    expect(keyEasing({ type: 'curve', id: 'c', revision: 1, is, reversed: true }, shelf)).toMatchObject({
      x1: 0.8,
      x2: 0.9,
      curve: { reversed: true },
    });
    expect(keyEasing({ type: 'curve', id: 'gone', revision: 1, is }, shelf)).toEqual(body.easing);
    expect(keyEasing({ type: 'parameter', name: 'p' }, shelf)).toBeNull();
  });
});
