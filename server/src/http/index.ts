export { RequestProblem, notFound, invalid } from './problem';
export { loopbackOnly, idParameter, answerErrors, forLog } from './middleware';
export { takeBody, readBody, readLargeBody, bytesOf, BODY_LIMITS } from './body';
export type { Surroundings } from './surroundings';
export { HEADERS } from './headers';
