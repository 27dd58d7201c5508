import { describe, expect, jest, test } from '@jest/globals';
import { programmeBoard } from '@wexikine/core';
import { rowKey, type RowActions } from './row-keys';
import { sheetRows, type SheetRow } from './rows';

const rows = sheetRows(programmeBoard(), null, new Set(['row-05']), '');
const row = rows.find(({ layer }) => layer.id === 'row-05') as SheetRow;
const closed = rows.find(({ layer }) => layer.id === 'row-06') as SheetRow;
const single = rows.find(({ canOpen }) => !canOpen) as SheetRow;

/** What a key on a row asks for: the names of the actions with what they were given besides the row. */
function asked(key: string, on: SheetRow, held: Partial<KeyboardEvent> = {}, isInDepth = true) {
  const said: unknown[] = [];
  const note = (name: string) => jest.fn((...given: unknown[]) => void said.push([name, ...given]));
  const actions = {
    rows: () => rows,
    isInDepth: () => isInDepth,
    ...Object.fromEntries(
      ['placed', 'reorderBy', 'goBy', 'setOpen', 'openGroup', 'tick', 'edit', 'remove'].map((name) => [
        name,
        note(name),
      ]),
    ),
  } as unknown as RowActions;
  const event = { key, altKey: false, ctrlKey: false, metaKey: false, shiftKey: false, ...held } as KeyboardEvent;
  return { isMeant: rowKey(event, on, actions), said };
}

describe('keys on a row of the sheet', () => {
  test('arrows go to other rows, and open and close groups', () => {
    expect(asked('ArrowDown', row)).toEqual({ isMeant: true, said: [['goBy', row, 1]] });
    expect(asked('ArrowUp', row).said).toEqual([['goBy', row, -1]]);
    expect(asked('ArrowRight', closed).said).toEqual([['setOpen', closed, true]]);
    expect(asked('ArrowLeft', row).said).toEqual([['setOpen', row, false]]);
    for (const [key, on] of [
      ['ArrowRight', row],
      ['ArrowLeft', closed],
      ['ArrowRight', single],
    ] as const)
      expect(asked(key, on)).toEqual({ isMeant: true, said: [] });
  });

  test('Space ticks, F2 writes, Delete removes; other keys are for others', () => {
    expect([' ', 'F2', 'Delete'].map((key) => asked(key, row).said)).toEqual([
      [['tick', row]],
      [['edit', row]],
      [['remove', row]],
    ]);
    expect(asked('a', row)).toEqual({ isMeant: false, said: [] });
    expect(asked('Escape', row).isMeant).toBe(false);
  });

  test('with Alt a row goes up and down in the order of the run', () => {
    expect(asked('ArrowUp', row, { altKey: true }).said).toEqual([['reorderBy', row, -1]]);
    expect(asked('ArrowDown', row, { altKey: true }).said).toEqual([['reorderBy', row, 1]]);
  });

  test('with Ctrl and Shift it goes in depth, where rows lie as layers do', () => {
    const { isMeant, said } = asked('ArrowUp', row, { ctrlKey: true, shiftKey: true });
    expect(isMeant).toBe(true);
    expect(said).toEqual([['placed', { layer: 'row-05', parent: null, before: 'row-04' }]]);
    expect(asked('ArrowUp', row, { ctrlKey: true, shiftKey: true }, false).said).toEqual([['goBy', row, -1]]);
    const into = asked('ArrowRight', closed, { metaKey: true, shiftKey: true }).said;
    expect(into.map((one) => (one as unknown[])[0])).toEqual(['placed', 'openGroup']);
    expect(asked('x', row, { ctrlKey: true, shiftKey: true }).isMeant).toBe(false);
  });
});
