export {
  sortCues,
  freeCueName,
  beatTimes,
  intervalOfTempo,
  tempoOfTaps,
  addCues,
  snapToCue,
  cuesToCsv,
  cuesFromCsv,
  type Beats,
  type CuesResult,
} from './cue';
