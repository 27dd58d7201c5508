import { describe, expect, test } from '@jest/globals';
import {
  createShelf,
  createStyle,
  STARTER_LIBRARY,
  STARTER_LOOKS,
  recipeSchema,
  type LookItem,
  type StyleRecipe,
} from '@wexikine/core';
import {
  likeLayer,
  looksIn,
  missingColours,
  missingNumbers,
  palettesIn,
  withColour,
  withLinkFlipped,
  withLook,
  withNumber,
  withoutColour,
  withoutNumber,
  withPartFlipped,
  withRamp,
} from './style-choices';
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

describe('what a style sets', () => {
  const valid = (recipe: StyleRecipe): StyleRecipe => recipeSchema.parse(recipe) as StyleRecipe;

  test('is a part more or less, in the order in which parts are offered, and never nothing', () => {
    expect(withPartFlipped(style, 'border')?.parts).toEqual(['fill', 'corner']);
    expect(withPartFlipped(style, 'shadow')?.parts).toEqual(
      withPartFlipped({ ...style, parts: ['corner', 'border', 'fill'] }, 'shadow')?.parts,
    );
    expect(withPartFlipped({ ...style, parts: ['fill'] }, 'fill')).toBeNull();
  });

  test('is a colour that differs a little from the first, and the same for all again', () => {
    const plain = { ...style, vary: {} };
    const differing = withColour(plain, 'border');
    expect(valid(differing).vary).toEqual({ border: { by: 'step', lightness: -0.06, chroma: 0, hue: 0 } });
    const listed = withColour(differing, 'fill', { by: 'data', column: 'team' });
    expect(Object.keys(listed.vary)).toEqual(['border', 'fill']);
    expect(withoutColour(withoutColour(listed, 'fill'), 'border')).toEqual(plain);
  });

  test('is a number that goes by steps at first, and is as the look has it again', () => {
    const stepped = withNumber(style, 'corner');
    expect(valid(stepped).numbers).toMatchObject({ corner: { by: 'step' } });
    const two = withNumber(stepped, 'border.width', { by: 'fixed', value: 3 });
    expect(withoutNumber(two, 'corner').numbers).toEqual({ 'border.width': { by: 'fixed', value: 3 } });
    expect(withoutNumber(stepped, 'corner')).toEqual(style);
    expect(withoutNumber(style, 'corner')).toEqual(style);
  });

  test('comes from what the library offers: retired looks and palettes are not', () => {
    const shelf = createShelf(STARTER_LIBRARY);
    const [looks, palettes] = [looksIn(shelf), palettesIn(shelf)];
    expect([looks.every(({ kind }) => kind === 'look'), palettes.every(({ kind }) => kind === 'palette')]).toEqual([
      true,
      true,
    ]);
    const [look, palette] = [looks[0].id, palettes[0].id];
    const retired = createShelf(
      STARTER_LIBRARY.map((item) =>
        item.id === look || item.id === palette ? { ...item, state: 'retired' as const } : item,
      ),
    );
    expect(looksIn(retired)).toEqual(looks.slice(1));
    expect(palettesIn(retired)).toEqual(palettes.slice(1));
  });
});

describe('where a look comes from', () => {
  test('another layer is followed as the one before was', () => {
    const linked = likeLayer({ ...style, from: { by: 'layer', layer: 'a', isLinked: true } }, 'b');
    expect(linked.from).toEqual({ by: 'layer', layer: 'b', isLinked: true });
    expect(likeLayer(style, 'b').from).toEqual({ by: 'layer', layer: 'b' });
    expect(likeLayer(linked, null).from).toEqual({ by: 'own' });
  });

  test('is followed from then on, or no more; a look of its own follows nobody', () => {
    const like = likeLayer(style, 'b');
    const followed = withLinkFlipped(like);
    expect(followed.from).toEqual({ by: 'layer', layer: 'b', isLinked: true });
    expect(withLinkFlipped(followed)).toEqual(like);
    expect(withLinkFlipped(withLook(style, print))).toEqual(withLook(style, print));
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
