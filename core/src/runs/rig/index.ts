export { planRig, replayRig, rigReads } from './plan-rig';
export { channelsWords, dialWords, rigParts } from './words';
export { dialNumber, dialText, figuresWords, rigFigures, solveDial, tryRig, type RigFigures, type Wish } from './trial';
export { changeDialKeys, keyedDials, type DialKeysChange, type DialPicks, type KeyedDial } from './dial-keys';
