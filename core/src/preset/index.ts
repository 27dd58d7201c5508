export {
  presetSchema,
  parameterNameSchema,
  presetChannels,
  PHASES,
  PARAMETER_KINDS,
  HANGS,
  type Preset,
  type Parameter,
  type ParameterKind,
  type Moment,
  type Row,
  type Phase,
  type Hang,
} from './preset';
export { libraryItemSchema, createShelf, ITEM_STATES, type LibraryItem, type Shelf } from './item';
export { cellScope, momentScope, runScope, typeOfKind, typeOfChannel, PRESET_NAMES } from './scope';
export {
  compilePreset,
  createPresetCompiler,
  type CompilePreset,
  describePresetProblem,
  type CompiledPreset,
  type CompiledParameter,
  type PresetProblem,
  type CompilePresetResult,
} from './compile';
export {
  createInputs,
  setParameter,
  limitParameter,
  momentSeconds,
  momentTicks,
  makeRows,
  type Circumstances,
  type MadeKey,
  type MadeRow,
} from './resolve';
