import { describe, expect, test } from '@jest/globals';
import { createPatternTest } from '../pick';
import { card, sceneOf } from '../../testing/scenes';
import { createStaging, placesOf, type Staging } from '.';

function placesBy(names: readonly string[], order: Parameters<typeof placesOf>[2] = { by: 'name' }): number[] {
  const layers = names.map((name, i) => card(`l${i}`, { name, data: { at: name } }));
  const staging: Staging = createStaging(sceneOf(layers));
  return placesOf(
    staging,
    layers.map((_, i) => i),
    order,
  );
}

describe('names in natural order', () => {
  test('2 comes before 10, and capitals and accents come beside their letters', () => {
    expect(placesBy(['row 10', 'row 2', 'Row 1', 'row 1'])).toEqual([3, 2, 1, 0]);
  });

  test.each([
    ['Müller', 'Muller'],
    ['a', 'á'],
    ['row 1', 'row 01'],
    ['a', 'A'],
  ])('%s and %s are two names and do not start together', (a, b) => {
    expect(new Set(placesBy([a, b])).size).toBe(2);
    expect(new Set(placesBy([a, b], { by: 'data', column: 'at' })).size).toBe(2);
  });

  test('really equal names start together, however an accent is written (Unicode NFC)', () => {
    expect(placesBy(['Caf\u00e9', 'Cafe\u0301', 'Caf\u00e9'])).toEqual([0, 0, 0]);
  });

  test('numbers in data that are written differently are one value', () => {
    expect(placesBy(['2', '1.0', '1', '10', 'x'], { by: 'data', column: 'at' })).toEqual([1, 0, 0, 2, 3]);
  });
});

describe('name patterns', () => {
  test.each([
    ['row*', 'Row 12', true],
    ['*a*a*b', 'xaab', true],
    ['?ow', 'row', true],
    ['?ow', 'ow', false],
    ['a*c', 'abd', false],
    ['(x)+[y]', '(X)+[y]', true],
    ['*', '', true],
  ])('%s fits %s: %s', (pattern, name, expected) => expect(createPatternTest(pattern)(name)).toBe(expected));

  test('that would take a backtracking search for ever are quick', () => {
    const name = 'a'.repeat(200);
    const began = process.hrtime.bigint();
    for (const pattern of ['*a*a*a*a*a*a*a*ab', `${'*'.repeat(100)}b`])
      expect(createPatternTest(pattern)(name)).toBe(false);
    expect(Number(process.hrtime.bigint() - began) / 1e9).toBeLessThan(2);
  });
});
