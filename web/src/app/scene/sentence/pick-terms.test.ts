import { describe, expect, test } from '@jest/globals';
import { pickSchema, type Pick } from '@wexikine/core';
import { editorTerms, pickOfTerms, type Term } from './pick-terms';

const row = { by: 'rule', tag: 'row' } as const;
const keyed = { by: 'state', state: 'keys' } as const;
const word = { by: 'rule', kind: 'word' } as const;

describe('conditions of a pick in the editor', () => {
  test.each<[string, Pick]>([
    ['one', row],
    ['one turned round', { by: 'joined', how: 'all', terms: [{ not: true, is: row }] }],
    ['all of them', { by: 'joined', how: 'all', terms: [{ is: row }, { not: true, is: keyed }] }],
    ['any of them', { by: 'joined', how: 'any', terms: [{ is: row }, { is: keyed }, { is: word }] }],
    ['mixed', { by: 'joined', how: 'all', terms: [{ is: row }, { is: keyed }, { or: true, is: word }] }],
  ])('%s: read and written back', (_, pick) => {
    expect(pickOfTerms(editorTerms(pick))).toEqual(pick);
    expect(pickSchema.parse(pick)).toEqual(pick);
  });

  test('the first one has nothing before it, whatever it was joined to', () => {
    const [, second, third] = editorTerms({
      by: 'joined',
      how: 'all',
      terms: [{ is: row }, { or: true, is: keyed }, { is: word }],
    }) as [Term, Term, Term];
    expect(pickOfTerms([second, third])).toEqual({ by: 'joined', how: 'all', terms: [{ is: keyed }, { is: word }] });
    expect(pickOfTerms([second])).toEqual(keyed);
  });
});
