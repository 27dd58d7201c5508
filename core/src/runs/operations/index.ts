export { planRecipe, replayRun, readsOf, sentenceParts, sentenceOf, recipeWords } from './table';
