import { CHANNEL_COUNT } from '../channel';
import { writeLayerMatrix } from '../transform';
import type { CompiledScene } from './compile';
import { cubicValue, SegmentKind, solveTimeCurve } from './segment';

/** Room for one sampled frame of a compiled scene. */
export interface Frame {
  /** CHANNEL_COUNT numbers a layer, in the order of the channels' slots. */
  readonly values: Float64Array;
  /** World matrices: six numbers a layer. */
  readonly matrices: Float64Array;
  /** Opacity with all groups around a layer is left to the painter; this is 1 where the layer's span holds the time. */
  readonly live: Uint8Array;
}

/** Makes room for the frames of a compiled scene; reuse it from frame to frame. */
export function createFrame(compiled: CompiledScene): Frame {
  const count = compiled.layers.length;
  return {
    values: new Float64Array(count * CHANNEL_COUNT),
    matrices: new Float64Array(count * 6),
    live: new Uint8Array(count),
  };
}

/** Key index whose segment holds the time; `first − 1` before the first key. Starts from the memo. */
function findKey(compiled: CompiledScene, track: number, time: number): number {
  const { times, first, cursor } = compiled;
  const [from, end] = [first[track], first[track + 1]];
  let k = cursor[track];
  if (times[k] <= time) {
    if (k + 1 === end || time < times[k + 1]) return k;
    if (k + 2 === end || time < times[k + 2]) return (cursor[track] = k + 1);
  }
  let low = from - 1;
  let high = end - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (times[middle] <= time) low = middle;
    else high = middle - 1;
  }
  k = low;
  if (k >= from) cursor[track] = k;
  return k;
}

function sampleOne(compiled: CompiledScene, track: number, time: number): number {
  const { values, times, first, kinds } = compiled;
  const k = findKey(compiled, track, time);
  if (k < first[track]) return values[first[track]];
  if (k + 1 === first[track + 1]) return values[k];
  const kind = kinds[k];
  if (kind === SegmentKind.hold) return values[k];
  const share = (time - times[k]) * compiled.inverse[k];
  if (kind === SegmentKind.linear) return values[k] + (values[k + 1] - values[k]) * share;
  if (kind === SegmentKind.bezier) {
    const u = solveTimeCurve(compiled.curves[compiled.easing[k]], share);
    return cubicValue(values[k], compiled.control1[k], compiled.control2[k], values[k + 1], u);
  }
  return values[k] + (values[k + 1] - values[k]) * compiled.progress[compiled.easing[k]](share);
}

/** Writes all channel values of a time into `frame.values`. Allocates nothing. */
export function sampleValues(compiled: CompiledScene, time: number, frame: Frame): void {
  const { target } = compiled;
  frame.values.set(compiled.rest);
  for (let track = 0; track < target.length; track++) {
    frame.values[target[track]] = sampleOne(compiled, track, time);
  }
}

/** Writes values, world matrices and which layers are on into `frame`. Allocates nothing. */
export function sampleFrame(compiled: CompiledScene, time: number, frame: Frame): void {
  sampleValues(compiled, time, frame);
  const { order, parents, layers } = compiled;
  for (let i = 0; i < order.length; i++) {
    const index = order[i];
    writeLayerMatrix(frame.values, index, parents[index], frame.matrices);
    const { in: from, out } = layers[index].span;
    frame.live[index] = time >= from && time < out ? 1 : 0;
  }
}
