import { describe, expect, test } from '@jest/globals';
import {
  busyMoments,
  frameTicks,
  programmeBoard,
  TICKS_PER_SECOND,
  type Key,
  type Layer,
  type Scene,
} from '@wexikine/core';
import { busyChart, busyLine, shownLength, spansChart, timeStep } from './chart-config';
import { changedSpans, motionSpans } from './spans';

const board = programmeBoard();
const FRAME = frameTicks(board.rate);

function keyed(id: string, from: number, to: number): Layer {
  const key = (frame: number, value: number): Key => ({ at: frame * FRAME, value, ease: { type: 'linear' } });
  return {
    ...board.layers[0],
    id,
    name: `The layer ${id} with a long name`,
    tracks: { 'position.x': [key(from, 0), key(to, 10)] },
  };
}

const standing: Scene = {
  ...board,
  runs: [],
  layers: [keyed('a', 0, 20), keyed('b', 5, 25), { ...board.layers[0], id: 'c', tracks: {} }],
};
const drawn: Scene = { ...standing, layers: [standing.layers[0], keyed('b', 8, 28), keyed('c', 1, 2)] };

describe('when layers move', () => {
  test('as they stand, of all that have keys', () => {
    expect(motionSpans(standing, standing, []).map(({ layer, now, after }) => [layer, now, after])).toEqual([
      ['a', [0, 20 * FRAME], null],
      ['b', [5 * FRAME, 25 * FRAME], null],
    ]);
  });

  test('with a dry run in its order, now and after; what comes new has no now', () => {
    const spans = motionSpans(standing, drawn, ['c', 'b', 'a']);
    expect(spans.map(({ layer }) => layer)).toEqual(['c', 'b', 'a']);
    expect(spans[0]).toMatchObject({ now: null, after: [FRAME, 2 * FRAME] });
    expect(changedSpans(spans)).toBe(2);
  });

  test('names of times stand on round steps, and the time shown ends soon after the last that moves', () => {
    expect(timeStep(6 * TICKS_PER_SECOND, board.rate)).toBe(TICKS_PER_SECOND);
    expect(timeStep(40 * TICKS_PER_SECOND, board.rate)).toBe(10 * TICKS_PER_SECOND);
    const spans = motionSpans(standing, standing, []);
    const length = shownLength(spans, 100 * TICKS_PER_SECOND, board.rate);
    expect(length).toBeGreaterThan(25 * FRAME);
    expect(length).toBeLessThanOrEqual(40 * FRAME);
    expect(shownLength(spans, 10 * FRAME, board.rate)).toBe(10 * FRAME);
  });

  test('a line of few steps has them all, one of many the most of several, each in the middle of its time', () => {
    const busy = { from: 0, step: 10, moving: Uint32Array.of(1, 5, 2), speed: Float64Array.of(0, 1.5, 0) };
    expect(busyLine(busy, 'speed', 30)).toEqual([
      { x: 5, y: 0 },
      { x: 15, y: 1.5 },
      { x: 25, y: 0 },
    ]);
    const moving = Uint32Array.from({ length: 145 }, (_, i) => (i % 3 === 1 ? 7 : i % 2));
    const many = busyLine({ ...busy, moving }, 'moving', 1_450);
    expect(many).toHaveLength(49);
    expect(many.slice(0, 48).every(({ y }) => y === 7)).toBe(true);
    expect(many[0].x).toBe(15);
    expect(many[48]).toEqual({ x: 1_455, y: 0 });
    expect(busyLine({ ...busy, moving }, 'moving', 720)).toHaveLength(145);
  });

  test('charts hold what is shown, and a press on them leads there', () => {
    const went: unknown[] = [];
    const spans = motionSpans(standing, drawn, ['b', 'a']);
    const time = { rate: board.rate, length: 50 * FRAME };
    const config = spansChart(spans, time, (...where) => went.push(where))(() => '#000');
    expect(config.data.datasets.map(({ label, data }) => [label, data[0]])).toEqual([
      ['now', [5 * FRAME, 25 * FRAME]],
      ['after', [8 * FRAME, 28 * FRAME]],
    ]);
    // Where a layer begins to move there is one bar, for which no room of another is left.
    const begun = spansChart(motionSpans(standing, drawn, ['c']), time, () => undefined)(() => '#000').data.datasets;
    expect(begun).toMatchObject([
      { data: [null], skipNull: true },
      { data: [[FRAME, 2 * FRAME]], skipNull: true },
    ]);
    expect(config.data.labels?.[0]).toMatch(/…$/);
    config.options?.onClick?.({} as never, [{ index: 0, datasetIndex: 1 }] as never, {} as never);
    expect(went).toEqual([['b', 8 * FRAME]]);
    const busy = busyMoments(standing);
    expect(busyChart(busy, null, time, () => undefined)(() => '#000').data.datasets).toHaveLength(2);
    expect(busyChart(busy, busy, time, () => undefined)(() => '#000').data.datasets).toHaveLength(3);
  });
});
