import { expect, test } from '@jest/globals';
import { createShelf, type RigItem } from '../../library/library';
import { STARTER_LIBRARY, STARTER_RIGS } from '../../library/starter';
import type { RigRecipe } from '../../scene/recipe';
import { recipeOf, shelfWith } from '../../testing/rigs';
import { card, CONTEXT, sceneOf } from '../../testing/scenes';
import { plan } from '../plan';

test('what is wrong with a rig or its recipe is said, each with its own words', () => {
  const own = (recipe: Partial<RigRecipe>, shelf = shelfWith('t ÷ 1s × 1px')) => {
    const { findings, layers } = plan(sceneOf([card('a')]), shelf, recipeOf('own', recipe), CONTEXT);
    return { findings, layers };
  };
  expect(own({ rig: { id: 'own', revision: 99 } }).findings).toEqual([
    { code: 'revision-missing', preset: STARTER_RIGS[0].name, revision: 99 },
  ]);
  expect(own({ rig: { id: 'fade-in' } }).findings).toEqual([{ code: 'unknown-rig', id: 'fade-in' }]);
  const none = own({ channels: ['opacity', 'skew'] });
  expect(none.findings).toEqual([
    {
      code: 'bad-field',
      field: 'Channels',
      text: 'opacity, skew',
      message: 'It drives position.x. Choose some of these.',
    },
  ]);
  expect(none.layers).toEqual([]);
  expect(own({}, shelfWith('1px +')).findings).toMatchObject([{ code: 'rig-broken', rig: STARTER_RIGS[0].name }]);
  const [broken] = own(
    {},
    shelfWith('1px × @far', undefined, {
      dials: [{ name: 'far', label: 'Far', kind: 'number', default: '1 +', note: '' }],
    }),
  ).findings;
  expect(broken).toMatchObject({ code: 'rig-broken' });
  // A dial that the rig does not have is said, and the rest counts.
  const unknown = own({ parameters: { lost: { by: 'fixed', value: '1' } } });
  expect(unknown.findings).toContainEqual({ code: 'unknown-parameter', preset: STARTER_RIGS[0].name, name: 'lost' });
});

test('that a rig is not published yet is said, unless the run has it from before', () => {
  const shelf = shelfWith('t ÷ 1s × 1px');
  const item = shelf.items.get('own') as RigItem;
  const drafted = (state: RigItem['state']) => createShelf([...STARTER_LIBRARY, { ...item, state }]);
  const codes = (state: RigItem['state']) =>
    plan(sceneOf([card('a')]), drafted(state), recipeOf('own'), CONTEXT).findings.map(({ code }) => code);
  expect(
    (['draft', 'in review', 'published', 'retired'] as const).map((state) => codes(state).includes('draft-preset')),
  ).toEqual([true, true, false, false]);
});
