export { findMeetings, findOffGrid, findOutsideLayer, findOutsideScene, type Subject, type Interval } from './keys';
export { findInMotion } from './motion';
export { checkScene, findUpdates, waitingUpdate } from './scene';
export { mendOf, type Mend } from './mend';
