export { broughtBy, planRecipe, replayRun, readsOf, sentenceParts, sentenceOf, recipeWords } from './table';
export { followedLayer, withFollowers } from './links';
