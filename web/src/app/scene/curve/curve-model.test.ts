import '@angular/compiler';
import { describe, expect, test } from '@jest/globals';
import { signal } from '@angular/core';
import {
  frameTicks,
  programmeBoard,
  type ChannelId,
  type HandPicks,
  type Key,
  type Layer,
  type Scene,
} from '@wexikine/core';
import { TimeAxis } from '../sheet/time-axis';
import type { TimeWindow } from '../sheet/time-window';
import { CurveModel, ROOM, type CurveShow, type Tried } from './curve-model';
import type { ValueRange } from './curve-shape';

const board = programmeBoard();
const FRAME = frameTicks(board.rate);
const key = (frame: number, value: number, run?: string): Key => ({
  at: frame * FRAME,
  value,
  ease: { type: 'bezier', x1: 0.4, y1: 0, x2: 0.2, y2: 1 },
  ...(run === undefined ? {} : { by: { run, slot: `s${frame}` } }),
});
const layer = (id: string, tracks: Layer['tracks']): Layer => ({ ...board.layers[0], id, name: id, tracks });
const scene: Scene = {
  ...board,
  runs: [],
  length: 100 * FRAME,
  layers: [
    layer('a', { 'position.x': [key(0, 0), key(50, 100, 'r1'), key(100, 50)], opacity: [key(0, 0), key(10, 1)] }),
    layer('b', { 'position.x': [key(20, -40), key(40, 300)] }),
    layer('c', { 'position.x': [key(30, 10), key(60, 20)] }),
  ],
};
const none: HandPicks = new Map();
const pick = (...all: readonly (readonly [string, ChannelId, number])[]): HandPicks => {
  const picks = new Map<string, Map<ChannelId, Set<number>>>();
  for (const [id, channel, frame] of all) {
    const own = picks.get(id) ?? new Map<ChannelId, Set<number>>();
    own.set(channel, (own.get(channel) ?? new Set()).add(frame * FRAME));
    picks.set(id, own);
  }
  return picks;
};

/** A picture of curves 400 by 220 px, of the whole scene unless something else is said. */
function picture(more: { picks?: HandPicks; show?: CurveShow; canEdit?: boolean; hasOthers?: boolean } = {}) {
  const wanted = signal<TimeWindow | null>(null);
  const size = signal({ width: 400 + ROOM.left + ROOM.right, height: 200 + ROOM.below });
  const source = {
    scene: signal(scene),
    selected: signal<string | null>('a'),
    channels: signal<readonly ChannelId[]>(['position.x']),
    rigs: signal(null),
    runId: signal<string | null>('r1'),
    show: signal<CurveShow>(more.show ?? 'value'),
    isEach: signal(false),
    canEdit: signal(more.canEdit ?? true),
    range: signal<ValueRange | null>(null),
    picks: signal(more.picks ?? none),
    trial: signal<Tried | null>(null),
    hasOthers: signal(more.hasOthers ?? false),
    size,
    axis: new TimeAxis({
      wanted,
      want: (window) => wanted.set(window),
      scene: signal(scene),
      time: signal(0),
      left: () => 0,
      width: signal(400),
    }),
  };
  return { model: new CurveModel(source), source, wanted };
}

describe('the picture of curves', () => {
  test('has a mark for each key where it stands in time and value, says which are picked, and which the run makes', () => {
    const { model } = picture({ picks: pick(['a', 'position.x', 0]) });
    const marks = model.marks();
    expect(marks.map(({ x }) => x)).toEqual([0, 200, 400]);
    expect(marks.map(({ isPicked }) => isPicked)).toEqual([true, false, false]);
    expect(marks.map(({ isNew }) => isNew)).toEqual([false, true, false]);
    // The greatest value stands highest, and a value half way between two stands half way between them.
    expect(marks[1].y).toBeLessThan(marks[2].y);
    expect(marks[2].y).toBeCloseTo((marks[0].y + marks[1].y) / 2, 6);
    expect(marks[1].label).toMatch(/^a, .* at .*: 100/);
  });

  test('leaves out marks that the stretch of time does not show', () => {
    const { model, wanted } = picture();
    wanted.set({ from: 40 * FRAME, span: 20 * FRAME });
    expect(model.marks().map(({ at, x }) => [at / FRAME, x])).toEqual([[50, 200]]);
  });

  test('has handles of picked keys, where keys can be changed', () => {
    const picks = pick(['a', 'position.x', 50]);
    expect(picture({ picks }).model.handles().length).toBeGreaterThan(0);
    expect(picture({ picks, canEdit: false }).model.handles()).toEqual([]);
    expect(picture({ picks: none }).model.handles()).toEqual([]);
  });

  test('draws other layers with picked keys behind, as one line a channel, with their picked keys as points', () => {
    const picks = pick(['b', 'position.x', 20], ['c', 'position.x', 30], ['c', 'position.x', 60]);
    const { model } = picture({ picks, hasOthers: true });
    const paths = model.paths();
    expect(paths.map(({ isOwn }) => isOwn)).toEqual([false, true]);
    expect(paths[0].d.match(/M/g)).toHaveLength(2);
    expect(model.otherKeys().match(/M/g)).toHaveLength(3);
    expect(model.otherKeys()).toMatch(/^M80\.0 /);
    expect(picture({ picks }).model.paths()).toHaveLength(1);
  });

  test('keeps its scale while something is dragged, and draws what is tried', () => {
    const { model, source } = picture();
    const before = model.marks();
    const dragged: Scene = {
      ...scene,
      layers: [layer('a', { 'position.x': [key(0, 0), key(50, 900, 'r1'), key(100, 50)] })],
    };
    source.trial.set({
      label: 'Drag',
      change: { edits: [], picks: none } as unknown as Tried['change'],
      scene: dragged,
    });
    const during = model.marks();
    expect(during[0].y).toBe(before[0].y);
    expect(during[2].y).toBe(before[2].y);
    expect(during[1].y).toBeLessThan(-100);
    source.trial.set(null);
    expect(model.marks()).toEqual(before);
  });

  test('shows speeds alone without keys, or over the values with the greatest one in words', () => {
    const alone = picture({ show: 'speed' }).model;
    expect([alone.paths(), alone.marks(), alone.handles()]).toEqual([[], [], []]);
    expect(alone.speedPaths()).toHaveLength(1);
    expect(alone.grid().length).toBeGreaterThan(1);
    expect(alone.up()).toBe('↑ speed');
    const both = picture({ show: 'both' }).model;
    expect(both.paths()).toHaveLength(1);
    expect(both.fastest()).toMatch(/^dashed: speed, at most [\d.]+ px\/s$/);
    expect(picture().model.fastest()).toBe('');
  });

  test('gives channels of other units a scale each', () => {
    const { model, source } = picture();
    expect(model.isEachOwn()).toBe(false);
    source.channels.set(['position.x', 'opacity']);
    expect(model.isEachOwn()).toBe(true);
    const [x, opacity] = model.lines();
    expect(model.scales().get(x.id)).not.toBe(model.scales().get(opacity.id));
  });

  test('has nothing to draw where no layer is selected', () => {
    const { model, source } = picture();
    source.selected.set(null);
    expect([model.lines(), model.marks(), model.grid(), model.lead()]).toEqual([[], [], [], null]);
  });
});
