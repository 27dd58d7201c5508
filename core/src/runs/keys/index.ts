export { keysReads, planKeys, replayKeys } from './plan-keys';
export { keysParts } from './words';
