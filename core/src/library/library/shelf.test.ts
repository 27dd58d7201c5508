import { describe, expect, test } from '@jest/globals';
import { createAdjust, createRecipe, createRigRecipe, createStyle } from '../../scene/recipe';
import type { HouseItem } from './item';
import { STARTER_LIBRARY } from '../starter';
import { createShelf, parametersFor } from './shelf';

const shelf = createShelf(STARTER_LIBRARY);
const ALL = { by: 'layers' as const, layers: [] };
const names = (all: readonly { readonly name: string }[]) => all.map(({ name }) => name);

describe('what a recipe can set', () => {
  test('are the parameters of its preset, or the dials of its rig', () => {
    const preset = STARTER_LIBRARY.find(({ kind }) => kind === 'preset');
    const rig = STARTER_LIBRARY.find(({ kind }) => kind === 'rig');
    if (preset?.kind !== 'preset' || rig?.kind !== 'rig') throw new Error('not in the starter library');
    const entrance = createRecipe('bring-in', preset.id, ALL);
    expect(preset.body.parameters.length).toBeGreaterThan(0);
    expect(names(parametersFor(entrance, shelf))).toEqual(names(preset.body.parameters));
    expect(rig.body.dials.length).toBeGreaterThan(0);
    expect(names(parametersFor(createRigRecipe(rig.id, ALL), shelf))).toEqual(names(rig.body.dials));
  });

  test('are the parameters of the look that it takes over', () => {
    const amount = { name: 'amount', label: 'Amount', kind: 'length', default: '4px', note: '' } as const;
    const plain = STARTER_LIBRARY.find(({ kind }) => kind === 'look');
    if (plain?.kind !== 'look') throw new Error('no look in the starter library');
    const own = createShelf([
      ...STARTER_LIBRARY,
      { ...plain, id: 'own', body: { ...plain.body, parameters: [amount] } },
    ]);
    const from = (id: string) => ({ ...createStyle(ALL), from: { by: 'look' as const, id } });
    expect(names(parametersFor(from('own'), own))).toEqual(['amount']);
    expect(parametersFor(from(plain.id), own)).toEqual([]);
    expect(parametersFor(createStyle(ALL), own)).toEqual([]);
  });

  test('are the numbers of the steps of an adjustment', () => {
    const recipe = createAdjust(ALL);
    expect(names(parametersFor(recipe, shelf))).toEqual(Object.keys(recipe.parameters));
  });

  test('is nothing where the shelf lacks the item, or has another kind of it', () => {
    const rig = STARTER_LIBRARY.find(({ kind }) => kind === 'rig')?.id ?? '';
    const preset = STARTER_LIBRARY.find(({ kind }) => kind === 'preset')?.id ?? '';
    for (const id of ['gone', rig]) expect(parametersFor(createRecipe('bring-in', id, ALL), shelf)).toEqual([]);
    for (const id of ['gone', preset]) expect(parametersFor(createRigRecipe(id, ALL), shelf)).toEqual([]);
  });
});

describe('house values that follow others', () => {
  const house = STARTER_LIBRARY.find((item) => item.kind === 'house' && item.body.type === 'duration') as HouseItem;
  const duration = (id: string, value: string, as?: string, revision = 1): HouseItem => ({
    ...house,
    id,
    revision,
    body: { type: 'duration', value, ...(as === undefined ? {} : { as }) } as HouseItem['body'],
  });
  const soft = { type: 'bezier', x1: 0.3, y1: 0, x2: 0.2, y2: 1 } as const;
  const curve = (id: string, more: object): HouseItem =>
    ({ ...house, id, body: { type: 'curve', value: soft, ...more } }) as HouseItem;
  const own = createShelf([
    duration('first', '8f', 'second', 3),
    duration('second', '9f', 'third', 5),
    duration('third', '12f', undefined, 7),
    duration('lost', '5f', 'gone'),
    duration('other', '6f', 'shape'),
    duration('round', '1f', 'about'),
    duration('about', '2f', 'round'),
    curve('shape', {}),
    curve('shaped', { value: { type: 'linear' }, as: 'shape' }),
  ]);

  test('have the value at the end of the way, and a revision of their own', () => {
    expect(['first', 'second', 'third'].map((id) => own.houseText(id))).toEqual([
      { text: '12f', revision: 3 },
      { text: '12f', revision: 5 },
      { text: '12f', revision: 7 },
    ]);
    expect(own.house('first')).toMatchObject({ type: 'duration', value: '12f' });
    expect(own.curve('shaped')).toEqual({ easing: soft, revision: house.revision });
  });

  test('have their own where the way leads to nothing, or to another kind of value; in a circle there is none', () => {
    expect([own.houseText('lost')?.text, own.houseText('other')?.text]).toEqual(['5f', '6f']);
    expect(['round', 'about', 'gone'].map((id) => [own.house(id), own.houseText(id)])).toEqual([
      [null, null],
      [null, null],
      [null, null],
    ]);
    expect([own.curve('first'), own.curve('gone')]).toEqual([null, null]);
  });
});
