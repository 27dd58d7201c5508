export { keySchema, keyValueSchema, originSchema, trackSchema, type Key, type Track } from './key';
export { letterCount, lettersOf, shownLines, wordLines, writtenNumber, type ShownLines } from './words';
export {
  type ClipSource,
  type NumberFormat,
  type TextSource,
  layerBaseSchema,
  layerSchema,
  restValue,
  writeRestValues,
  tracksOf,
  keyCount,
  keyTimes,
  filesOf,
  isSeen,
  undrawnMattes,
  dataPartsBetween,
  dataPartsSchema,
  withDataParts,
  type DataParts,
  lineStep,
  isTrimmed,
  LAYER_KINDS,
  SPLIT_WAYS,
  type Layer,
  type LayerBase,
  type LayerKind,
  type LayerSource,
  type LayerSpan,
} from './layer';
export {
  BLEND_MODES,
  fillSchema,
  firstColour,
  lookPartsBetween,
  lookPartsSchema,
  lookSchema,
  withLookParts,
  type Border,
  type LayerLook,
  type LookPart,
  type LookParts,
  type MotionBlur,
} from './look';
export { filesOfMask, type Mask } from './mask';
export { maskChannels, movedMask, movedShadow, shadowChannels, withoutPart } from './single-parts';
export { FONTS } from './font';
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
export { curvesOf, type ItemRevision } from './links';
export {
  baseWithFileReplaced,
  inPlaceOf,
  withFileReplaced,
  type FileInPlace,
  type ReplacedFields,
} from './replace-file';
