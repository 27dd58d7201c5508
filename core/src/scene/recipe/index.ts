export {
  recipeSchema,
  isPresetRecipe,
  hasParameters,
  settingsOf,
  withSettings,
  withRevisions,
  createLineUp,
  createArrange,
  createClear,
} from './recipe';
export type { Recipe, Operation, ParameterRecipe, SettingRecipe } from './recipe';
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
export {
  STYLED_COLOURS,
  STYLE_PARTS,
  createStyle,
  type ColourPart,
  type ColourVariation,
  type NumberVariation,
  type StylePart,
  type StyleRecipe,
} from './style-recipe';
export { createPassOn, PASSED, type Passed, type PassOnRecipe } from './pass-on-recipe';
export {
  createMultiply,
  exchanged,
  usualColours,
  type CopyEnd,
  type CopyPlace,
  type CopyPresets,
  type MultiplyRecipe,
} from './multiply-recipe';
export type { ClearRecipe } from './clear-recipe';
export type { Order, SceneMoment } from './parts';
export { createRigRecipe, type RigRecipe, type DialSetting } from './rig-recipe';
export { createKeysRecipe, type KeysRecipe } from './keys-recipe';
export {
  createAdjust,
  WHICH_KEYS,
  type AdjustRecipe,
  type AdjustStep,
  type AdjustType,
  type KeyRule,
  type Pivot,
} from './adjust-recipe';
export {
  ADJUST_STEPS,
  ADJUST_TYPES,
  addStep,
  adjustParameters,
  createStep,
  removeStep,
  stepNumber,
} from './adjust-steps';
