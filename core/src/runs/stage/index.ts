export { DRAG_SETS, type DragSets } from './channels';
export {
  anchorAt,
  cornerAt,
  moveLayers,
  movedLayers,
  scaleLayer,
  scaleLayers,
  stageMoment,
  turnLayers,
  type StageMoment,
} from './drag';
export { snapLines, snapMove, unionOf, type Snapped, type SnapLine } from './snap';
