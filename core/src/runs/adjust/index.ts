export { planAdjust, replayAdjust, adjustReads } from './adjust';
export { adjustParts, keyRuleWords, pivotWords, countingNumbers } from './words';
export { createKeyTest, pickKeys, pickedCount, runMoments } from './picked';
export {
  countPicks,
  HAND_EASE,
  keyAt,
  pickByRule,
  setRests,
  movePicks,
  removePicks,
  setPickedValues,
  stepByHand,
  type HandChange,
  type HandPicks,
} from './by-hand';
export {
  copyKeys,
  keyClipSchema,
  pasteKeys,
  pasteWords,
  readKeyClip,
  type KeyClip,
  type PasteReport,
  type PasteWay,
} from './clip';
export {
  drawHandle,
  easePicks,
  flattenPicks,
  joinPicks,
  mirrorPicks,
  readCurves,
  setSpeeds,
  smoothPicks,
  unlinkPicks,
  type DrawnHandle,
  type PickedCurves,
  type Side,
} from './curves';
export { carryPicks, poseAt, poseAtEnds, poseToRest, withKeyAt } from './poses';
export { dialPasteWords, pasteDialKeys, type DialReport } from './dial-clip';
