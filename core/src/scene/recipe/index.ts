export { recipeSchema, isPresetRecipe, hasParameters, createLineUp, createArrange, createClear } from './recipe';
export type { Recipe, Operation } from './recipe';
export {
  createRecipe,
  currentOperation,
  PRESET_OPERATIONS,
  OVER_EXISTING,
  type PresetRecipe,
  type PresetOperation,
  type Start,
  type Spacing,
  type Length,
  type Variation,
  type Override,
  type OverExisting,
} from './preset-recipe';
export type { LineUpRecipe, LineUpWay, Edge } from './line-up-recipe';
export { ALIGN_EDGES, type ArrangeRecipe, type ArrangeWay } from './arrange-recipe';
export type { ClearRecipe } from './clear-recipe';
export type { Order, SceneMoment } from './parts';
export { createRigRecipe, type RigRecipe, type DialSetting } from './rig-recipe';
export { createKeysRecipe, type KeysRecipe } from './keys-recipe';
