export { editSchema, describeEditProblem, layersOfEdits, type Edit, type EditProblem } from './edit';
export { apply, invert, type ApplyResult } from './apply';
export { difference, isEmptyDifference, type SceneDifference } from './difference';
export { layerEdits } from './layer-edits';
