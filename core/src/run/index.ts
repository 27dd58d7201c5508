export { planPreset, operationFor } from './plan-preset';
export type { LayerPlan, LayerValues } from './plan-layer';
export { mergeKeys, type Merged } from './existing';
