import { describe, expect, test } from '@jest/globals';
import { createShelf, rowGroups, STARTER_LIBRARY, type Preset } from '@wexikine/core';
import {
  cellCommand,
  cellOf,
  chipOf,
  easedAfter,
  goneFrom,
  stepAfter,
  takenBackAt,
  textAt,
  withMoment,
  writtenAt,
  type Matrix,
} from './matrix-cells';

const preset = createShelf(STARTER_LIBRARY).preset('rise-and-settle')?.body as Preset;
const matrix: Matrix = { preset, groups: rowGroups(preset) };
const { moments } = preset;
const opacity = matrix.groups.findIndex(({ channels }) => channels.includes('opacity'));
const cells = matrix.groups[opacity].row.cells;
const columnOf = (id: string): number => moments.findIndex((moment) => moment.id === id);

describe('the matrix of a preset', () => {
  test('has the times of moments over its rows, and empty places', () => {
    expect(textAt(matrix, { row: -1, column: 1 })).toBe(moments[1].at);
    expect(textAt(matrix, { row: opacity, column: columnOf(cells[0].moment) })).toBe(cells[0].value);
    const free = moments.find(({ id }) => cells.every(({ moment }) => moment !== id));
    expect(free).toBeDefined();
    expect(textAt(matrix, { row: opacity, column: moments.indexOf(free ?? moments[0]) })).toBe('');
    expect(cellOf(matrix.groups[opacity], free ?? moments[0])).toBeNull();
  });

  test('has an easing after each cell but the last one of a row', () => {
    const group = matrix.groups[opacity];
    const after = (id: string) => chipOf(group, moments[columnOf(id)]);
    expect(after(cells[0].moment)).toEqual({ group, cell: cells[0], next: cells[1] });
    expect(after(cells[cells.length - 1].moment)).toBeNull();
    const free = moments.find(({ id }) => cells.every(({ moment }) => moment !== id)) ?? moments[0];
    expect(chipOf(group, free)).toBeNull();
  });

  test('takes a formula as one step while it is typed, named for where it stands', () => {
    const place = { row: opacity, column: columnOf(cells[0].moment) };
    const change = writtenAt(matrix, place, '25%');
    expect(change.label).toBe(`Opacity at ${moments[place.column].name}`);
    expect(change.merge).toBe(writtenAt(matrix, place, '2').merge);
    expect(change.merge).not.toBe(writtenAt(matrix, { ...place, row: -1 }, '2f').merge);
    const now = { preset: change.preset, groups: rowGroups(change.preset) };
    expect(textAt(now, place)).toBe('25%');
    const emptied = writtenAt(matrix, place, '').preset;
    expect(textAt({ preset: emptied, groups: rowGroups(emptied) }, place)).toBe('');
    expect(takenBackAt(place, preset)).toEqual({ label: 'Take back what was typed', preset, merge: change.merge });
  });

  test('takes the time of a moment and an easing', () => {
    const timed = writtenAt(matrix, { row: -1, column: 2 }, '9f');
    expect([timed.label, timed.preset.moments[2].at]).toEqual([`Time of ${moments[2].name}`, '9f']);
    const chip = chipOf(matrix.groups[opacity], moments[columnOf(cells[0].moment)]);
    if (!chip) throw new Error('no easing');
    const eased = easedAfter(preset, chip, { type: 'hold' });
    expect(eased.label).toBe('Easing of opacity');
    const row = eased.preset.rows.find(({ channel }) => channel === 'opacity');
    expect(row?.cells.map(({ ease }) => ease.type)).toEqual(['hold', ...cells.slice(1).map(({ ease }) => ease.type)]);
  });

  test('gets another moment before its last one', () => {
    const { label, preset: more } = withMoment(preset);
    expect(label).toBe(`Add the moment Moment ${moments.length}`);
    expect(more.moments.map(({ name }) => name)).toEqual([
      ...moments.slice(0, -1).map(({ name }) => name),
      `Moment ${moments.length}`,
      moments[moments.length - 1].name,
    ]);
    expect(more.moments[moments.length - 1].at).toBe(`@${preset.lasts} × 50%`);
    const { lasts: _lasts, ...own } = preset;
    const begins: Preset = { ...own, moments: moments.slice(0, 1), rows: [] };
    expect(withMoment(begins).preset.moments.map(({ at }) => at)).toEqual([moments[0].at, '10f']);
    const open: Preset = { ...own, rows: [] };
    expect(withMoment(open).preset.moments[moments.length - 1].at).toBe('10f');
  });

  test('is gone through by rows and columns; at its edges one stays', () => {
    const last = { row: matrix.groups.length - 1, column: moments.length - 1 };
    expect(goneFrom(matrix, { row: 0, column: 0 }, 1, 0)).toEqual({ row: 1, column: 0 });
    expect(goneFrom(matrix, { row: 0, column: 0 }, -1, 0)).toEqual({ row: -1, column: 0 });
    for (const [from, down, across] of [
      [{ row: -1, column: 0 }, -1, 0],
      [{ row: 0, column: 0 }, 0, -1],
      [last, 1, 0],
      [last, 0, 1],
    ] as const)
      expect(goneFrom(matrix, from, down, across)).toEqual(from);
  });

  test('goes on from a cell as its typing ended', () => {
    expect(stepAfter('down')).toEqual([1, 0]);
    expect(stepAfter('next')).toEqual([0, 1]);
    expect(stepAfter('previous')).toEqual([0, -1]);
    expect(stepAfter('cancel')).toEqual([0, 0]);
    expect(stepAfter('stay')).toBeNull();
  });
});

describe('keys in a cell of the matrix', () => {
  const asked = (key: string, held: Partial<KeyboardEvent> = {}) =>
    cellCommand({ key, ctrlKey: false, metaKey: false, altKey: false, ...held });

  test('arrows go on, Enter and typing edit, Delete empties', () => {
    expect(asked('ArrowUp')).toEqual({ does: 'go', down: -1, across: 0 });
    expect(asked('ArrowDown')).toEqual({ does: 'go', down: 1, across: 0 });
    expect(asked('ArrowLeft')).toEqual({ does: 'go', down: 0, across: -1 });
    expect(asked('ArrowRight')).toEqual({ does: 'go', down: 0, across: 1 });
    for (const key of ['Enter', 'F2']) expect(asked(key)).toEqual({ does: 'edit', typed: null });
    expect(asked('@')).toEqual({ does: 'edit', typed: '@' });
    for (const key of ['Delete', 'Backspace']) expect(asked(key)).toEqual({ does: 'empty' });
  });

  test('what means something elsewhere is left', () => {
    for (const held of [{ ctrlKey: true }, { metaKey: true }, { altKey: true }]) expect(asked('z', held)).toBeNull();
    for (const key of ['Tab', 'Escape', 'Home']) expect(asked(key)).toBeNull();
  });
});
