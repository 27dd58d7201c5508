export { dryRun, plan, type DryRun, type Plan, type RunHead } from './plan';
export { replan } from './replan';
export { solvedIn } from './solved';
export { matchingExitRecipe, type ExitWishes } from './exit';
export { planUpdates, recipeOfRun, type LayerUpdate, type RunKeys, type RunUpdate } from './update';
export { retuneRig, type Retuned } from './retune';
