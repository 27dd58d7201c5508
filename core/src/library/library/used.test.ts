import { describe, expect, test } from '@jest/globals';
import { STARTER_LIBRARY } from '../starter';
import { createShelf } from './shelf';
import { keepUsed, presetAsUsed, shelfAsUsed, takeItem } from './used';

const shelf = createShelf(STARTER_LIBRARY);
const curve = STARTER_LIBRARY.find(({ kind }) => kind === 'curve')?.id ?? '';
const house = STARTER_LIBRARY.find((item) => item.kind === 'house' && item.body.type === 'duration')?.id ?? '';

/** The same library, in which a curve is a straight line by now and a house value another. */
const later = createShelf(
  STARTER_LIBRARY.map((item) => {
    if (item.id === curve && item.kind === 'curve')
      return { ...item, revision: 2, body: { easing: { type: 'linear' as const } } };
    if (item.id === house && item.kind === 'house')
      return { ...item, revision: 2, body: { type: 'duration' as const, value: '99f' } };
    return item;
  }),
);

describe('the shelf as a run found it', () => {
  const kept = keepUsed(shelf, [
    { id: curve, revision: 1 },
    { id: house, revision: 1 },
  ]);

  test('has what the run used as it was then, and all else as it is', () => {
    expect(later.curve(curve)).not.toEqual(shelf.curve(curve));
    expect(later.houseText(house)).toEqual({ text: '99f', revision: 2 });
    const then = shelfAsUsed(later, kept);
    expect(then.curve(curve)).toEqual(shelf.curve(curve));
    expect(then.houseText(house)).toEqual(shelf.houseText(house));
    expect(then.curve('nothing')).toEqual(later.curve('nothing'));
    const onlyHouse = shelfAsUsed(later, kept.slice(1));
    expect(onlyHouse.curve(curve)).toEqual(later.curve(curve));
  });

  test('is the same one for the same run and shelf, and the shelf itself where nothing was used', () => {
    expect(shelfAsUsed(later, kept)).toBe(shelfAsUsed(later, kept));
    expect(shelfAsUsed(shelf, kept)).not.toBe(shelfAsUsed(later, kept));
    expect(shelfAsUsed(later, undefined)).toBe(later);
    expect(shelfAsUsed(later, [])).toBe(later);
  });
});

test('a preset that a run kept is read once, and is null where it cannot be read', () => {
  const preset = STARTER_LIBRARY.find(({ kind }) => kind === 'preset');
  const body = structuredClone(preset?.body ?? {}) as Record<string, unknown>;
  expect(presetAsUsed(body)).toEqual(preset?.body);
  expect(presetAsUsed(body)).toBe(presetAsUsed(body));
  const broken = { ...body, phase: 'nothing' };
  expect(presetAsUsed(broken)).toBeNull();
  expect(presetAsUsed(broken)).toBeNull();
});

describe('a look of the library that a run takes', () => {
  const look = STARTER_LIBRARY.find(({ kind }) => kind === 'look');
  const id = look?.id ?? '';
  const changed = createShelf(
    STARTER_LIBRARY.map((item) =>
      item.id === id && item.kind === 'look' ? { ...item, revision: 2, body: { ...item.body, fill: '#123456' } } : item,
    ),
  );

  test('is what it is now where no revision is asked for, or this one', () => {
    const taken = takeItem(changed, 'look', { id });
    expect(taken).toMatchObject({ body: { fill: '#123456' }, kept: { id, revision: 2, kind: 'look' } });
    expect(takeItem(changed, 'look', { id, revision: 2 })).toEqual(taken);
  });

  test('is what it was where the run kept that revision; another one is said, and what is nowhere is none', () => {
    const was = takeItem(shelf, 'look', { id });
    if (was === null || was === 'other-revision') throw new Error('The starter library has no look.');
    expect(takeItem(changed, 'look', { id, revision: 1 }, [was.kept])).toEqual(was);
    expect(takeItem(changed, 'look', { id, revision: 1 })).toBe('other-revision');
    expect(takeItem(changed, 'look', { id, revision: 2 }, [was.kept])).toMatchObject({ kept: { revision: 2 } });
    expect(takeItem(changed, 'look', { id: 'nowhere' })).toBeNull();
    expect(takeItem(changed, 'palette', { id })).toBeNull();
    expect(takeItem(createShelf([]), 'look', { id }, [was.kept])).toEqual(was);
  });
});
