export { placesOf, inOrder, maximum, createStaging, type Staging } from './order';
export { readTime, readMoment, problemsOf, type ReadTime } from './read-time';
