export { keySchema, originSchema, trackSchema, type Key, type Track } from './key';
export {
  layerBaseSchema,
  layerSchema,
  restValue,
  restValues,
  tracksOf,
  keyTimes,
  filesOf,
  isSeen,
  lineStep,
  firstColour,
  isTrimmed,
  FONTS,
  BLEND_MODES,
  LAYER_KINDS,
  SPLIT_WAYS,
  type Layer,
  type LayerBase,
  type LayerKind,
  type LayerLook,
  type LayerSource,
  type LayerSpan,
} from './layer';
export {
  pickSchema,
  pickTermSchema,
  savedPickSchema,
  DATA_TESTS,
  type Pick,
  type JoinedTerm,
  type PickTerm,
  type SavedPick,
  type DataTest,
} from './pick';
export { isSame } from './same';
export { withKeys, shiftLayer } from './move';
