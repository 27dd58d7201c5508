import { describe, expect, test } from '@jest/globals';
import { reorderedBy } from './row-order';

const layers = [
  { layer: 'c', place: 2 },
  { layer: 'a', place: 0 },
  { layer: 'b', place: 1 },
];

describe('a row one place up or down', () => {
  test('goes by the places in the order, however the layers lie', () => {
    expect(reorderedBy(layers, 'b', -1)).toEqual({ layer: 'b', before: 'a' });
    expect(reorderedBy(layers, 'a', 1)).toEqual({ layer: 'a', before: 'c' });
    expect(reorderedBy(layers, 'b', 1)).toEqual({ layer: 'b', before: null });
  });

  test('stays at the ends, and where it has no place', () => {
    expect(reorderedBy(layers, 'a', -1)).toBeNull();
    expect(reorderedBy(layers, 'c', 1)).toBeNull();
    expect(reorderedBy(layers, 'other', 1)).toBeNull();
  });
});
