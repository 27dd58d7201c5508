export { planPreset, operationFor } from './plan-preset';
export type { LayerPlan, LayerValues } from './plan-layer';
export { fitSegments, mergeKeys, withoutRuns, isHolding, type Merged } from './existing';
