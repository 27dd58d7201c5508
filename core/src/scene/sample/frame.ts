import { writeLayerMatrix } from '../../basics/transform';
import { playClips } from './clips';
import { alongPath } from './paths';
import type { CompiledScene } from './compile';
import { sampleTracks } from './sample-tracks';

/** Room for one sampled frame of a compiled scene. */
export interface Frame {
  /** CHANNEL_COUNT numbers a layer, in the order of the channels' slots. */
  readonly values: Float64Array;
  /** World matrices: six numbers a layer. */
  readonly matrices: Float64Array;
  /** Opacity with all groups around a layer is left to the painter; this is 1 where the layer's span holds the time. */
  readonly live: Uint8Array;
}

/** Makes room for the frames of a compiled scene, at rest; reuse it from frame to frame, for this scene alone. */
export function createFrame(compiled: CompiledScene): Frame {
  const count = compiled.layers.length;
  return {
    values: compiled.rest.slice(),
    matrices: new Float64Array(count * 6),
    live: new Uint8Array(count),
  };
}

/** Writes all channel values of a time, with rigs, into `frame.values`. Allocates nothing. */
export function sampleValues(compiled: CompiledScene, time: number, frame: Frame): void {
  sampleKeys(compiled, time, frame);
  compiled.rigs?.drive(time, frame.values);
}

/** Writes what the keys alone give into `frame.values`: what has no keys rests there from the beginning. Allocates nothing. */
export function sampleKeys({ rest, clips, tracks, rigs }: CompiledScene, time: number, { values }: Frame): void {
  rigs?.release(values, rest);
  if (clips) playClips(clips, time, values);
  sampleTracks(tracks, time, values);
}

/** Writes values, world matrices and which layers are on into `frame`. Allocates nothing. */
export function sampleFrame(compiled: CompiledScene, time: number, frame: Frame): void {
  sampleValues(compiled, time, frame);
  const { order, parents, layers, paths, along } = compiled;
  for (const index of order) {
    const path = paths === null ? null : alongPath(paths, frame.values, index, along);
    writeLayerMatrix(frame.values, index, parents[index], frame.matrices, path);
    const { in: from, out } = layers[index].span;
    frame.live[index] = time >= from && time < out ? 1 : 0;
  }
}
