export {
  TICKS_PER_SECOND,
  ticksSchema,
  ticksFromSeconds,
  secondsFromTicks,
  MOST_TICKS,
  isHeldExactly,
  type Ticks,
} from './ticks';
export {
  LISTED_RATES,
  rateSchema,
  frameTicks,
  fps,
  nominalFps,
  nearestFrame,
  ticksFromFrame,
  toFrameGrid,
  formatRate,
  parseRate,
  type Rate,
} from './rate';
export {
  droppedLabels,
  formatFrameTimecode,
  formatTimecode,
  formatShort,
  parseTimecode,
  type TimecodeProblem,
  type TimecodeResult,
} from './timecode';
export {
  parseTimeEntry,
  applyTimeEntry,
  describeEntryProblem,
  formatFrames,
  type TimeEntry,
  type EntryProblem,
  type EntryResult,
} from './entry';
