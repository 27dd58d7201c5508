export { packSchema, writePack, readPack, withNeeds, PACK_FORMAT, type PackList, type ReadPackResult } from './pack';
export { PACK_LIMITS } from './limits';
export { checkRecords, formulaProblem, shelfOf } from './check';
export {
  planImport,
  IMPORT_CHOICES,
  type ImportChoice,
  type ImportEntry,
  type ImportPlan,
  type ImportReport,
  type ImportStatus,
} from './import';
export { describePackProblem, type PackProblem } from './problem';
export { unzip, type ZipLimits } from './zip';
