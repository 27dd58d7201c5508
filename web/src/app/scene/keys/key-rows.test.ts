import { describe, expect, test } from '@jest/globals';
import {
  countPicks,
  frameTicks,
  programmeBoard,
  type HandPicks,
  type Layer,
  type RunRecord,
  type Scene,
} from '@wexikine/core';
import {
  allKeys,
  countKeys,
  grownToLayers,
  grownToPhase,
  inverted,
  keyRows,
  keysIn,
  nearest,
  pickedTimes,
  reached,
  rowLabel,
  timesOf,
  withKeys,
} from './key-rows';
import { rowMarks } from './row-marks';
import { snapTime } from './snap';

const board = programmeBoard();

function keyed(name: string, start: number): Layer {
  const key = (at: number, value: number) => ({ at, value, ease: { type: 'linear' as const } });
  return {
    ...board.layers[0],
    id: name,
    name,
    tracks: { opacity: [key(start, 0), key(start + 10, 1)], rotation: [key(start, 5)] },
  };
}

const scene: Scene = {
  ...board,
  layers: [keyed('a', 0), { ...board.layers[0], id: 'bare', tracks: {} }, keyed('b', 4)],
};
const all = keyRows(scene, null, new Set());
const rows = all.slice(1);

function count(picks: HandPicks): number {
  return [...picks.values()].flatMap((own) => [...own.values()].flatMap((times) => [...times])).length;
}

describe('rows of keys', () => {
  test('layers without keys are left out, closed ones have one row, and only those that take part may be shown', () => {
    expect(rows.map(({ id }) => id)).toEqual(['a', 'a rotation', 'a opacity', 'b', 'b rotation', 'b opacity']);
    expect(keyRows(scene, null, new Set(['a'])).map(({ id }) => id)).toEqual([
      'all',
      'a',
      'b',
      'b rotation',
      'b opacity',
    ]);
    expect(keyRows(scene, new Set(['b']), new Set()).every(({ layers }) => layers[0].id === 'b')).toBe(true);
  });

  test('a press means a key, its moment on all layers, or that and everything later', () => {
    const [head, rotation] = rows;
    expect(reached(rotation, 0, 'key', rows)).toEqual([['a', 'rotation', 0]]);
    expect(reached(head, 0, 'moment', rows)).toHaveLength(4);
    expect(reached(head, 0, 'later', rows)).toHaveLength(6);
    expect(reached(head, 10, 'moment', rows)).toEqual([
      ['a', 'opacity', 10],
      ['b', 'opacity', 14],
    ]);
  });

  test('keys are picked, taken out again, and turned round', () => {
    const one = withKeys(new Map(), keysIn(rows[0], 0, 0));
    expect(count(one)).toBe(2);
    expect([...pickedTimes(rows[0], one)]).toEqual([0]);
    expect(count(withKeys(one, keysIn(rows[1], 0, 0), true))).toBe(1);
    expect(count(inverted(one, rows))).toBe(allKeys(rows).length - 2);
    expect(withKeys(one, keysIn(rows[0], 0, 0), true).size).toBe(0);
  });

  test('one row stands for all layers: a time of it is that time on every layer', () => {
    expect(all[0]).toMatchObject({ id: 'all', kind: 'all' });
    expect(rowLabel(all[0])).toBe('All 2 layers');
    expect(timesOf(all[0])).toEqual([0, 4, 10, 14]);
    expect(reached(all[0], 4, 'moment', all)).toHaveLength(2);
    expect(reached(all[0], 4, 'later', all)).toHaveLength(4);
    expect([...pickedTimes(all[0], withKeys(new Map(), [['b', 'opacity', 14]]))]).toEqual([14]);
    // With one layer it would say the same as that layer's own row.
    expect(keyRows({ ...scene, layers: [scene.layers[0]] }, null, new Set())[0].kind).toBe('layer');
    expect(countKeys(all)).toBe(6);
  });

  test('picks grow to the same moments of other layers, and to all that one run made', () => {
    const last = withKeys(new Map(), [['a', 'opacity', 10]]);
    expect(grownToLayers(last, rows)).toEqual(withKeys(last, [['b', 'opacity', 14]]));
    const made = (by: string | undefined) => (by ? { by: { run: by, slot: by } } : {});
    const owned: Scene = {
      ...scene,
      layers: [
        {
          ...scene.layers[0],
          tracks: {
            opacity: [0, 5, 9].map((at) => ({ at, value: at, ease: { type: 'hold' }, ...made(at < 9 ? 'in' : 'out') })),
            rotation: [{ at: 0, value: 1, ease: { type: 'hold' }, ...made('in') }],
          },
        },
      ],
    };
    const own = keyRows(owned, null, new Set());
    expect(count(grownToPhase(withKeys(new Map(), [['a', 'opacity', 5]]), own))).toBe(3);
    const marks = rowMarks(own[0], [{ id: 'in' } as RunRecord, { id: 'out' } as RunRecord]);
    expect([[...marks.times], [...marks.owners], [...marks.counts]]).toEqual([
      [0, 5, 9],
      [0, 0, 1],
      [2, 1, 1],
    ]);
  });

  test('a dragged time takes a target within reach, else a frame', () => {
    const rate = { num: 25, den: 1 };
    const frame = frameTicks(rate);
    expect(snapTime(3.4 * frame, [], 0, rate)).toBe(3 * frame);
    expect(snapTime(3.4 * frame, [3.5 * frame], frame / 5, rate)).toBe(3.5 * frame);
  });

  test('the nearest time counts within reach only', () => {
    expect(nearest([3, 9, 20], 11, 5)).toBe(9);
    expect(nearest([3, 9, 20], 15, 4)).toBeNull();
  });
});

