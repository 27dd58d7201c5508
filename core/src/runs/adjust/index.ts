export { planAdjust, replayAdjust, adjustReads } from './adjust';
export { adjustParts, keyRuleWords, pivotWords, countingNumbers } from './words';
export { createKeyTest, pickKeys, pickedCount } from './picked';
