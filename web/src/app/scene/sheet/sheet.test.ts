import { describe, expect, test } from '@jest/globals';
import {
  apply,
  createShelf,
  plan,
  programmeBoard,
  STARTER_LIBRARY,
  STARTER_PRESETS,
  ticksFromSeconds,
  type Layer,
} from '@wexikine/core';
import { firstRecipe } from '../first-recipe';
import { plotCurve } from '../../drawing/curve-plot';
import { rowTimes, sheetRows, valueText, sheetColumns } from './rows';
import { rulerMarks } from './ruler';
import { createStrip, leadingChannel, stripWords } from './strip';

const shelf = createShelf(STARTER_LIBRARY);
const board = programmeBoard();
const item = shelf.preset('rise-and-settle') ?? STARTER_PRESETS[0];
const recipe = {
  ...firstRecipe(board, item),
  parameters: { tilt: { by: 'cycle' as const, values: ['-6deg', '6deg'] } },
};
const planned = plan(board, shelf, recipe, { runId: 'dry', by: 'Test', when: '2026-01-01T00:00:00.000Z' });
const result = apply(board, planned.edits);
const drawn = result.ok ? result.scene : board;
const row = drawn.layers.find(({ id }) => id === 'row-02') as Layer;
const SIZE = { width: 600, height: 29, window: { from: 0, span: board.length } };

describe('rows', () => {
  test('groups are closed until they are opened, and a search looks into them', () => {
    const closed = sheetRows(drawn, planned, new Set(), '');
    expect(closed).toHaveLength(19);
    expect(sheetRows(drawn, planned, new Set(['row-01']), '').filter(({ depth }) => depth === 1)).toHaveLength(3);
    expect(sheetRows(drawn, planned, new Set(), 'METEOR').map(({ layer }) => layer.id)).toEqual([
      'row-05',
      'row-05-card',
      'row-05-name',
      'row-05-time',
    ]);
  });

  test('of those that take part are opened too; where all are listed by place there is nothing to open', () => {
    const taking = sheetRows(drawn, planned, new Set(['row-01']), '', false, true);
    expect(taking).toHaveLength(12 + 3);
    expect(taking.filter(({ depth }) => depth === 1).every(({ layer }) => layer.parent === 'row-01')).toBe(true);
    const byPlace = sheetRows(drawn, planned, new Set(['row-01']), '', true, false);
    expect(byPlace).toHaveLength(drawn.layers.length);
    expect(byPlace.some(({ canOpen }) => canOpen)).toBe(false);
  });

  test('say what the run gives: start, length and varied values; other layers their span', () => {
    const rows = sheetRows(drawn, planned, new Set(), '');
    const second = rows.find(({ layer }) => layer.id === 'row-02');
    if (!second?.plan) throw new Error();
    expect(rowTimes(second, board.rate)).toEqual({ starts: '0:04', lasts: '20 f' });
    const [column] = sheetColumns(planned, item.body.parameters);
    expect(valueText(column.kind, second.plan.values[column.name], board.rate)).toBe('6°');
    expect(rowTimes(rows[0], board.rate)).toEqual({ starts: '0:00', lasts: '150 f' });
  });
});

test('columns are those that the run sets, and those that one asks for', () => {
  const { parameters } = item.body;
  const names = (chosen?: ReadonlyMap<string, boolean>) =>
    sheetColumns(planned, parameters, chosen).map(({ name }) => name);
  expect(names()).toEqual(['tilt']);
  const other = parameters.find(({ name }) => name !== 'tilt')?.name ?? '';
  expect(names(new Map([[other, true]])).sort()).toEqual([other, 'tilt'].sort());
  expect(names(new Map([['tilt', false]]))).toEqual([]);
  expect(sheetColumns(null, parameters, new Map([['tilt', true]]))).toEqual([]);
});

