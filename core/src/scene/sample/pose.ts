import { CHANNEL_COUNT, channelOf } from '../../basics/channel';
import { boundsOf, writeLayerMatrix, type Box, type Matrix } from '../../basics/transform';
import { alongPath } from './paths';
import type { CompiledScene } from './compile';
import { createFrame, sampleFrame, type Frame } from './frame';

const WIDTH = channelOf('size.x').slot;
const HEIGHT = channelOf('size.y').slot;

/** World matrix of one layer in a sampled frame. */
export function matrixAt(frame: Frame, index: number): Matrix {
  const { matrices } = frame;
  const o = index * 6;
  return [matrices[o], matrices[o + 1], matrices[o + 2], matrices[o + 3], matrices[o + 4], matrices[o + 5]];
}

/** Upright bounds of one layer's box in a sampled frame, in scene pixels, without its stroke. */
export function boundsAt(frame: Frame, index: number): Box {
  const v = index * CHANNEL_COUNT;
  return boundsOf(matrixAt(frame, index), frame.values[v + WIDTH], frame.values[v + HEIGHT]);
}

/** A sampled frame at one time, for single looks; playing reuses a frame with `sampleFrame`. */
export function frameAt(compiled: CompiledScene, time: number): Frame {
  const frame = createFrame(compiled);
  sampleFrame(compiled, time, frame);
  return frame;
}

/** The rest pose of a scene as a frame: no keys, all layers on. */
export function restFrame(compiled: CompiledScene): Frame {
  const frame = createFrame(compiled);
  frame.live.fill(1);
  for (const index of compiled.order) {
    const along = alongPath(compiled.paths, frame.values, index, compiled.along);
    writeLayerMatrix(frame.values, index, compiled.parents[index], frame.matrices, along);
  }
  return frame;
}
