import { describe, expect, test } from '@jest/globals';
import { card, sceneOf } from '../../testing/scenes';
import { createStaging, findOnePlace, inOrder, placesOf, type Staging } from '.';

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
    expect(placesBy(['-5', '1e3', '0.5', '-20', '30'], { by: 'data', column: 'at' })).toEqual([1, 4, 2, 0, 3]);
  });
});

/** Places of boxes of 100 × 50 px by where their corners rest. */
function placesAt(
  corners: readonly (readonly [x: number, y: number])[],
  order: Parameters<typeof placesOf>[2],
): number[] {
  const layers = corners.map(([x, y], i) =>
    card(`l${i}`, { rest: { 'position.x': x, 'position.y': y, 'size.x': 100, 'size.y': 50 } }),
  );
  return placesOf(
    createStaging(sceneOf(layers)),
    layers.map((_, i) => i),
    order,
  );
}

describe('orders by where layers rest', () => {
  const corners = [
    [300, 200],
    [0, 0],
    [300, 0],
    [0, 200],
  ] as const;

  test('across, down, along an angle and out from a point; those that are level share a place', () => {
    expect(placesAt(corners, { by: 'across' })).toEqual([1, 0, 1, 0]);
    expect(placesAt(corners, { by: 'down' })).toEqual([1, 0, 0, 1]);
    expect(placesAt(corners, { by: 'angle', degrees: 45 })).toEqual([3, 0, 2, 1]);
    expect(placesAt(corners, { by: 'angle', degrees: 180 })).toEqual([0, 1, 0, 1]);
    // The scene is 1000 × 500 px: from its right lower corner.
    expect(placesAt(corners, { by: 'out-from', x: 1, y: 1 })).toEqual([0, 3, 1, 2]);
    // Half a pixel is level, more is not; each is compared with the first of its place, so that a slope does not add up.
    const steps = [0, 0.5, 0.9, 1.2].map((x): readonly [number, number] => [x, 0]);
    expect(placesAt(steps, { by: 'across' })).toEqual([0, 0, 1, 1]);
  });

  test('a scene is staged once, and gives the same places again', () => {
    const scene = sceneOf(corners.map(([x, y], i) => card(`l${i}`, { rest: { 'position.x': x, 'position.y': y } })));
    expect(createStaging(scene)).toBe(createStaging(scene));
    const again = (): number[] => placesOf(createStaging(scene), [0, 1, 2, 3], { by: 'across' });
    expect(again()).toEqual(again());
    expect(createStaging({ ...scene })).not.toBe(createStaging(scene));
  });

  test('row by row or column by column; snaking, every other one runs back', () => {
    expect(placesAt(corners, { by: 'grid', lead: 'rows' })).toEqual([3, 0, 1, 2]);
    expect(placesAt(corners, { by: 'grid', lead: 'columns' })).toEqual([3, 0, 2, 1]);
    expect(placesAt(corners, { by: 'grid', lead: 'rows', snaking: true })).toEqual([2, 0, 1, 3]);
    // A row takes in what has its middle within the height of its first: 50 px, from its middle 25 more.
    const slanting = [0, 20, 30].map((y, i): readonly [number, number] => [600 - i * 200, y]);
    expect(placesAt(slanting, { by: 'grid', lead: 'rows' })).toEqual([1, 0, 2]);
  });

  test('by hand as listed, the others after them as layered; turned round, and so many at a time', () => {
    expect(placesAt(corners, { by: 'hand', layers: ['l2', 'l0'] })).toEqual([1, 2, 0, 3]);
    expect(placesAt(corners, { by: 'layered', reversed: true })).toEqual([3, 2, 1, 0]);
    expect(placesAt(corners, { by: 'layered', blocks: 3 })).toEqual([0, 0, 0, 1]);
    expect(placesAt(corners, { by: 'layered', blocks: 3, reversed: true })).toEqual([1, 0, 0, 0]);
    expect(placesAt(corners, { by: 'shuffled', seed: 3 }).sort()).toEqual([0, 1, 2, 3]);
    expect(placesAt(corners, { by: 'shuffled', seed: 3 })).toEqual(placesAt(corners, { by: 'shuffled', seed: 3 }));
  });
});

describe('a run that would go from one to the next', () => {
  test('is told of where all share one place, unless one is alone or blocks are meant so', () => {
    const found = (places: readonly number[], blocks?: number) =>
      findOnePlace(['a', 'b'], places, { by: 'down', ...(blocks === undefined ? {} : { blocks }) }, 'starts');
    expect(found([0, 0])).toEqual([{ code: 'one-place', layers: ['a', 'b'], of: 'starts' }]);
    expect(found([0, 1])).toEqual([]);
    expect(found([0])).toEqual([]);
    expect(found([0, 0], 2)).toEqual([]);
  });

  test('takes layers by their places, those of one place as layered', () => {
    expect(inOrder([7, 3, 5, 1], [1, 0, 1, 0])).toEqual([1, 3, 5, 7]);
  });
});
