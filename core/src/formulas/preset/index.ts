export {
  presetSchema,
  draftPresetSchema,
  presetEasingSchema,
  parameterNameSchema,
  parameterSchema,
  presetChannels,
  createPreset,
  PHASES,
  phaseSchema,
  PARAMETER_KINDS,
  HANGS,
  type Preset,
  type PresetEasing,
  type Parameter,
  type ParameterKind,
  type ParameterOption,
  type Moment,
  type Row,
  type Cell,
  type Phase,
  type Hang,
} from './preset';
export { conditionsOf } from './structure';
export { NO_LOOKUP, type Lookup } from './lookup';
export {
  cellScope,
  momentScope,
  runScope,
  inputsOfParameter,
  isNumberKind,
  typeOfKind,
  typeOfChannel,
  whyUnfit,
  COLOUR_PARTS,
  LAYER_PARTS,
  PRESET_NAMES,
  type NumberKind,
} from './scope';
export { readValue, plainValue, NO_LAYER, type ParameterValue, type ReadValue } from './value';
export {
  compilePreset,
  createPresetCompiler,
  describePresetProblem,
  type CompilePreset,
  type CompiledPreset,
  type CompiledParameter,
  type FormulaPlace,
  type PresetProblem,
  type UsedItem,
  type CompilePresetResult,
} from './compile';
export { createColumns, createWriter, createParameterWriter, limitColumn } from './columns';
export {
  momentColumns,
  naturalLengths,
  placeMoments,
  makeRow,
  type MadeRow,
  type Mark,
  type MomentColumns,
} from './resolve';
