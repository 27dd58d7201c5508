import type { DialSetting } from './rig-recipe';
import * as z from '../../basics/schema';
import type { Pick } from '../layer';
import { adjustRecipeSchema, type AdjustRecipe } from './adjust-recipe';
import { arrangeRecipeSchema, type ArrangeRecipe } from './arrange-recipe';
import { clearRecipeSchema, type ClearRecipe } from './clear-recipe';
import { lineUpRecipeSchema, type LineUpRecipe } from './line-up-recipe';
import { keysRecipeSchema, type KeysRecipe } from './keys-recipe';
import { rigRecipeSchema, type RigRecipe } from './rig-recipe';
import { copiesAt, multiplyRecipeSchema, type MultiplyRecipe } from './multiply-recipe';
import { passOnRecipeSchema, type PassOnRecipe } from './pass-on-recipe';
import { styleAt, styleRecipeSchema, type StyleRecipe } from './style-recipe';
import { PRESET_OPERATIONS, presetRecipeSchema, type PresetRecipe } from './preset-recipe';

/** What is to be done to which layers. Plain data, one shape for each operation. */
export const recipeSchema: z.ZodType<Recipe> = z
  .discriminatedUnion('operation', [
    presetRecipeSchema,
    rigRecipeSchema,
    keysRecipeSchema,
    lineUpRecipeSchema,
    arrangeRecipeSchema,
    adjustRecipeSchema,
    passOnRecipeSchema,
    styleRecipeSchema,
    multiplyRecipeSchema,
    clearRecipeSchema,
  ])
  .describe('A recipe: one batch application to layers.');

/** What is to be done to which layers. */
export type Recipe =
  | PresetRecipe
  | RigRecipe
  | KeysRecipe
  | AdjustRecipe
  | LineUpRecipe
  | ArrangeRecipe
  | PassOnRecipe
  | StyleRecipe
  | MultiplyRecipe
  | ClearRecipe;
/** The name of an operation. */
export type Operation = Recipe['operation'];

/** True for a recipe that puts a preset on layers. */
export function isPresetRecipe(recipe: Recipe): recipe is PresetRecipe {
  return (PRESET_OPERATIONS as readonly string[]).includes(recipe.operation);
}

/** A recipe whose preset, rig or steps have parameters that it sets. */
export type ParameterRecipe = PresetRecipe | RigRecipe | AdjustRecipe;

/** True for a recipe whose preset, rig or steps have parameters that it sets. */
export function hasParameters(recipe: Recipe): recipe is ParameterRecipe {
  return isPresetRecipe(recipe) || recipe.operation === 'rig' || recipe.operation === 'adjust';
}

/** A recipe that can set parameters of what it uses. */
export type SettingRecipe = ParameterRecipe | StyleRecipe;

/** How a recipe sets the parameters of what it uses; null for one that uses nothing with parameters. */
export function settingsOf(recipe: Recipe): Readonly<Record<string, DialSetting>> | null {
  if (recipe.operation === 'style') return recipe.from.by === 'look' ? (recipe.parameters ?? {}) : null;
  return hasParameters(recipe) ? recipe.parameters : null;
}

/** A recipe with its parameters set. */
export function withSettings<R extends SettingRecipe>(recipe: R, parameters: Readonly<Record<string, DialSetting>>): R {
  return { ...recipe, parameters };
}

/** An item of the library in one of its revisions. */
type ItemRevision = { readonly id: string; readonly revision: number };

/** A recipe with the items that it names in the revisions that are given; in the newest where none is. */
export function withRevisions(recipe: Recipe, uses: readonly ItemRevision[]): Recipe {
  if (recipe.operation === 'style') return styleAt(recipe, uses);
  if (recipe.operation === 'multiply') return copiesAt(recipe, uses);
  const at = ({ id }: { readonly id: string }): { revision?: number } => {
    const used = uses.find((one) => one.id === id);
    return used ? { revision: used.revision } : {};
  };
  if (recipe.operation === 'rig') return { ...recipe, rig: { id: recipe.rig.id, ...at(recipe.rig) } };
  if (!isPresetRecipe(recipe)) return recipe;
  const { revision: _then, ...preset } = recipe.preset;
  return { ...recipe, preset: { ...preset, ...at(preset) } };
}

const BASE = { order: { by: 'layered' }, seed: 1 } as const;

/** Out points lined up on the latest of them. */
export function createLineUp(pick: Pick): LineUpRecipe {
  const way = { by: 'end', at: { by: 'latest' } } as const;
  return { operation: 'line-up', pick, ...BASE, way, parts: 'keep', squeeze: false };
}

/** Boxes spread evenly between the outer two. */
export function createArrange(pick: Pick): ArrangeRecipe {
  return {
    operation: 'arrange',
    pick,
    ...BASE,
    order: { by: 'across' },
    way: { by: 'spread', axis: 'across', between: 'outer', margin: 0 },
  };
}

/** Every key taken away. */
export function createClear(pick: Pick): ClearRecipe {
  return { operation: 'clear', pick, ...BASE };
}
