export { planRig, replayRig, rigReads } from './plan-rig';
export { channelsWords, dialWords, rigParts } from './words';
