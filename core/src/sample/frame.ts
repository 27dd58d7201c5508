import { CHANNEL_COUNT } from '../channel';
import { writeLayerMatrix } from '../transform';
import { KEY_STRIDE, KeyField, type CompiledScene } from './compile';
import { SegmentKind } from './segment';
import { solveTimeCurve } from './time-curve';

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

const {
  time: TIME,
  value: VALUE,
  line: LINE,
  square: SQUARE,
  cubic: CUBIC,
  inverse: INVERSE,
  kind: KIND,
  easing: EASING,
} = KeyField;

/** Key number whose segment holds the time; `first − 1` before the first key. Starts from the memo. */
function findKey(compiled: CompiledScene, track: number, time: number): number {
  const { keys, first, cursor } = compiled;
  const [from, end] = [first[track], first[track + 1]];
  const k = cursor[track];
  if (keys[k * KEY_STRIDE + TIME] <= time) {
    if (k + 1 === end || time < keys[(k + 1) * KEY_STRIDE + TIME]) return k;
    if (k + 2 === end || time < keys[(k + 2) * KEY_STRIDE + TIME]) return (cursor[track] = k + 1);
  }
  let low = from - 1;
  let high = end - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (keys[middle * KEY_STRIDE + TIME] <= time) low = middle;
    else high = middle - 1;
  }
  if (low >= from) cursor[track] = low;
  return low;
}

function sampleOne(compiled: CompiledScene, track: number, time: number): number {
  const { keys, first } = compiled;
  const k = findKey(compiled, track, time);
  if (k < first[track]) return keys[first[track] * KEY_STRIDE + VALUE];
  const o = k * KEY_STRIDE;
  const from = keys[o + VALUE];
  if (k + 1 === first[track + 1]) return from;
  const kind = keys[o + KIND] | 0;
  if (kind === SegmentKind.hold) return from;
  const elapsed = time - keys[o + TIME];
  const share = elapsed * keys[o + INVERSE];
  const to = keys[o + KEY_STRIDE + VALUE];
  if (kind === SegmentKind.linear) return from + (to - from) * share;
  if (kind === SegmentKind.bezier) {
    const u = solveTimeCurve(compiled.curves, keys[o + EASING] | 0, share);
    return from + ((keys[o + CUBIC] * u + keys[o + SQUARE]) * u + keys[o + LINE]) * u;
  }
  return (
    from + (to - from) * compiled.progress[keys[o + EASING] | 0](elapsed, keys[o + KEY_STRIDE + TIME] - keys[o + TIME])
  );
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
  for (const index of order) {
    writeLayerMatrix(frame.values, index, parents[index], frame.matrices);
    const { in: from, out } = layers[index].span;
    frame.live[index] = time >= from && time < out ? 1 : 0;
  }
}
