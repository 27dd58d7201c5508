export { compiledOnce, compileScene, type CompiledScene } from './compile';
export { createFrame, sampleFrame, sampleKeys, sampleValues, type Frame } from './frame';
export { clipTimeAt, shownTime } from './clips';
export { matrixAt, boundsAt, frameAt, restFrame } from './pose';
export {
  createSegment,
  createTrackSampler,
  sampleTrack,
  sampleSegment,
  trackSpeed,
  keyBefore,
  controlValues,
  controlTimes,
  cubicValue,
  type Segment,
} from './segment';
export { cutSegment, type CutSegment } from './cut';
export { fitSegments, FIT_ERROR, type Fit, type FittedKey } from './fit';
export { compileRigs, drivenTrack, type CompiledRigs, type RigCircle, type RigFault, type Rigged } from './rigs';
export { bakeInFewer, bakeTrack, type Bake, type Baked } from './bake-track';
export { bakeChannel, bakedScene, breaksOf, tabulateDriven, EXPORT_WITHIN, toleranceFor } from './bake';
export { greatestStep, type FrameStep } from './speed';
