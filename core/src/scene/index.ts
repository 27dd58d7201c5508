export { countSchema, whenSchema, idSchema, keySchema, trackSchema, type Key, type Track } from './key';
export {
  layerSchema,
  nameSchema,
  restValue,
  restValues,
  tracksOf,
  keyTimes,
  FONTS,
  LAYER_KINDS,
  type Layer,
  type LayerKind,
  type LayerLook,
  type LayerSource,
} from './layer';
export {
  SCENE_FORMAT,
  sceneSchema,
  newSceneSchema,
  sceneHeaderSchema,
  HEADER_FIELDS,
  headerOf,
  treeProblem,
  haveOwnIds,
  MOST_NESTED,
  cueSchema,
  type Scene,
  type Cue,
  type SceneHeader,
} from './scene';
export { runSchema, type RunRecord, type LayerStep, type TrackStep, type RestStep } from './run-record';
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
export { layerStep, isEmptyStep, isSame, withKeys, shiftLayer } from './step';
