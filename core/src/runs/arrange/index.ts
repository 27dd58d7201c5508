export { planArrange, replayArrange, arrangeReads } from './arrange';
export { coverFactor } from './boxes';
export { withAnchor } from './anchor';
export { arrangeWords, arrangeParts } from './words';
