export { broughtBy, planRecipe, replayRun, readsOf, sentenceParts, sentenceOf, recipeWords } from './table';
export { withFollowers } from './links';
