export { isHeldText, findUnheldText, readJson, MOST_DEPTH, type JsonResult } from './held';
