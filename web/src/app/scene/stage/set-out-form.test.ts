import { describe, expect, test } from '@jest/globals';
import { ticksFromSeconds } from '@wexikine/core';
import { readSetOut, setOutWords, type SetOutFields } from './set-out-form';

const rate = { num: 25, den: 1 };
const second = ticksFromSeconds(1);
const fields = (more: Partial<SetOutFields> = {}): SetOutFields => ({
  kind: 'rows',
  size: 'whole',
  hold: '9s',
  rows: '3',
  apart: '3s',
  ...more,
});

describe('the fields of setting out', () => {
  test('are read as a way: rows with their own number, one place in turn, a place for each at once', () => {
    expect(readSetOut(fields(), 9, rate)).toEqual({ places: 3, size: 'whole', hold: 9 * second, apart: 3 * second });
    expect(readSetOut(fields({ kind: 'in turn' }), 9, rate)).toMatchObject({ places: 1, apart: 0 });
    expect(readSetOut(fields({ kind: 'at once', hold: ' ' }), 9, rate)).toMatchObject({ places: 9, hold: null });
  });

  test.each<[Partial<SetOutFields>, string]>([
    [{ hold: '' }, 'how long each is shown'],
    [{ hold: '0f' }, 'how long each is shown'],
    [{ hold: 'soon' }, 'how long each is shown'],
    [{ hold: '-2s' }, 'how long each is shown'],
    [{ kind: 'at once', hold: 'x' }, 'how long each is shown'],
    [{ rows: '' }, 'rows from 1 to 50'],
    [{ rows: '2.5' }, 'rows from 1 to 50'],
    [{ rows: '51' }, 'rows from 1 to 50'],
    [{ apart: 'x' }, 'how much later'],
  ])('%j is told with what to write', (more, words) => {
    expect(readSetOut(fields(more), 9, rate)).toContain(words);
  });

  test('what comes of it is a sentence; that the scene becomes longer, too', () => {
    const starts = [0, 3, 6, 9, 12, 15].map((seconds) => seconds * second);
    expect(setOutWords({ edits: [], starts, over: 24 * second }, 10 * second, rate)).toBe(
      'They begin at 0:00, 3:00, 6:00 … 15:00; the last is over at 24:00. The scene becomes 24:00 long.',
    );
    expect(setOutWords({ edits: [], starts: [0, 0], over: second }, second, rate)).toBe(
      'All begin at 0:00; the last is over at 1:00.',
    );
  });
});
