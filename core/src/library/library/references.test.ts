import { expect, test } from '@jest/globals';
import { createPreset } from '../../formulas/preset';
import {
  createLineUp,
  createMultiply,
  createRecipe,
  createRigRecipe,
  createStyle,
  type Recipe,
} from '../../scene/recipe';
import { referencesOf } from '.';

test('a style refers to the look that it puts on and to the palettes of its colours, and to nothing else', () => {
  const plain = createStyle({ by: 'rule', tag: 'row' });
  expect(referencesOf({ kind: 'recipe', body: plain })).toEqual([]);
  const body = {
    ...plain,
    from: { by: 'look', id: 'look-print' } as const,
    vary: { ...plain.vary, stroke: { by: 'palette', id: 'palette-night', how: 'turns' } as const },
  };
  expect(referencesOf({ kind: 'recipe', body })).toEqual([
    { id: 'look-print', use: 'look', where: 'the look that it puts on' },
    { id: 'palette-night', use: 'palette', where: 'the colours of the stroke' },
  ]);
});

test('a recipe refers to its preset, its rig, or the presets of its copies, each once', () => {
  const pick = { by: 'rule', tag: 'row' } as const;
  const body = (recipe: Recipe) => referencesOf({ kind: 'recipe', body: recipe });
  expect(body(createRecipe('bring-in', 'rise', pick))).toEqual([
    { id: 'rise', use: 'preset', where: 'the preset that it uses' },
  ]);
  expect(body(createRigRecipe('sway', pick))).toEqual([{ id: 'sway', use: 'rig', where: 'the rig that it uses' }]);
  const side = (...ids: string[]) => ({ presets: ids.map((id) => ({ id, weight: 1 })), length: '5f' });
  expect(body({ ...createMultiply(pick), in: side('a', 'b'), out: side('b', 'c') }).map(({ id }) => id)).toEqual([
    'a',
    'b',
    'c',
  ]);
  expect(body(createMultiply(pick))).toEqual([]);
  expect(body(createLineUp(pick))).toEqual([]);
});

test('a preset refers to house values, curves and the entrance that it mirrors, each with its place', () => {
  const ease = (id: string) => ({ type: 'curve', id, revision: 1, is: { type: 'linear' } }) as const;
  const parameters = [
    { name: 'how', label: 'How', kind: 'curve', default: 'curve soft', note: '' },
    { name: 'far', label: 'Far', kind: 'length', default: '9px', house: 'margin', note: '' },
    { name: 'plain', label: 'Plain', kind: 'curve', default: 'linear', note: '' },
    { name: 'text', label: 'Text', kind: 'length', default: 'curve soft', note: '' },
  ] as const;
  const moments = [
    { id: 'a', name: 'Start', at: '0f' },
    { id: 'b', name: 'Rest', at: '9f' },
  ];
  const cells = ['a', 'b', 'c'].map((moment) => ({ moment, value: '0', ease: ease(`after-${moment}`) }));
  const linear = { ...cells[0], ease: { type: 'linear' } as const };
  const body = {
    ...createPreset('exit'),
    parameters: [...parameters],
    moments,
    rows: [
      { channel: 'opacity' as const, cells },
      { channel: 'skew' as const, cells: [linear] },
    ],
    matches: 'rise',
  };
  expect(referencesOf({ kind: 'preset', body }).map(({ id, use, where }) => [id, use, where])).toEqual([
    ['margin', expect.any(String), expect.stringContaining('@far')],
    ['soft', 'default', 'default of @how'],
    ['after-a', 'easing', 'opacity after Start'],
    ['after-b', 'easing', 'opacity after Rest'],
    ['after-c', 'easing', 'opacity after c'],
    ['rise', 'matches', 'the entrance that it mirrors'],
  ]);
});
