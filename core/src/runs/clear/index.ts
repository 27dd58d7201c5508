export { planClear, replayClear, clearReads } from './clear';
export { clearWords, clearParts } from './words';
