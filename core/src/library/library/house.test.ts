import { describe, expect, test } from '@jest/globals';
import { HOUSE_TYPES, houseSchema, houseText, houseTypeFor } from '.';
import { PARAMETER_KINDS } from '../../formulas/preset';

describe('a house value', () => {
  test('is the text that a default would have', () => {
    expect(houseText({ type: 'duration', value: '14f' })).toBe('14f');
    expect(houseText({ type: 'number', value: 0.12 })).toBe('0.12');
    expect(houseText({ type: 'colour', value: '#f3c98b' })).toBe('#f3c98b');
    expect(houseText({ type: 'curve', value: { type: 'bezier', x1: 0.2, y1: 0, x2: 0.4, y2: 1 } })).toBe(
      'cubic-bezier(0.2, 0, 0.4, 1)',
    );
    const free = { time: 0.3, value: 2 };
    expect(houseText({ type: 'curve', value: { type: 'handles', leave: free, arrive: free } })).toBe('linear');
  });

  test('can be tied to parameters that hold the same', () => {
    const types = Object.fromEntries(PARAMETER_KINDS.map((kind) => [kind, houseTypeFor(kind)]));
    expect(types).toMatchObject({
      time: 'duration',
      number: 'number',
      percent: 'number',
      colour: 'colour',
      curve: 'curve',
      length: null,
      switch: null,
    });
    expect(new Set(Object.values(types).filter((type) => type !== null))).toEqual(new Set(HOUSE_TYPES));
  });

  test.each(['14f', '0.5s', '250ms', '0f'])('lasts %s', (value) => {
    expect(houseSchema.safeParse({ type: 'duration', value }).success).toBe(true);
  });

  test.each(['14', 'f', '-3f', '1:00', '2 s', ''])('does not last “%s”', (value) => {
    const { error } = houseSchema.safeParse({ type: 'duration', value });
    expect(error?.issues[0].message).toBe('This is not a duration. Write one such as 14f, 0.5s or 250ms.');
  });
});
