import { movementEase, movementLabel, type Preset } from '../../formulas/preset';
import type { Rig } from '../../formulas/rig';
import { isPresetRecipe, type MultiplyRecipe, type Recipe, type StyleRecipe } from '../../scene/recipe';
import type { LibraryItem } from './item';
import type { KeptLook } from './look';

/** Why an item needs another: to be computed, or only to be linked by name. */
export type ReferenceUse = 'default' | 'easing' | 'follows' | 'matches' | 'preset' | 'rig' | 'look' | 'palette';

/** Another item that an item refers to, for what, and where. */
export interface Reference {
  readonly id: string;
  readonly use: ReferenceUse;
  /** Where in the item, for people: "default of @lasts", "scale.x at Peak". */
  readonly where: string;
}

/** House values that are defaults of parameters. */
function tiedDefaults(parameters: Preset['parameters']): Reference[] {
  return parameters.flatMap(({ house, name }): Reference[] =>
    house === undefined ? [] : [{ id: house, use: 'default', where: `default of @${name}` }],
  );
}

function presetReferences(preset: Preset): Reference[] {
  const names = new Map(preset.moments.map(({ id, name }) => [id, name]));
  const defaults = tiedDefaults(preset.parameters);
  const easings = preset.rows.flatMap(({ channel, cells }) =>
    cells.flatMap(({ ease, moment }): Reference[] =>
      ease.type === 'curve'
        ? [{ id: ease.id, use: 'easing', where: `${channel} after ${names.get(moment) ?? moment}` }]
        : [],
    ),
  );
  const moved = (preset.movements ?? []).flatMap((movement): Reference[] => {
    const ease = movementEase(movement);
    return ease?.type === 'curve' ? [{ id: ease.id, use: 'easing', where: movementLabel(movement) }] : [];
  });
  const curves = preset.parameters.flatMap(({ kind, name, default: text }): Reference[] => {
    const id = kind === 'curve' ? /^curve\s+(\S+)$/.exec(text.trim())?.[1] : undefined;
    return id === undefined ? [] : [{ id, use: 'default', where: `default of @${name}` }];
  });
  const matches: Reference[] =
    preset.matches === undefined ? [] : [{ id: preset.matches, use: 'matches', where: 'the entrance that it mirrors' }];
  return [...defaults, ...curves, ...easings, ...moved, ...matches];
}

/** Presets by which copies come and go. */
function copiesReferences({ in: entrance, out }: MultiplyRecipe): Reference[] {
  const ids = [...(entrance?.presets ?? []), ...(out?.presets ?? [])].map(({ id }) => id);
  return [...new Set(ids)].map((id) => ({ id, use: 'preset', where: 'a preset of its copies' }));
}

/** The look and the palettes of a style. */
function styleReferences({ from, vary }: StyleRecipe): Reference[] {
  const look: Reference[] = from.by === 'look' ? [{ id: from.id, use: 'look', where: 'the look that it puts on' }] : [];
  const palettes = Object.entries(vary).flatMap(([part, variation]): Reference[] =>
    variation.by === 'palette' ? [{ id: variation.id, use: 'palette', where: `the colours of the ${part}` }] : [],
  );
  return [...look, ...palettes];
}

type Bodied = Pick<LibraryItem, 'kind' | 'body'>;

/** The library items that an item refers to, in every place. */
export function referencesOf(item: Bodied): Reference[] {
  switch (item.kind) {
    case 'preset':
      return presetReferences(item.body as Preset);
    case 'rig':
      return tiedDefaults((item.body as Rig).dials);
    case 'house': {
      const { as } = item.body as { as?: string };
      return as === undefined ? [] : [{ id: as, use: 'follows', where: 'the value that it follows' }];
    }
    case 'look':
      return tiedDefaults((item.body as KeptLook).parameters ?? []);
    case 'curve':
    case 'palette':
      return [];
    case 'recipe': {
      const recipe = item.body as Recipe;
      if (recipe.operation === 'rig') return [{ id: recipe.rig.id, use: 'rig', where: 'the rig that it uses' }];
      if (recipe.operation === 'style') return styleReferences(recipe);
      if (recipe.operation === 'multiply') return copiesReferences(recipe);
      return isPresetRecipe(recipe) ? [{ id: recipe.preset.id, use: 'preset', where: 'the preset that it uses' }] : [];
    }
  }
}

/**
 * The ids along a circle of references that can be reached from some items, the first and the last the same; null where
 * there is none. Each item and each reference is looked at once.
 */
export function findCircle(starts: readonly string[], referred: (id: string) => readonly string[]): string[] | null {
  const done = new Set<string>();
  const path: string[] = [];
  const places = new Map<string, number>();
  const waiting: { readonly id: string; readonly next: Iterator<string> }[] = [];
  const enter = (id: string): void => {
    places.set(id, path.length);
    path.push(id);
    waiting.push({ id, next: referred(id)[Symbol.iterator]() });
  };
  for (const start of starts) {
    if (!done.has(start)) enter(start);
    while (waiting.length > 0) {
      const { id, next } = waiting[waiting.length - 1];
      const step = next.next();
      if (step.done === true) {
        waiting.pop();
        path.pop();
        places.delete(id);
        done.add(id);
      } else if (places.has(step.value)) {
        return [...path.slice(places.get(step.value)), step.value];
      } else if (!done.has(step.value)) {
        enter(step.value);
      }
    }
  }
  return null;
}
