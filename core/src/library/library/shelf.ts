import type { Lookup, Parameter } from '../../formulas/preset';
import { adjustParameters, isPresetRecipe, type Recipe } from '../../scene/recipe';
import { houseText, type HouseValue } from './house';
import { isPreset, type HouseItem, type LibraryItem, type PresetItem } from './item';

/** The items that a run may use, by id; of each the newest published revision, or the one that is asked for. */
export interface Shelf extends Lookup {
  readonly items: ReadonlyMap<string, LibraryItem>;
  readonly preset: (id: string) => PresetItem | null;
  /** What a house value is, of one that follows another what that is; null where it is not there. */
  readonly house: (id: string) => HouseValue | null;
}

type Followed = Map<string, HouseItem | null>;

/**
 * Follows house values that follow others; null where the way ends nowhere or runs in a circle. What was found for one
 * is kept for all along its way.
 */
function followHouse(items: ReadonlyMap<string, LibraryItem>, known: Followed, id: string): HouseItem | null {
  const passed = new Set<string>();
  let found: HouseItem | null = null;
  for (let at = id; !passed.has(at);) {
    const before = known.get(at);
    if (before !== undefined) {
      found = before;
      break;
    }
    passed.add(at);
    const item = items.get(at);
    if (item?.kind !== 'house') break;
    const next = item.body.as === undefined ? undefined : items.get(item.body.as);
    if (next?.kind !== 'house' || next.body.type !== item.body.type) {
      found = item;
      break;
    }
    at = next.id;
  }
  for (const one of passed) known.set(one, found);
  return found;
}

/** A shelf of items. */
export function createShelf(list: readonly LibraryItem[]): Shelf {
  const items = new Map(list.map((item) => [item.id, item]));
  const followed: Followed = new Map();
  const houseOf = (id: string): { value: HouseValue; revision: number } | null => {
    const found = followHouse(items, followed, id);
    return found ? { value: found.body, revision: items.get(id)?.revision ?? found.revision } : null;
  };
  return {
    items,
    preset: (id) => {
      const item = items.get(id);
      return item && isPreset(item) ? item : null;
    },
    house: (id) => houseOf(id)?.value ?? null,
    curve: (id) => {
      const item = items.get(id);
      if (item?.kind === 'curve') return { easing: item.body.easing, revision: item.revision };
      const house = houseOf(id);
      return house?.value.type === 'curve' ? { easing: house.value.value, revision: house.revision } : null;
    },
    houseText: (id) => {
      const house = houseOf(id);
      return house ? { text: houseText(house.value), revision: house.revision } : null;
    },
  };
}

/** The parameters that a recipe can set: of its preset, or the dials of its rig. None where the shelf lacks it. */
export function parametersFor(recipe: Recipe, shelf: Shelf): readonly Parameter[] {
  if (isPresetRecipe(recipe)) return shelf.preset(recipe.preset.id)?.body.parameters ?? [];
  if (recipe.operation === 'adjust') return adjustParameters(recipe);
  if (recipe.operation === 'style') {
    const look = recipe.from.by === 'look' ? shelf.items.get(recipe.from.id) : undefined;
    return look?.kind === 'look' ? (look.body.parameters ?? []) : [];
  }
  const item = recipe.operation === 'rig' ? shelf.items.get(recipe.rig.id) : undefined;
  return item?.kind === 'rig' ? item.body.dials : [];
}
