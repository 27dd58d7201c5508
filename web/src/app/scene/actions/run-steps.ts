import {
  isPresetRecipe,
  moveRun,
  pickLayers,
  recipeSchema,
  removeRun,
  switchRun,
  type Edit,
  type Recipe,
  type RunRecord,
  type Scene,
} from '@wexikine/core';
import type { Reorder } from '../sheet/row-order';

/** A named step of the scene. */
export interface Step {
  readonly label: string;
  readonly edits: readonly Edit[];
}

const SHOWN = 80;

/** A run's sentence, short enough for a step's name. */
function shortly({ sentence }: RunRecord): string {
  return sentence.length > SHOWN ? `${sentence.slice(0, SHOWN - 1)}…` : sentence;
}

/** The step that takes a run out. */
export function removeStep(scene: Scene, run: RunRecord): Step {
  return { label: `Remove a run: ${shortly(run)}`, edits: removeRun(scene, run.id).edits };
}

/** The step that switches a run off, or on again. */
export function switchStep(scene: Scene, run: RunRecord): Step {
  const verb = run.off === true ? 'Switch on' : 'Switch off';
  return { label: `${verb}: ${shortly(run)}`, edits: switchRun(scene, run.id).edits };
}

/** The step that moves a run to another place. */
export function moveStep(scene: Scene, run: RunRecord, to: number): Step {
  return { label: `Move a run: ${shortly(run)}`, edits: moveRun(scene, run.id, to).edits };
}

/** The recipe with a layer put before another in an order set by hand; null puts it last. */
export function reordered(recipe: Recipe, inOrder: readonly string[], { layer, before }: Reorder): Recipe {
  const others = inOrder.filter((id) => id !== layer);
  const at = before === null ? others.length : others.indexOf(before);
  const layers = others.toSpliced(at < 0 ? others.length : at, 0, layer);
  return { ...recipe, order: { by: 'hand', layers } };
}

/** The recipe on just these layers. */
export function pickedOnly(recipe: Recipe, layers: readonly string[]): Recipe {
  return { ...recipe, pick: { by: 'layers', layers: [...layers] } };
}

/** The recipe with layers ticked or not; the pick becomes a list. */
export function ticked(recipe: Recipe, scene: Scene, layers: readonly string[], isOn: boolean): Recipe {
  const picked = new Set(pickLayers(scene, recipe.pick).map((index) => scene.layers[index].id));
  for (const id of layers) {
    if (isOn) picked.add(id);
    else picked.delete(id);
  }
  return pickedOnly(recipe, [...picked]);
}

/** A recipe that was read from a file, or why it was not, as a sentence. */
export type ReadRecipe =
  { readonly ok: true; readonly recipe: Recipe } | { readonly ok: false; readonly message: string };

/** Reads a recipe from a file's text, for a scene of any size and rate: it goes by tags, names and shares. */
export function readRecipe(text: string): ReadRecipe {
  let data: unknown;
  try {
    data = JSON.parse(text);
  } catch {
    return { ok: false, message: 'This file is not JSON. Choose one that was saved as a recipe.' };
  }
  const read = recipeSchema.safeParse(data);
  if (read.success) return { ok: true, recipe: read.data as Recipe };
  const [issue] = read.error.issues;
  return { ok: false, message: `This is no recipe. ${issue.path.join('.') || 'File'}: ${issue.message}` };
}

/** A run's recipe as it is handed on: without values that were set by hand for layers of its scene. */
export function recipeToKeep({ recipe }: RunRecord): Recipe {
  if (!isPresetRecipe(recipe)) return recipe;
  const { overrides: _own, ...rest } = recipe;
  return rest;
}
