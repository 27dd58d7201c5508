export { mentionsIn, rewriteMentions, baseName, type Mention } from './formula-text';
export {
  addParameter,
  changeParameter,
  changeKind,
  moveParameter,
  renameParameter,
  renameOption,
  removeParameter,
  parameterUses,
  canInline,
  nameProblem,
  nameFrom,
} from './parameters';
export {
  ROW_CHOICES,
  rowGroups,
  linkedChannels,
  addMoment,
  changeMoment,
  moveMoment,
  removeMoment,
  duplicateMoment,
  addRows,
  removeRows,
  moveRows,
  copyRow,
  setCondition,
  setCell,
  setEase,
  type RowGroup,
} from './matrix';
export { matchingExit, reversePresetEasing } from './mirror';
export {
  recordPreset,
  recordedValues,
  recordingOf,
  type Distances,
  type RecordOptions,
  type RecordedValue,
  type RecordStage,
} from './record';
export { comparePresets, compareItems, easingWords, type Difference } from './compare';
export { curveFigures, figureWords, type CurveFigures } from './figures';
export { addFormula, renameRole, rigAsPreset, rigFromPreset, setFormula, setFormulaChannels } from './rig';
export {
  addMovement,
  addPart,
  changeMovement,
  createMovement,
  movementChannelChoices,
  moveMovement,
  partLimits,
  removeMovement,
  removePart,
  setMovementNumber,
} from './movements';
