import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { CellEditor, type HandValue } from './cell-editor';
import type { Cell } from './cells';
import type { SheetRow } from './rows';

const row = { layer: { id: 'a' } } as SheetRow;
const cell = { field: 'start', text: '0:10' } as unknown as Cell;

function typed(value: string, key = 'Enter') {
  return { key, target: { value }, stopPropagation: jest.fn() } as unknown as KeyboardEvent;
}

function editorWith(problem: (text: string) => string | null = () => null) {
  const given: HandValue[] = [];
  const context = { rate: { num: 25, den: 1 }, check: () => problem };
  const editor = new CellEditor(
    () => context,
    (value) => given.push(value),
  );
  return { editor, given };
}

describe('a cell that is written in', () => {
  // What is focused afterwards is the page's.
  beforeEach(() => void jest.useFakeTimers());
  afterEach(() => void jest.useRealTimers());

  test('is one at a time, and no other', () => {
    const { editor } = editorWith();
    expect(editor.isOpen('a', cell.field)).toBe(false);
    editor.open(row, cell);
    expect(editor.isOpen('a', cell.field)).toBe(true);
    expect(editor.isOpen('b', cell.field)).toBe(false);
    editor.close();
    expect(editor.isOpen('a', cell.field)).toBe(false);
  });

  test('gives what was typed, sums worked out, when Enter is pressed; nothing releases the value', () => {
    const { editor, given } = editorWith();
    editor.open(row, cell);
    editor.key(typed('12f'), row, cell);
    editor.open(row, cell);
    editor.key(typed(''), row, cell);
    expect(given).toEqual([
      { layer: 'a', field: 'start', text: '12f' },
      { layer: 'a', field: 'start', text: null },
    ]);
    expect(editor.isOpen('a', cell.field)).toBe(false);
  });

  test('is left as it was by Escape, and stays open while what is typed is wrong', () => {
    const { editor, given } = editorWith((text) => (text === 'soon' ? 'That is no time.' : null));
    editor.open(row, cell);
    editor.check(cell, typed('soon'));
    expect(editor.problem()).toBe('That is no time.');
    editor.key(typed('soon'), row, cell);
    expect([given, editor.isOpen('a', cell.field)]).toEqual([[], true]);
    // Nothing is wrong with nothing: it releases the value.
    editor.check(cell, typed(''));
    expect(editor.problem()).toBeNull();
    editor.key(typed('8f', 'Escape'), row, cell);
    expect([given, editor.isOpen('a', cell.field)]).toEqual([[], false]);
  });

  test('keeps its keys to itself', () => {
    const { editor } = editorWith();
    const event = typed('1f', 'ArrowDown');
    editor.key(event, row, cell);
    expect(event.stopPropagation).toHaveBeenCalledTimes(1);
  });

  test('forgets what was wrong when another one is opened', () => {
    const { editor } = editorWith(() => 'Wrong.');
    editor.open(row, cell);
    editor.check(cell, typed('x'));
    editor.open(row, cell);
    expect(editor.problem()).toBeNull();
  });
});