describe('strips', () => {
  test('show the channel that moves most, and every key once, new ones marked', () => {
    const strip = createStrip({ layer: row }, 'dry', SIZE);
    expect(leadingChannel(row)).toBe('position.y');
    expect(leadingChannel({ ...row, tracks: { opacity: row.tracks.opacity } } as Layer)).toBe('opacity');
    expect(strip.marks.map(({ x, kind }) => [Math.round(x), kind])).toEqual([
      [16, 'added'],
      [36, 'added'],
      [60, 'added'],
      [80, 'added'],
      [96, 'added'],
    ]);
    expect(createStrip({ layer: row }, null, SIZE).marks.every(({ kind }) => kind === 'standing')).toBe(true);
    expect(strip.left).toBe(0);
    expect(strip.width).toBe(600);
  });

  test('a dry run leads with a channel that it touches', () => {
    const key = (by: string) => [
      { at: 0, value: 0, ease: { type: 'linear' as const }, by: { run: by, slot: 's' } },
      { at: 9, value: 1, ease: { type: 'linear' as const } },
    ];
    const both = { ...row, tracks: { 'position.y': row.tracks['position.y'], opacity: key('exit') } } as Layer;
    expect(leadingChannel(both)).toBe('position.y');
    expect(leadingChannel(both, 'exit')).toBe('opacity');
  });

  test('tell keys that are added, take the place of others, stay, and go', () => {
    const at = (frame: number, run?: string) => ({
      at: frame,
      value: frame,
      ease: { type: 'linear' as const },
      ...(run === undefined ? {} : { by: { run, slot: `s${frame}` } }),
    });
    const under = { ...row, tracks: { opacity: [at(0), at(5), at(9), at(20)] } } as Layer;
    const after = { ...row, tracks: { opacity: [at(0), at(5, 'dry'), at(12, 'dry'), at(20)] } } as Layer;
    const size = { ...SIZE, width: 100, window: { from: 0, span: 100 } };
    const { marks, gone } = createStrip({ layer: after, under }, 'dry', size);
    expect(marks.map(({ x, kind }) => [x, kind])).toEqual([
      [0, 'standing'],
      [5, 'replaced'],
      [12, 'added'],
      [20, 'standing'],
    ]);
    expect(gone).toEqual([9]);
    expect(stripWords(createStrip({ layer: after, under }, 'dry', size))).toBe(
      'Keys: 2 kept, 1 added, 1 replaced, 1 removed',
    );
    expect(stripWords(createStrip({ layer: { ...row, tracks: {} } }, null, size))).toBe('No keys');
    const moved = {
      ...after,
      span: { in: row.span.in + 10, out: row.span.out + 10 },
      tracks: { opacity: [at(15, 'dry')] },
    };
    expect(createStrip({ layer: moved, under }, 'dry', size).marks).toMatchObject([{ kind: 'replaced' }]);
  });

  test('a run that is changed is compared with what it found', () => {
    const { opacity: _made, ...found } = row.tracks;
    const under: Layer = { ...row, tracks: found };
    const { marks } = createStrip(
      { layer: { ...row, tracks: { opacity: row.tracks.opacity } } as Layer, under },
      'dry',
      SIZE,
    );
    expect(marks.every(({ kind }) => kind === 'added')).toBe(true);
  });

  test('show the curve as it stands behind the one that it becomes', () => {
    const slower = row.tracks['position.y']?.map((key) => ({ ...key, at: key.at * 2 }));
    const standing = { ...row, tracks: { 'position.y': slower } } as Layer;
    expect(createStrip({ layer: row, standing }, 'dry', SIZE).before).toMatch(/^M0.0 .*L600.0 /);
    expect(createStrip({ layer: row, standing: row }, 'dry', SIZE).before).toBe('');
    expect(createStrip({ layer: row, standing: { ...row, tracks: {} } }, 'dry', SIZE).before).toBe('');
  });

  test('draw a curve by points that can be told apart: ten a segment, fewer where it is short on screen', () => {
    const linear = (at: number, value: number) => ({ at, value, ease: { type: 'linear' as const } });
    const still = {
      ...row,
      span: { in: 0, out: 1_000 },
      tracks: { opacity: [linear(0, 0), linear(1_000, 1)] },
    } as Layer;
    const pointsIn = (width: number): number =>
      createStrip({ layer: still }, null, { width, height: 29, window: { from: 0, span: 1_000 } }).curve.match(/[ML]/g)
        ?.length ?? 0;
    // Ten or fewer, the last key, and the two ends of the span.
    expect([600, 15, 6, 1].map(pointsIn)).toEqual([13, 13, 7, 4]);
  });

  test('wings show how steeply a key is left', () => {
    const rising = { ...row, tracks: { opacity: row.tracks.opacity } } as Layer;
    const [first, second] = createStrip({ layer: rising }, 'dry', SIZE).marks;
    expect(first.leaves).toBeLessThan(0);
    expect(first.arrives).toBeCloseTo(0, 9);
    expect(second.arrives).toBeLessThan(0);
    expect(second.leaves).toBeCloseTo(0, 9);
  });

  test('a layer without keys is its span alone', () => {
    const still = { ...row, tracks: {}, span: { in: ticksFromSeconds(1), out: ticksFromSeconds(3) } };
    expect(createStrip({ layer: still }, null, SIZE)).toMatchObject({ left: 100, width: 200, curve: '', marks: [] });
  });
});

test('the ruler’s main marks stay apart at any length and width', () => {
  for (const seconds of [0.4, 6, 90, 3600]) {
    for (const width of [200, 365, 900]) {
      const main = rulerMarks({ from: 0, span: ticksFromSeconds(seconds) }, width, board.rate).filter(
        ({ label }) => label !== null,
      );
      main.slice(1).forEach((mark, i) => expect(mark.x - main[i].x).toBeGreaterThan(50));
    }
  }
  expect(
    rulerMarks({ from: 0, span: ticksFromSeconds(6) }, 365, board.rate).find(({ label }) => label === '1:00')?.x,
  ).toBeCloseTo(365 / 6, 9);
});

test('the curve panel plots keys where they are in time and value', () => {
  const keys = row.tracks['position.y'] ?? [];
  const plot = plotCurve(keys, 'position.y', 'dry', { width: 400, height: 160 });
  expect(plot.keys).toHaveLength(keys.length);
  const [first, past] = plot.keys;
  expect(first.y).toBeGreaterThan(past.y);
  expect(plot.grid).toHaveLength(5);
});
