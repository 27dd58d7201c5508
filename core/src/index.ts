export * from './basics/text';
export { schemaItself } from './basics/schema';
export * from './basics/ids';
export * from './basics/time';
export * from './basics/easing';
export * from './basics/channel';
export * from './basics/colour';
export * from './basics/random';
export * from './basics/sound';
export * from './basics/motion';
export * from './scene/file';
export * from './scene/layer';
export * from './scene/scene';
export * from './basics/transform';
export * from './scene/sample';
export * from './scene/edit';
export * from './formulas/formula';
export * from './formulas/preset';
export * from './formulas/rig';
export * from './library/library';
export * from './library/authoring';
export * from './runs/finding';
export * from './scene/recipe';
export * from './runs/pick';
export * from './runs/order';
export * from './runs/line-up';
export * from './runs/arrange';
export * from './runs/clear';
export * from './runs/adjust';
export * from './runs/split';
export * from './runs/stage';
export * from './runs/style';
export * from './runs/pass-on';
export * from './runs/multiply';
export * from './runs/check';
export * from './scene/table';
export * from './scene/cue';
export * from './runs/variant';
export * from './runs/run';
export * from './runs/rig';
export * from './runs/keys';
export * from './runs/stack';
export { operationPhase, type LayerPlan, type LayerValues, type PlanCounts, type RunContext } from './runs/operation';
export * from './runs/sentence';
export { withFollowers, sentenceOf, sentenceParts, recipeWords, readsOf } from './runs/operations';
export * from './runs/plan';
export {
  STARTER_LIBRARY,
  STARTER_LOOKS,
  STARTER_MOVEMENTS,
  STARTER_PALETTES,
  STARTER_PRESETS,
  STARTER_RECIPES,
  STARTER_RIGS,
  WORD_PRESETS,
  WORD_RIGS,
} from './library/starter';
export * from './out/bundle';
export * from './scene/demo';
export * from './scene/outline';
export * from './out/export';
export * from './out/exchange';
export * from './out/pack';
export * from './out/tokens';
