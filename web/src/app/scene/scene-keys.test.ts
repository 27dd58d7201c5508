import { describe, expect, test } from '@jest/globals';
import { commandFor, isMainKey, neighbourKey, type PressedKey } from './scene-keys';

const press = (key: string, held: Partial<PressedKey> = {}): PressedKey => ({
  key,
  ctrlKey: false,
  metaKey: false,
  altKey: false,
  shiftKey: false,
  ...held,
});

describe('keys of the scene screen', () => {
  test.each([
    [press('z', { ctrlKey: true }), 'undo'],
    [press('Z', { metaKey: true, shiftKey: true }), 'redo'],
    [press('y', { ctrlKey: true }), 'redo'],
    [press('a', { ctrlKey: true }), 'select-all'],
    [press('A', { ctrlKey: true, shiftKey: true }), null],
    [press('a'), null],
    [press('ArrowRight', { altKey: true }), 'next-frame'],
    [press('ArrowLeft', { altKey: true, shiftKey: true }), 'previous-key'],
    [press(' '), 'play'],
    [press('r'), 'show-run'],
    [press('R', { shiftKey: true }), 'show-all'],
    [press('3'), { panel: 2 }],
    [press('0'), null],
    [press('constructor'), null],
    [press('w', { ctrlKey: true }), null],
    [press('w', { altKey: true }), null],
  ])('%j', (pressed, command) => {
    expect(commandFor(pressed, false)).toEqual(command);
  });

  test('Space is left to a button or a row that has the focus; other keys are not', () => {
    expect(commandFor(press(' '), true)).toBeNull();
    expect(commandFor(press('w'), true)).toBe('dry-run');
  });

  test('the main button has Ctrl or Command and Enter', () => {
    expect(
      [press('Enter', { ctrlKey: true }), press('Enter', { metaKey: true }), press('Enter')].map(isMainKey),
    ).toEqual([true, true, false]);
  });
});

test('the next and the previous key are the nearest on their side, never the one that one stands on', () => {
  const times = [40, 10, 30, 20];
  expect([neighbourKey(times, 20, 1), neighbourKey(times, 20, -1)]).toEqual([30, 10]);
  expect([neighbourKey(times, 40, 1), neighbourKey(times, 10, -1), neighbourKey([], 5, 1)]).toEqual([null, null, null]);
});
