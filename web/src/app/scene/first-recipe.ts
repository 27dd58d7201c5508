import {
  createRecipe,
  operationFor,
  stayingOut,
  type Layer,
  type PresetItem,
  type Pick,
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
export function firstRecipe(scene: Scene, item: PresetItem): Recipe {
  const tag = commonestTag(scene);
  const pick: Pick =
    tag === null ? { by: 'layers', layers: freeLayers(scene).map(({ id }) => id) } : { by: 'rule', tag };
  const plain = createRecipe(operationFor(item.body.phase), item.id, pick);
  return { ...plain, order: { by: 'down' }, spacing: { by: 'gap', gap: '4f' } };
}

/** Another preset in a recipe: the verb follows its phase, and values of parameters that it lacks go. */
export function withPreset(recipe: Recipe, item: PresetItem): Recipe {
  const names = new Set(item.body.parameters.map(({ name }) => name));
  const kept = Object.entries(recipe.parameters).filter(([name]) => names.has(name));
  const operation = operationFor(item.body.phase);
  return { ...recipe, operation, preset: { id: item.id }, parameters: Object.fromEntries(kept) };
}
