import {
  createArrange,
  createClear,
  createLineUp,
  createRecipe,
  isPresetRecipe,
  operationFor,
  stayingOut,
  type Layer,
  type Operation,
  type Pick,
  type PresetItem,
  type PresetRecipe,
  type Recipe,
  type Scene,
} from '@wexikine/core';

function freeLayers(scene: Scene): Layer[] {
  const reasons = stayingOut(scene);
  return scene.layers.filter(({ id }) => reasons.get(id) === null);
}

/** The tag that most layers carry which take part in runs; null where no layer has one. */
export function commonestTag(scene: Scene): string | null {
  const counts = new Map<string, number>();
  for (const { tags } of freeLayers(scene)) {
    for (const tag of tags) counts.set(tag, (counts.get(tag) ?? 0) + 1);
  }
  const [first] = [...counts].sort((a, b) => b[1] - a[1]);
  return first?.[0] ?? null;
}

/** The recipe with which a scene is opened, so that a newcomer sees a dry run at once. */
export function firstRecipe(scene: Scene, item: PresetItem): PresetRecipe {
  const tag = commonestTag(scene);
  const pick: Pick =
    tag === null ? { by: 'layers', layers: freeLayers(scene).map(({ id }) => id) } : { by: 'rule', tag };
  const plain = createRecipe(operationFor(item.body.phase), item.id, pick);
  return { ...plain, order: { by: 'down' }, spacing: { by: 'gap', gap: '4f' } };
}

/** Another preset in a recipe: the verb follows its phase, and values of parameters that it lacks go. */
export function withPreset(recipe: Recipe, item: PresetItem): PresetRecipe {
  const operation = operationFor(item.body.phase);
  if (!isPresetRecipe(recipe)) {
    return { ...createRecipe(operation, item.id, recipe.pick), order: recipe.order, seed: recipe.seed };
  }
  const names = new Set(item.body.parameters.map(({ name }) => name));
  const kept = Object.entries(recipe.parameters).filter(([name]) => names.has(name));
  return { ...recipe, operation, preset: { id: item.id }, parameters: Object.fromEntries(kept) };
}

/** Another verb over the same layers: those of presets take the first preset that is made for them; null without one. */
export function withOperation(recipe: Recipe, operation: Operation, items: readonly PresetItem[]): Recipe | null {
  if (recipe.operation === operation) return recipe;
  switch (operation) {
    case 'line-up':
      return { ...createLineUp(recipe.pick), order: recipe.order };
    case 'arrange':
      return { ...createArrange(recipe.pick), order: recipe.order };
    case 'clear':
      return createClear(recipe.pick);
    default: {
      const item = items.find(({ body }) => operationFor(body.phase) === operation);
      return item ? withPreset(recipe, item) : null;
    }
  }
}
