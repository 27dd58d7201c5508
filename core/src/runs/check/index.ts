export {
  findMeetings,
  findOffGrid,
  findOutsideLayer,
  findOutsideScene,
  findTwice,
  keySpan,
  sidesOfRuns,
  type Subject,
  type Interval,
} from './keys';
export { findGoneFiles } from './gone';
export { findUnheld } from './held';
export { findInMotion, lookInMotion } from './motion';
export { checkScene, findUpdates, lookOver, waitingUpdate } from './scene';
export { toItsEnd, type Steps } from './steps';
export { mendsOf, type Mend } from './mend';
export { findUntouched } from './untouched';
export { busyMoments, busyPeaks, type Busy, type BusyPeak } from './busy';
