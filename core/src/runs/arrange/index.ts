export { planArrange, replayArrange, arrangeReads, pointInParent, toRest } from './arrange';
export { coverFactor } from './boxes';
export { withAnchor } from './anchor';
export { arrangeWords, arrangeParts } from './words';
