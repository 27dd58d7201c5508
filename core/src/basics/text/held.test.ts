import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { findUnheldText, MOST_DEPTH, readJson } from '.';

const nested = (depth: number): string => '['.repeat(depth) + ']'.repeat(depth);

describe('JSON from outside', () => {
  test('is read as the engine reads it', () => {
    fc.assert(
      fc.property(fc.jsonValue({ maxDepth: 6 }), (value) => {
        const text = JSON.stringify(value);
        const result = readJson(text);
        // Our own sentence or the engine's own value: nothing in between.
        if (result.ok) expect(result.data).toEqual(JSON.parse(text));
        else expect(findUnheldText(value)).not.toBeNull();
      }),
    );
  });

  test.each([
    ['{"a":"\\u0000"}', 'a: This text holds a NUL'],
    ['{"a":["x","\\ud800"]}', 'a.1: This text holds'],
    ['{"a\\u0000":1}', 'a name: This text holds'],
    ['{"a":', 'not valid JSON'],
    [nested(MOST_DEPTH + 1), 'nested more than 64 deep'],
    [nested(1_000_000), 'nested more than 64 deep'],
  ])('is refused with a sentence: %.30s', (text, sentence) => {
    const result = readJson(text);
    expect(result.ok ? '' : result.message).toContain(sentence);
  });

  test('brackets in strings are no nesting, and a written-out backslash no escape', () => {
    expect(readJson(JSON.stringify({ a: '['.repeat(500), b: '\\u0000', c: '"[' }))).toMatchObject({ ok: true });
    expect(readJson(nested(MOST_DEPTH))).toMatchObject({ ok: true });
    expect(readJson('"\\ud83d\\ude00"')).toEqual({ ok: true, data: '😀' });
  });
});
