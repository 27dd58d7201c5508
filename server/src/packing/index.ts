export {
  deflate,
  inflate,
  prepare,
  prepareLayers,
  readChunk,
  runText,
  type OutlineEntry,
  type Prepared,
  type PreparedChunk,
  type PreparedRun,
  type RunRow,
} from './packing';
