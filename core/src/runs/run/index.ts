export { planPreset, operationFor } from './plan-preset';
export { replayPreset, presetReads } from './replay';
export { mergeKeys, withoutRuns } from './existing';
export type { Merged } from './touched';
export { momentOfSlot, nameOf, type NamedKey } from './names';
export { presetParts, variationWords, literalWords } from './preset-words';
export { readOverrides } from './overrides';
export { fillColumns, type Filled } from './prepare';
export { compileVariation } from './vary';
