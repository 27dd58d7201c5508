import { describe, expect, test } from '@jest/globals';
import {
  apply,
  channelOf,
  frameTicks,
  programmeBoard,
  type ChannelId,
  type HandPicks,
  type Key,
  type Layer,
  type Scene,
} from '@wexikine/core';
import { draggedBy, marksWithin, movedPicks, roundTo, type DragGround } from './curve-moves';
import type { CurveLine } from './curve-lines';
import type { KeyMark } from './curve-model';
import { createScale } from './curve-shape';

const board = programmeBoard();
const FRAME = frameTicks(board.rate);
const line = (channel: ChannelId): CurveLine => ({ channel }) as CurveLine;
/** 200 px for values from 0 to 100, 2 px a frame; at the top lies 100. */
const ground = (more: Partial<DragGround> = {}): DragGround => ({
  scale: createScale({ low: 0, high: 100 }, 212, false),
  rate: board.rate,
  targets: [],
  ticksOf: (px) => (px * FRAME) / 2,
  ...more,
});
const mark = { line: line('position.x'), at: 10 * FRAME, y: 106 };
const dragged = (dx: number, dy: number, isStraight = false, more: Partial<DragGround> = {}) => {
  const { by, more: risen } = draggedBy(
    mark,
    [
      { x: 50, y: 60 },
      { x: 50 + dx, y: 60 + dy },
    ],
    isStraight,
    ground(more),
  );
  return [by / FRAME, risen];
};

describe('keys that are dragged on a curve', () => {
  test('go by whole frames across, and by round steps up', () => {
    expect(dragged(7, 0)).toEqual([4, 0]);
    expect(dragged(-20, -40)).toEqual([-10, 20]);
    expect(dragged(0, 9)).toEqual([0, -4.5]);
    // Where small values fill the height, steps are finer.
    const [, risen] = dragged(0, -9, false, { scale: createScale({ low: 0, high: 1 }, 212, false) });
    expect(risen).toBeCloseTo(0.045, 9);
    // Where values grow downwards, down is more.
    expect(dragged(0, 40, false, { scale: createScale({ low: 0, high: 100 }, 212, true) })).toEqual([0, 20]);
  });

  test('held straight, go the longer of the two ways', () => {
    expect(dragged(40, 30, true)).toEqual([20, 0]);
    expect(dragged(-30, 40, true)).toEqual([0, -20]);
    expect(dragged(30, 30, true)).toEqual([15, 0]);
  });

  test('take the time of what is near, and of nothing farther than six pixels', () => {
    const targets = [10 * FRAME + 15.25 * FRAME];
    expect(dragged(25, 0, false, { targets })).toEqual([15.25, 0]);
    expect(dragged(18, 0, false, { targets })).toEqual([9, 0]);
    // A key that only rises keeps its time, whatever stands beside it.
    expect(dragged(1, 40, true, { targets: [10 * FRAME + 1] })).toEqual([0, -20]);
  });

  test('steps are 1 at most, and a two-hundredth of what is seen where that is less', () => {
    expect(roundTo(12.6, 5_000)).toBe(13);
    expect(roundTo(12.6, 200)).toBe(13);
    expect(roundTo(12.64, 199)).toBeCloseTo(12.6, 9);
    expect(roundTo(0.1264, 2)).toBeCloseTo(0.13, 9);
    expect(roundTo(3, 0)).toBe(3);
  });
});

describe('what is picked on curves', () => {
  const key = (frame: number, value: number): Key => ({ at: frame * FRAME, value, ease: { type: 'linear' } });
  const layer: Layer = {
    ...board.layers[0],
    id: 'a',
    parent: null,
    locked: false,
    tracks: { 'position.x': [key(0, 5), key(10, 20)], rotation: [key(10, 90)] },
  };
  const scene: Scene = { ...board, runs: [], layers: [layer] };
  const picks: HandPicks = new Map([
    [
      'a',
      new Map<ChannelId, Set<number>>([
        ['position.x', new Set([10 * FRAME])],
        ['rotation', new Set([10 * FRAME])],
      ]),
    ],
  ]);
  const moved = (by: number, more: number) => {
    const change = movedPicks(scene, picks, { by: by * FRAME, more }, channelOf('position.x').unit);
    const result = apply(scene, change.edits);
    if (!result.ok) throw new Error(result.problem.code);
    const [{ tracks }] = result.scene.layers;
    const told = (keys: readonly Key[] = []) => keys.map(({ at, value }) => [at / FRAME, value]);
    const now = [...(change.picks.get('a')?.get('position.x') ?? [])].map((at) => at / FRAME);
    return [told(tracks['position.x']), told(tracks.rotation), now];
  };

  test('moves in time together; in value only what has the same unit', () => {
    expect(moved(4, 0)).toEqual([
      [
        [0, 5],
        [14, 20],
      ],
      [[14, 90]],
      [14],
    ]);
    expect(moved(0, 7)).toEqual([
      [
        [0, 5],
        [10, 27],
      ],
      [[10, 90]],
      [10],
    ]);
    expect(moved(-3, -20)).toEqual([
      [
        [0, 5],
        [7, 0],
      ],
      [[7, 90]],
      [7],
    ]);
    expect(movedPicks(scene, picks, { by: 0, more: 0 }, 'px').edits).toEqual([]);
  });

  test('a band takes the marks in it, its edges with it', () => {
    const at = (x: number, y: number): KeyMark => ({ id: `${x} ${y}`, x, y }) as KeyMark;
    const marks = [at(10, 10), at(30, 20), at(9, 15), at(20, 21), at(31, 12), at(20, 9)];
    const box = { x: 10, y: 10, width: 20, height: 10 };
    expect(marksWithin(marks, box).map(({ id }) => id)).toEqual(['10 10', '30 20']);
  });
});
