import { apply, type Edit } from '../scene/edit';
import { createShelf } from '../library/library';
import { plan, type Plan } from '../runs/plan';
import { PRESET_OPERATIONS, recipeSchema, type Recipe } from '../scene/recipe';
import type { Key, Layer } from '../scene/layer';
import type { Scene } from '../scene/scene';
import { STARTER_LIBRARY } from '../library/starter';
import { CONTEXT, inFrames, PAL, recipeOf } from './scenes';

/** The library that comes with the application. */
export const SHELF = createShelf(STARTER_LIBRARY);

/** Plans a recipe whose missing fields are the plainest ones; the next run is run-1, run-2 and so on. */
export function planOn(scene: Scene, recipe: Partial<Recipe>): Plan {
  const whole = recipeSchema.parse(
    recipe.operation === undefined || isPreset(recipe) ? recipeOf(recipe as never) : recipe,
  );
  return plan(scene, SHELF, whole as Recipe, { ...CONTEXT, runId: `run-${scene.runs.length + 1}` });
}

function isPreset({ operation }: Partial<Recipe>): boolean {
  return operation !== undefined && (PRESET_OPERATIONS as readonly string[]).includes(operation);
}

/** A scene with edits in it; throws where they are refused. */
export function edited(scene: Scene, edits: readonly Edit[]): Scene {
  const result = apply(scene, edits);
  if (!result.ok) throw new Error(result.problem.code);
  return result.scene;
}

/** A scene with a recipe applied to it. */
export function applied(scene: Scene, recipe: Partial<Recipe>): Scene {
  return edited(scene, planOn(scene, recipe).edits);
}

/** A layer of a scene, which has it. */
export function layerOf(scene: Scene, id: string): Layer {
  return scene.layers.find((layer) => layer.id === id) as Layer;
}

/** Frames and values of keys; values to nine places. */
export function framesOf(keys: readonly Key[] | undefined, rate = PAL): (readonly [number, number])[] {
  return (keys ?? []).map(({ at, value }) => [inFrames(at, rate), Number(value.toFixed(9))]);
}

/** When each layer of a plan starts, in frames. */
export function startsOf({ layers }: Plan, rate = PAL): number[] {
  return layers.map(({ starts }) => inFrames(starts, rate));
}

/** What a plan found, by its codes. */
export function codesOf({ findings }: Plan): string[] {
  return findings.map(({ code }) => code);
}
