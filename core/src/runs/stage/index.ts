export { DRAG_SETS, type DragSets } from './channels';
export {
  anchorAt,
  cornerAt,
  moveLayers,
  movedLayers,
  scaleLayer,
  scaleLayers,
  sizeLayer,
  stageMoment,
  turnLayers,
  type StageMoment,
} from './drag';
export { gridLines, snapGaps, type EqualGap, snapLines, snapMove, unionOf, type Snapped, type SnapLine } from './snap';
export { alignLayers, ALIGN_SIDES, anchorTo, shareAt, spreadLayers, type AlignSide } from './align';
export {
  copyLayers,
  duplicateLayers,
  layerClipSchema,
  nextName,
  pasteLayers,
  readLayerClip,
  type Copied,
  type LayerClip,
} from './copies';
export {
  groupLayers,
  stepDepth,
  topLayers,
  ungroupLayer,
  withInside,
  type DepthStep,
  type StageResult,
} from './nesting';
export {
  copyRows,
  ROW_PLACES,
  usualCells,
  type CellMap,
  type CellPicture,
  type RowPlace,
  type RowsAsked,
  type RowsMade,
} from './rows';
export { pacedClip, splitClip } from './clips';
export { placeLayers, type Placement } from './place';
export { scaleWays, straightenWays } from './ways';
export { placesIn, setOut, type SetOut, type SetOutWay } from './set-out';
export { boxedPath, pathShape, reshapedPath } from './path-shape';
export { dragLookHandle, lookHandles, type LookDragged, type LookGrip, type LookHandle } from './look-handles';
