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
export { runSchema, type RunRecord, type KeptItem, type UsedAdjust, type UsedRig } from './run-record';
export {
  packMade,
  packColumn,
  valueIn,
  createMadeReader,
  layerMade,
  type Made,
  type LayerMade,
  type Column,
} from './made';
export type { KeyField, KeyPatch, LayerPatch } from './patch';
