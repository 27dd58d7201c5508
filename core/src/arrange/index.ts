export { planArrange, replayArrange, arrangeStep } from './arrange';
export { coverFactor } from './boxes';
export { withAnchor } from './anchor';
