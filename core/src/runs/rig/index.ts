export { planRig, replayRig, rigReads } from './plan-rig';
export { channelsWords, dialWords, rigParts } from './words';
export { dialNumber, dialText, figuresWords, rigFigures, solveDial, tryRig, type RigFigures, type Wish } from './trial';
export {
  dialChannel,
  isDialLayer,
  keyedDials,
  perDialUnit,
  takeDialsApart,
  withDialLayers,
  type DialsTurned,
  type KeyedDial,
} from './dial-keys';
