import { describe, expect, test } from '@jest/globals';
import {
  createAdjust,
  createArrange,
  createClear,
  createKeysRecipe,
  createLineUp,
  createPassOn,
  createRecipe,
  createRigRecipe,
  createStyle,
  hasParameters,
  isPresetRecipe,
  PRESET_OPERATIONS,
  recipeSchema,
  settingsOf,
  withRevisions,
  withSettings,
  type Recipe,
} from '.';

const pick = { by: 'rule', tag: 'row' } as const;
const preset = createRecipe('bring-in', 'fade-in', pick);
const rig = createRigRecipe('rig-sway', pick);
const made: readonly Recipe[] = [
  ...PRESET_OPERATIONS.map((operation) => createRecipe(operation, 'fade-in', pick)),
  rig,
  createAdjust(pick),
  createArrange(pick),
  createClear(pick),
  createLineUp(pick),
  createKeysRecipe('turn-into-keys', pick),
  createKeysRecipe('thin-out', pick),
  createPassOn(pick, 'a'),
];

describe('a recipe as it begins', () => {
  test.each(made.map((recipe) => [recipe.operation, recipe] as const))(
    '%s can be stored, about who was picked',
    (_, recipe) => {
      expect(recipeSchema.safeParse(recipe).error?.issues ?? []).toEqual([]);
      expect(recipe.pick).toEqual(pick);
    },
  );

  test('has parameters where it puts presets or rigs on layers, or adjusts in steps', () => {
    expect(made.filter(isPresetRecipe).map(({ operation }) => operation)).toEqual([...PRESET_OPERATIONS]);
    expect(
      made.filter((recipe) => hasParameters(recipe) && !isPresetRecipe(recipe)).map(({ operation }) => operation),
    ).toEqual(['rig', 'adjust']);
    expect(settingsOf(createClear(pick))).toBeNull();
    expect(settingsOf(createAdjust(pick))).toEqual({ s1_by: { by: 'fixed', value: '3f' } });
    const tilt = { tilt: { by: 'fixed', value: '6deg' } } as const;
    expect(settingsOf(withSettings(preset, tilt))).toEqual(tilt);
    expect(preset.parameters).toEqual({});
  });
});

describe('a recipe in the revisions that were used', () => {
  const uses = [
    { id: 'other', revision: 9 },
    { id: 'fade-in', revision: 3 },
    { id: 'rig-sway', revision: 2 },
  ];

  test('names that of its preset or rig; without one it takes the newest', () => {
    expect(withRevisions(preset, uses)).toMatchObject({ preset: { id: 'fade-in', revision: 3 } });
    expect(withRevisions(rig, uses)).toMatchObject({ rig: { id: 'rig-sway', revision: 2 } });
    const old = withRevisions(preset, uses);
    expect(withRevisions(old, [])).toEqual(preset);
    expect(withRevisions(withRevisions(rig, uses), [])).toEqual(rig);
  });

  test('names those of the look and the palettes of a style; what is not of the library stays', () => {
    const fill = { by: 'palette', id: 'palette-night', how: 'turns' } as const;
    const style = { ...createStyle(pick), from: { by: 'look', id: 'look-print' } as const, vary: { fill } };
    const used = [
      { id: 'palette-night', revision: 4 },
      { id: 'look-print', revision: 7 },
    ];
    expect(withRevisions(style, used)).toEqual({
      ...style,
      from: { by: 'look', id: 'look-print', revision: 7 },
      vary: { fill: { ...fill, revision: 4 } },
    });
    expect(withRevisions(withRevisions(style, used), [])).toEqual(style);
    expect(withRevisions(createStyle(pick), used)).toEqual(createStyle(pick));
  });

  test('is the same where it uses nothing', () => {
    const clear = createClear(pick);
    expect(withRevisions(clear, uses)).toBe(clear);
  });
});
