import { describe, expect, test } from '@jest/globals';
import { Selection } from './selection';

describe('what is selected', () => {
  test('one alone, more besides it, and less; the one that leads stays', () => {
    const selection = new Selection();
    expect([...selection.all()]).toEqual([]);
    selection.flip('a');
    selection.flip('b');
    selection.flip('c');
    expect([...selection.all()]).toEqual(['a', 'b', 'c']);
    selection.flip('b');
    selection.flip('a');
    expect([...selection.all()]).toEqual(['a', 'c']);
    selection.lead.set('d');
    expect([...selection.all()]).toEqual(['d']);
    selection.only(['x', 'y']);
    expect([selection.lead(), ...selection.all()]).toEqual(['x', 'x', 'y']);
    selection.only([]);
    expect(selection.lead()).toBeNull();
  });
});
