import { describe, expect, test } from '@jest/globals';
import { curveKey, type CurveActions } from './curve-keys';

/** What a key on a key of a curve does: whether it means something, and what is asked for. */
function pressed(
  key: string,
  held: Partial<KeyboardEvent> = {},
  facts: { canEdit?: boolean; hasPicks?: boolean } = {},
) {
  const said: unknown[] = [];
  const note =
    (name: string) =>
    (...given: unknown[]) =>
      void said.push([name, ...given]);
  const actions: CurveActions = {
    canEdit: () => facts.canEdit ?? true,
    hasPicks: () => facts.hasPicks ?? true,
    move: note('move'),
    goBy: note('go'),
    pick: note('pick'),
    remove: note('remove'),
    unpick: note('unpick'),
  };
  const event = { key, ctrlKey: false, metaKey: false, altKey: false, shiftKey: false, ...held };
  return [curveKey(event, actions), ...said];
}

describe('keys on a key of a curve', () => {
  test('arrows move it by a frame or a step, with Shift by ten', () => {
    expect(pressed('ArrowRight')).toEqual([true, ['move', 1, 0]]);
    expect(pressed('ArrowLeft')).toEqual([true, ['move', -1, 0]]);
    expect(pressed('ArrowUp')).toEqual([true, ['move', 0, 1]]);
    expect(pressed('ArrowDown')).toEqual([true, ['move', 0, -1]]);
    expect(pressed('ArrowLeft', { shiftKey: true })).toEqual([true, ['move', -10, 0]]);
    expect(pressed('ArrowUp', { shiftKey: true })).toEqual([true, ['move', 0, 10]]);
  });

  test('the others go on, pick, remove and let go', () => {
    expect(pressed('PageDown')).toEqual([true, ['go', 1]]);
    expect(pressed('PageUp')).toEqual([true, ['go', -1]]);
    for (const key of ['Enter', ' ']) expect(pressed(key)).toEqual([true, ['pick', false]]);
    expect(pressed('Enter', { shiftKey: true })).toEqual([true, ['pick', true]]);
    for (const key of ['Delete', 'Backspace']) expect(pressed(key)).toEqual([true, ['remove']]);
    expect(pressed('Escape')).toEqual([true, ['unpick']]);
  });

  test('over a dry run nothing is moved or removed, and arrows do not scroll the page', () => {
    expect(pressed('ArrowUp', {}, { canEdit: false })).toEqual([true]);
    expect(pressed('Delete', {}, { canEdit: false })).toEqual([false]);
    expect(pressed('Enter', {}, { canEdit: false })).toEqual([true, ['pick', false]]);
  });

  test('what means nothing is left to others', () => {
    expect(pressed('Escape', {}, { hasPicks: false })).toEqual([false]);
    expect(pressed('x')).toEqual([false]);
    for (const held of [{ ctrlKey: true }, { metaKey: true }, { altKey: true }])
      for (const key of ['ArrowUp', 'Enter', 'Delete', 'Escape']) expect(pressed(key, held)).toEqual([false]);
  });
});