describe('rows of dials', () => {
  const at = (frame: number) => frame * frameTicks(board.rate);
  const keys = [0, 10].map((frame) => ({ at: at(frame), value: frame, ease: { type: 'linear' as const } }));
  const dial = (name: string) => ({ name, label: name.toUpperCase(), kind: 'number' as const, default: '1', note: '' });
  const run: RunRecord = {
    id: 'r',
    sentence: '',
    recipe: {
      operation: 'rig',
      rig: { id: 'sway' },
      pick: { by: 'layers', layers: ['a'] },
      order: { by: 'layered' },
      seed: 1,
      later: '0f',
      parameters: { calm: { by: 'keys', keys }, pace: { by: 'keys', keys: keys.slice(1) } },
    },
    rig: {
      id: 'sway',
      revision: 1,
      name: 'Sway',
      body: { dials: [dial('calm'), dial('still'), dial('pace')], roles: [], formulas: [] },
      channels: [],
      later: 0,
      places: 0,
      inputs: [],
    },
    by: 'Ada',
    when: '2026-01-01T00:00:00.000Z',
    layers: ['a'],
    made: {},
  };
  const shown = keyRows({ ...scene, runs: [run] }, null, new Set());
  const rig = shown.find(({ kind }) => kind === 'rig');
  const calm = shown.find(({ kind }) => kind === 'dial');
  if (!rig || !calm) throw new Error('no rows of dials');

  test('stand above the layers: a run, and each of its dials that has keys', () => {
    expect(shown.slice(0, 4).map(rowLabel)).toEqual(['All 2 layers', 'Dials of Sway', 'CALM', 'PACE']);
    const closed = keyRows({ ...scene, runs: [run] }, null, new Set(['dials r']));
    expect(closed.slice(0, 3).map(rowLabel)).toEqual(['All 2 layers', 'Dials of Sway', 'a']);
    expect(timesOf(rig)).toEqual([at(0), at(10)]);
    expect(countKeys(shown)).toBe(countKeys(rows) + 3);
  });

  test('a press means the key, all dials at its time, or what comes later', () => {
    const dials = (keys: readonly (readonly [string, unknown, number])[]) => keys.map(([id, , time]) => [id, time]);
    expect(dials(reached(calm, at(10), 'key', shown))).toEqual([['r calm', at(10)]]);
    expect(dials(reached(calm, at(10), 'moment', shown))).toEqual([
      ['r calm', at(10)],
      ['r pace', at(10)],
    ]);
    expect(reached(calm, at(0), 'later', shown)).toHaveLength(2);
    const picks = withKeys(new Map(), keysIn(calm, at(0), at(0)));
    expect([...pickedTimes(calm, picks)]).toEqual([at(0)]);
    expect([...pickedTimes(rig, picks)]).toEqual([at(0)]);
  });

  test('are picked with all others, left when the others are picked instead, and grown to their moment and their run', () => {
    const all = withKeys(new Map(), allKeys(shown));
    expect(countPicks(all)).toBe(countKeys(shown));
    const one = withKeys(new Map(), keysIn(calm, at(10), at(10)));
    expect(countPicks(inverted(one, shown))).toBe(countKeys(shown) - 1);
    expect(inverted(all, shown).size).toBe(0);
    expect([...grownToLayers(one, shown).keys()]).toEqual(['r calm', 'r pace']);
    expect(countPicks(grownToPhase(one, shown))).toBe(3);
  });
});
