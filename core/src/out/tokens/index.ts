export { readTokens, type ReadTokensResult, type SkippedToken, type TokenPalette, type TokenValue } from './read';
export { writeTokens, type WrittenTokens } from './write';
export { planTokens, type TokenChange, type TokenContext, type TokenPlan } from './merge';
