import { describe, expect, test } from '@jest/globals';
import { createRecipe, createRigRecipe, createStyle } from '../../scene/recipe';
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

  test('is nothing where the shelf lacks the item, or has another kind of it', () => {
    const rig = STARTER_LIBRARY.find(({ kind }) => kind === 'rig')?.id ?? '';
    const preset = STARTER_LIBRARY.find(({ kind }) => kind === 'preset')?.id ?? '';
    for (const id of ['gone', rig]) expect(parametersFor(createRecipe('bring-in', id, ALL), shelf)).toEqual([]);
    for (const id of ['gone', preset]) expect(parametersFor(createRigRecipe(id, ALL), shelf)).toEqual([]);
  });
});
