import { describe, expect, test } from '@jest/globals';
import type { ImportEntry } from '@wexikine/core';
import { entriesInWords, inOrder, isWritten } from './import-entries';
import { tokenWords } from './token-changes';

const entry = (id: string, status: ImportEntry['status']): ImportEntry =>
  ({ id, name: id, kind: 'preset', status, facts: '' }) as unknown as ImportEntry;
const ALL = [entry('a', 'same'), entry('b', 'new'), entry('c', 'conflict'), entry('d', 'older'), entry('e', 'newer')];

describe('what a pack would bring', () => {
  test('what conflicts is told first, then what is new, then what stays', () => {
    expect(inOrder(ALL).map(({ id }) => id)).toEqual(['c', 'b', 'e', 'd', 'a']);
    expect(entriesInWords([...ALL, entry('f', 'new')])).toBe(
      '1 conflicting · 2 new · 1 newer · 1 older than here · 1 the same',
    );
  });

  test('only what is new or newer is written by itself; a conflict waits for a choice', () => {
    expect(ALL.filter((one) => isWritten(one, {})).map(({ id }) => id)).toEqual(['b', 'e']);
    expect(isWritten(ALL[2], { c: 'take' })).toBe(true);
    expect(isWritten(ALL[2], { c: 'both' })).toBe(true);
    expect(isWritten(ALL[2], { c: 'keep' })).toBe(false);
    // What is older here is never written, whatever was once chosen.
    expect(isWritten(ALL[3], { d: 'take' })).toBe(false);
  });
});

describe('a house value in a few words', () => {
  test('a palette says how many colours and ramps it has', () => {
    const colours = [{ name: 'night', colour: '#0b1026' }];
    const words = (value: unknown): string => tokenWords(value as Parameters<typeof tokenWords>[0]);
    expect(words({ colours })).toBe('1 colour');
    expect(words({ colours: [...colours, ...colours], ramps: [{}] })).toBe('2 colours, 1 ramp');
    expect(words({ colours, ramps: [{}, {}] })).toBe('1 colour, 2 ramps');
    expect(words(null)).toBe('');
  });
});
