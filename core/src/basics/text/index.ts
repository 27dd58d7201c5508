export { counted } from './counted';
export { isHeldText, findUnheldText, readJson, MOST_DEPTH, type JsonResult } from './held';
export { dataProblems, describeIssue, type DataProblem } from './sentences';
