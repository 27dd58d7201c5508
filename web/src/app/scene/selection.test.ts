import '@angular/compiler';
import { describe, expect, test } from '@jest/globals';
import { Selection } from './selection';

const all = (selection: Selection): string[] => [...selection.all()];

describe('which layers are selected', () => {
  test('one more, one less; the one that leads stays', () => {
    const selection = new Selection();
    selection.flip('a');
    selection.flip('b');
    selection.flip('c');
    selection.flip('b');
    selection.flip('a');
    expect(all(selection)).toEqual(['a', 'c']);
  });

  test('a press on the one that leads several selects it alone', () => {
    const selection = new Selection();
    selection.only(['a', 'b', 'c']);
    selection.one('a');
    expect(all(selection)).toEqual(['a']);
    selection.only(['a', 'b']);
    selection.one(null);
    expect(all(selection)).toEqual([]);
  });

  test('another one that leads forgets the others', () => {
    const selection = new Selection();
    selection.only(['a', 'b']);
    selection.lead.set('c');
    expect(all(selection)).toEqual(['c']);
  });
});
