export { createChecker, createInlineChecker, type Checker } from './checker';
export { checkBody, LARGE_BODIES, type LargeBody } from './tasks';
