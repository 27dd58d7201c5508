export { planPassOn, replayPassOn, passOnReads } from './pass-on';
export { PASSED_WORDS, passOnParts } from './words';
