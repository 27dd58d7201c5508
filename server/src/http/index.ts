export { RequestProblem, notFound } from './problem';
export { readBody, loopbackOnly, answerErrors } from './middleware';
export type { Surroundings } from './surroundings';
