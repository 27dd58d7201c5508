export { planPassOn, replayPassOn, passOnFollows, passOnReads } from './pass-on';
export { PASSED_WORDS, passOnParts } from './words';
