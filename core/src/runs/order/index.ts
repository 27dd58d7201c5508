export { placesOf, inOrder, findOnePlace, maximum, createStaging, type Staging } from './order';
export { readTime, readMoment, problemsOf, type ReadTime } from './read-time';
