import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { letterCount, lettersOf, shownLines, wordLines, writtenNumber } from './words';

describe('numbers in words', () => {
  const plain = { decimals: 0, point: '.', group: '' } as const;

  test('are written with their digits, point and thousands', () => {
    expect(writtenNumber(1234567.891, { decimals: 2, point: ',', group: '.' })).toBe('1.234.567,89');
    expect(writtenNumber(1234.5, { decimals: 0, point: '.', group: ' ' })).toBe('1 235');
    expect(writtenNumber(999, { decimals: 1, point: '.', group: ',' })).toBe('999.0');
    expect(writtenNumber(-1000, { decimals: 0, point: '.', group: '’' })).toBe('−1’000');
    expect(writtenNumber(-0.4, plain)).toBe('0');
    expect(writtenNumber(NaN, plain)).toBe('–');
  });

  test('agree with the formatting of ECMA-402, whatever the number', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -1e12, max: 1e12, noNaN: true }),
        fc.integer({ min: 0, max: 3 }),
        (value, decimals) => {
          const reference = new Intl.NumberFormat('en-US', {
            minimumFractionDigits: decimals,
            maximumFractionDigits: decimals,
          });
          // Both round the same number, the reference the decimal that stands in the text of it.
          const fixed = Number(value.toFixed(decimals));
          const wanted = reference.format(fixed === 0 ? 0 : fixed).replace('-', '−');
          expect(writtenNumber(value, { decimals, point: '.', group: ',' })).toBe(wanted);
        },
      ),
    );
  });

  test('stand where the sign is, else in place of the words', () => {
    expect(wordLines({ text: 'up # %\nsince May', number: plain }, 41.7)).toEqual(['up 42 %', 'since May']);
    expect(wordLines({ text: '0', number: plain }, 12)).toEqual(['12']);
    expect(wordLines({ text: 'No. #', number: undefined }, 12)).toEqual(['No. #']);
    // A dollar sign of the words is no order to what replaces.
    expect(wordLines({ text: '$& #', number: plain }, 3)).toEqual(['$& 3']);
  });
});

describe('letters that are shown', () => {
  test('are whole, line after line; the caret stands behind the last one', () => {
    const lines = ['Tide', '', 'moon'];
    expect(shownLines(lines, 0)).toEqual({ lines: ['', '', ''], caretAt: 0 });
    expect(shownLines(lines, 0.3)).toEqual({ lines: ['Ti', '', ''], caretAt: 0 });
    expect(shownLines(lines, 0.5)).toEqual({ lines: ['Tide', '', ''], caretAt: 0 });
    expect(shownLines(lines, 5 / 8)).toEqual({ lines: ['Tide', '', 'm'], caretAt: 2 });
    expect(shownLines(lines, 1)).toEqual({ lines, caretAt: -1 });
  });

  test('count marks with what they belong to (Unicode Standard Annex 29)', () => {
    expect(lettersOf('e\u0301a\u0308')).toHaveLength(2);
    expect(letterCount({ type: 'text', text: '👩‍🚀 up\nn̈' })).toBe(5);
    expect(letterCount({ type: 'picture' })).toBe(0);
    expect(shownLines(['e\u0301tude'], 0.2).lines).toEqual(['e\u0301']);
  });

  test('never go back, and all of them are there at the end', () => {
    fc.assert(
      fc.property(
        fc.string({ unit: 'grapheme', minLength: 1 }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (text, share) => {
          const lines = text.split('\n');
          const [some, more] = [share * 0.9, share].map((one) => shownLines(lines, one).lines.join(''));
          expect(more.startsWith(some)).toBe(true);
          expect(lines.join('').startsWith(more)).toBe(true);
        },
      ),
    );
  });
});
