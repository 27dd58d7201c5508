import { describe, expect, test } from '@jest/globals';
import type { KeyRow } from './key-rows';
import { rowsKey, type RowsActions } from './rows-key';

const row = (kind: KeyRow['kind'], isOpen: boolean): KeyRow => ({
  id: kind,
  kind,
  isOpen,
  layers: [],
  dials: [],
  channel: null,
});

/** What a key on a row does: whether it means something, and what is asked for. */
function pressed(key: string, on: KeyRow, held: Partial<KeyboardEvent> = {}, hasPicks = false) {
  const said: unknown[] = [];
  const note =
    (name: string) =>
    (...given: unknown[]) =>
      void said.push([name, ...given]);
  const actions: RowsActions = {
    hasPicks: () => hasPicks,
    goBy: note('go'),
    moveBy: note('move'),
    toggle: note('toggle'),
    pick: note('pick'),
    remove: note('remove'),
    unpick: note('unpick'),
  };
  const event = { key, ctrlKey: false, metaKey: false, altKey: false, shiftKey: false, ...held };
  return [rowsKey(event, on, actions), ...said];
}

const [open, closed, channel] = [row('layer', true), row('rig', false), row('channel', false)];

describe('keys on a row of keys', () => {
  test('up and down go to other rows; Enter and Space pick', () => {
    expect(pressed('ArrowDown', open)).toEqual([true, ['go', 1]]);
    expect(pressed('ArrowUp', open, {}, true)).toEqual([true, ['go', -1]]);
    for (const key of ['Enter', ' ']) expect(pressed(key, channel)).toEqual([true, ['pick', channel, false]]);
    expect(pressed(' ', channel, { shiftKey: true })).toEqual([true, ['pick', channel, true]]);
  });

  test('across opens and closes a row where nothing is picked', () => {
    expect(pressed('ArrowRight', closed)).toEqual([true, ['toggle', closed]]);
    expect(pressed('ArrowLeft', open)).toEqual([true, ['toggle', open]]);
    expect(pressed('ArrowLeft', closed)).toEqual([false]);
    expect(pressed('ArrowRight', open)).toEqual([false]);
    // A row of a channel has nothing to open, whatever it says of itself.
    for (const key of ['ArrowRight', 'ArrowLeft'])
      for (const isOpen of [true, false]) expect(pressed(key, row('dial', isOpen))).toEqual([false]);
  });

  test('across moves what is picked by a frame, with Shift by ten', () => {
    expect(pressed('ArrowRight', closed, {}, true)).toEqual([true, ['move', 1]]);
    expect(pressed('ArrowLeft', open, {}, true)).toEqual([true, ['move', -1]]);
    expect(pressed('ArrowLeft', channel, { shiftKey: true }, true)).toEqual([true, ['move', -10]]);
  });

  test('what is picked is removed or let go; where nothing is, the keys are left to others', () => {
    for (const key of ['Delete', 'Backspace']) {
      expect(pressed(key, open, {}, true)).toEqual([true, ['remove']]);
      expect(pressed(key, open)).toEqual([false]);
    }
    expect(pressed('Escape', open, {}, true)).toEqual([true, ['unpick']]);
    expect(pressed('Escape', open)).toEqual([false]);
    for (const held of [{ ctrlKey: true }, { metaKey: true }, { altKey: true }])
      expect(pressed('ArrowDown', open, held, true)).toEqual([false]);
    expect(pressed('x', open, {}, true)).toEqual([false]);
  });
});
