export {
  recipeSchema,
  createRecipe,
  PRESET_OPERATIONS,
  OVER_EXISTING,
  type Recipe,
  type PresetOperation,
  type Pick,
  type Order,
  type Start,
  type Spacing,
  type Length,
  type Variation,
  type OverExisting,
} from './recipe';
export { pickLayers } from './pick';
export { stayingOut } from './take-part';
export { placesOf, type Staging } from './order';
export { plan, operationFor, type Plan, type PlanCounts, type RunContext } from './plan';
export type { LayerPlan } from './plan-layer';
export { describeFinding, severityOf, layersOfFinding, type Finding, type Severity } from './finding';
export { mergeKeys, type Merged } from './existing';
export {
  sentenceOf,
  sentenceParts,
  verbOf,
  pickWords,
  orderWords,
  variationWords,
  literalWords,
  type SentenceField,
  type SentencePart,
  type SentenceFacts,
} from './sentence';
export { readableTime } from './readable';
