import { describe, expect, test } from '@jest/globals';
import { programmeBoard, type Layer } from '@wexikine/core';
import { dropAt, stepOf } from './row-drop';
import { sheetRows } from './rows';

const [model] = programmeBoard().layers;
const layer = (id: string, parent: string | null = null): Layer => ({
  ...model,
  id,
  name: id,
  parent,
  kind: id.startsWith('group') ? 'group' : 'card',
});
const scene = {
  ...programmeBoard(),
  layers: [layer('a'), layer('group'), layer('in', 'group'), layer('also', 'group'), layer('group2'), layer('b')],
};
// a · group · in · also · group2 (closed) · b
const rows = sheetRows(scene, null, new Set(['group']), '');

describe('a row that is carried', () => {
  test('comes to lie on the line that is nearest, with the depth of what is there', () => {
    expect(rows.map((row) => row.layer.id)).toEqual(['a', 'group', 'in', 'also', 'group2', 'b']);
    expect(dropAt(rows, 0.2, 'b')).toEqual({ parent: null, before: 'a', row: 0, into: false, depth: 0 });
    expect(dropAt(rows, 2.9, 'b')).toEqual({ parent: 'group', before: 'also', row: 3, into: false, depth: 1 });
    expect(dropAt(rows, 3.9, 'b')).toEqual({ parent: 'group', before: null, row: 4, into: false, depth: 1 });
    // Below an open group begins what is in it.
    expect(dropAt(rows, 1.9, 'b')).toEqual({ parent: 'group', before: 'in', row: 2, into: false, depth: 1 });
    expect(dropAt(rows, 99, 'a')).toEqual({ parent: null, before: null, row: 6, into: false, depth: 0 });
  });

  test('goes into a group in the middle of its row, and nowhere into itself or where it is', () => {
    expect(dropAt(rows, 4.5, 'a')).toEqual({ parent: 'group2', before: null, row: 4, into: true, depth: 1 });
    expect(dropAt(rows, 3.5, 'group')).toBeNull();
    expect(dropAt(rows, 1.1, 'a')).toBeNull();
    expect(dropAt(rows, 0.9, 'group')).toBeNull();
    expect(dropAt(rows, 2, 'gone')).toBeNull();
  });

  test('is put by keys: back and forward, into the group above, and out of its own', () => {
    expect(stepOf(rows, 'b', 'ArrowUp')).toEqual({ parent: null, before: 'group2' });
    expect(stepOf(rows, 'a', 'ArrowUp')).toBeNull();
    expect(stepOf(rows, 'a', 'ArrowDown')).toEqual({ parent: null, before: 'group2' });
    expect(stepOf(rows, 'group2', 'ArrowDown')).toEqual({ parent: null, before: null });
    expect(stepOf(rows, 'b', 'ArrowRight')).toEqual({ parent: 'group2', before: null });
    expect(stepOf(rows, 'a', 'ArrowRight')).toBeNull();
    expect(stepOf(rows, 'in', 'ArrowLeft')).toEqual({ parent: null, before: 'group2' });
    expect(stepOf(rows, 'b', 'ArrowLeft')).toBeNull();
  });
});
