export { createChecker, createInlineChecker, type Checker } from './checker';
export { checkBody, readLarge, type LargeBody, type PreparedSave, type PreparedScene } from './tasks';
