export { idSchema, keySchema, trackSchema, type Key, type Track } from './key';
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
  dataProblems,
  type Scene,
  type SceneHeader,
  type DataProblem,
} from './scene';
export { runSchema, type RunRecord } from './run-record';
