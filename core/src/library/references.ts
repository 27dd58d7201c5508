import type { Preset } from '../preset';
import { isPresetRecipe, type Recipe } from '../recipe';
import type { LibraryItem } from './item';

/** Why an item needs another: to be computed, or only to be linked by name. */
export type ReferenceUse = 'default' | 'easing' | 'follows' | 'matches' | 'preset';

export interface Reference {
  readonly id: string;
  readonly use: ReferenceUse;
  /** Where in the item, for people: "default of @lasts", "scale.x at Peak". */
  readonly where: string;
}

function presetReferences(preset: Preset): Reference[] {
  const names = new Map(preset.moments.map(({ id, name }) => [id, name]));
  const defaults = preset.parameters.flatMap(({ house, name }): Reference[] =>
    house === undefined ? [] : [{ id: house, use: 'default', where: `default of @${name}` }],
  );
  const easings = preset.rows.flatMap(({ channel, cells }) =>
    cells.flatMap(({ ease, moment }): Reference[] =>
      ease.type === 'curve'
        ? [{ id: ease.id, use: 'easing', where: `${channel} after ${names.get(moment) ?? moment}` }]
        : [],
    ),
  );
  const curves = preset.parameters.flatMap(({ kind, name, default: text }): Reference[] => {
    const id = kind === 'curve' ? /^curve\s+(\S+)$/.exec(text.trim())?.[1] : undefined;
    return id === undefined ? [] : [{ id, use: 'default', where: `default of @${name}` }];
  });
  const matches: Reference[] =
    preset.matches === undefined ? [] : [{ id: preset.matches, use: 'matches', where: 'the entrance that it mirrors' }];
  return [...defaults, ...curves, ...easings, ...matches];
}

type Bodied = Pick<LibraryItem, 'kind' | 'body'>;

/** The library items that an item refers to, in every place. */
export function referencesOf(item: Bodied): Reference[] {
  switch (item.kind) {
    case 'preset':
      return presetReferences(item.body as Preset);
    case 'house': {
      const { as } = item.body as { as?: string };
      return as === undefined ? [] : [{ id: as, use: 'follows', where: 'the value that it follows' }];
    }
    case 'curve':
      return [];
    case 'recipe': {
      const recipe = item.body as Recipe;
      return isPresetRecipe(recipe) ? [{ id: recipe.preset.id, use: 'preset', where: 'the preset that it uses' }] : [];
    }
  }
}

/** The ids along a circle of references that begins at an item, that item first and last; null where there is none. */
export function findCircle(start: string, referred: (id: string) => readonly string[]): string[] | null {
  const visit = (id: string, path: readonly string[], passed: Set<string>): string[] | null => {
    for (const next of referred(id)) {
      if (next === start) return [...path, id, next];
      if (passed.has(next)) continue;
      passed.add(next);
      const found = visit(next, [...path, id], passed);
      if (found) return found;
    }
    return null;
  };
  return visit(start, [], new Set());
}
