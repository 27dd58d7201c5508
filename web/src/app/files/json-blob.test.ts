import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { holdsLongList, jsonBlob, jsonParts } from './json-blob';

const json = fc.jsonValue({ maxDepth: 4 });
const long = fc.array(fc.constantFrom<unknown>(1, 'a', null, { b: [2] }), { minLength: 190, maxLength: 650 });

describe('JSON in pieces', () => {
  test('is what it is in one piece, for any plain data', () => {
    fc.assert(
      fc.property(json, long, long, (small, list, other) => {
        for (const value of [
          small,
          list,
          { small, list, gone: undefined },
          [{ runs: [{ steps: list }], other }, small],
        ])
          expect([...jsonParts(value)].join('')).toBe(JSON.stringify(value));
      }),
    );
  });

  test('comes in many pieces only where a list is long', async () => {
    const body = { base: 1, layers: Array.from({ length: 1_000 }, (_, id) => ({ id })) };
    expect(holdsLongList({ base: 1, layers: [{ id: 1 }] })).toBe(false);
    expect(holdsLongList(body)).toBe(true);
    expect([...jsonParts(body)].length).toBeGreaterThan(5);
    const blob = await jsonBlob(body);
    expect(blob.type).toBe('application/json');
    expect(JSON.parse(await blob.text())).toEqual(body);
  });
});
