export { dryRun, plan, type DryRun, type Plan, type RunHead } from './plan';
export { replan } from './replan';

export {
  sentenceOf,
  sentenceParts,
  recipeWords,
  verbOf,
  type SentenceField,
  type SentencePart,
  type SentenceFacts,
  type Solved,
} from './sentence';
export { orderWords, variationWords, literalWords } from './words';
export { lineUpWords, arrangeWords, clearWords } from './way-words';
export { solvedIn } from './solved';
export { readableTime } from './readable';
export { matchingExitRecipe, type ExitWishes } from './exit';
export { planUpdates, recipeOfRun, type LayerUpdate, type RunKeys, type RunUpdate } from './update';
