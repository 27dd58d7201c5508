import { describe, expect, test } from '@jest/globals';
import { createStyle, STARTER_LOOKS, recipeSchema, type LookItem, type StyleRecipe } from '@wexikine/core';
import { likeLayer, missingColours, missingNumbers, withLook, withRamp } from './style-choices';
import { numberWays } from './ways';

const style: StyleRecipe = { ...createStyle({ by: 'rule', kind: 'card' }), parts: ['fill', 'border', 'corner'] };
const print = STARTER_LOOKS.find(({ id }) => id === 'look-print') as LookItem;

describe('what can differ from layer to layer', () => {
  test('are colours and numbers of the chosen parts that do not differ yet', () => {
    expect(missingColours(style)).toEqual(['border']);
    expect(missingNumbers(style)).toEqual(['fill.turn', 'border.width', 'border.turn', 'corner']);
    const numbers = { corner: { by: 'fixed', value: 3 }, 'fill.turn': { by: 'fixed', value: 90 } } as const;
    expect(missingNumbers({ ...style, numbers })).toEqual(['border.width', 'border.turn']);
    expect(missingNumbers({ ...style, parts: ['fill'] })).toEqual(['fill.turn']);
  });

  test('is typed in the unit of the channel, and every way begins as a recipe can have it', () => {
    for (const unit of ['px', 'share', 'deg', 'number'] as const) {
      for (const { value, begin, fields } of numberWays(unit)) {
        const variation = { by: value, ...begin, ...(value === 'data' ? { column: 'size' } : {}) };
        expect(recipeSchema.safeParse({ ...style, numbers: { corner: variation } }).success).toBe(true);
        expect(
          fields.every(
            ({ kind }) =>
              value === 'data' || kind === { px: 'pixels', share: 'percent', deg: 'degrees', number: 'number' }[unit],
          ),
        ).toBe(true);
      }
    }
  });
});

describe('where a look comes from', () => {
  test('another layer is followed as the one before was', () => {
    const linked = likeLayer({ ...style, from: { by: 'layer', layer: 'a', isLinked: true } }, 'b');
    expect(linked.from).toEqual({ by: 'layer', layer: 'b', isLinked: true });
    expect(likeLayer(style, 'b').from).toEqual({ by: 'layer', layer: 'b' });
    expect(likeLayer(linked, null).from).toEqual({ by: 'own' });
  });

  test('a look of the library brings its parts, and only what differs of these stays', () => {
    const varied: StyleRecipe = {
      ...style,
      numbers: { 'border.width': { by: 'step', step: 2 }, corner: { by: 'fixed', value: 3 } },
    };
    const after = withLook(varied, print);
    expect(after).toMatchObject({ from: { by: 'look', id: 'look-print' }, parts: ['border', 'shadow'], vary: {} });
    expect(after.numbers).toEqual({ 'border.width': { by: 'step', step: 2 } });
    expect('numbers' in withLook(style, print)).toBe(false);
    expect(recipeSchema.safeParse(after).success).toBe(true);
  });

  test('the ramp of a palette is gone along, its colours come as they did', () => {
    const palette = { by: 'palette', id: 'palette-ember', how: 'turns' } as const;
    expect(withRamp(palette, 'fire')).toEqual({ ...palette, ramp: 'fire', how: 'ramp' });
    expect(withRamp({ ...palette, ramp: 'fire' }, '')).toEqual(palette);
  });
});
