import { CHANNEL_COUNT } from '../../basics/channel';
import { writeLayerMatrix } from '../../basics/transform';
import { playClips } from './clips';
import { alongPath } from './paths';
import { KEY_STRIDE, KeyField, KINDS, type CompiledScene } from './compile';
import { SegmentKind } from './segment';
import { CURVE_STRIDE, FIRST_START, INTERVALS, solveFrom } from './time-curve';

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
  next: NEXT,
  value: VALUE,
  line: LINE,
  square: SQUARE,
  cubic: CUBIC,
  inverse: INVERSE,
  code: CODE,
} = KeyField;

/** Key number whose segment holds the time; `from − 1` before the first key. */
function searchKey(keys: Float64Array, from: number, end: number, time: number): number {
  let low = from - 1;
  let high = end - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (keys[middle * KEY_STRIDE + TIME] <= time) low = middle;
    else high = middle - 1;
  }
  return low;
}

/** Curve parameters are solved to this in the time's share. */
const CLOSE = 1e-10;

/** Writes all channel values of a time, with rigs, into `frame.values`. Allocates nothing. */
export function sampleValues(compiled: CompiledScene, time: number, frame: Frame): void {
  sampleKeys(compiled, time, frame);
  compiled.rigs?.drive(time, frame.values);
}

/**
 * Writes what the keys alone give into `frame.values`. Allocates nothing. One loop does all of it, with everything
 * that it reads at hand: a call for each track would cost as much as the track.
 */
export function sampleKeys(compiled: CompiledScene, time: number, frame: Frame): void {
  const { target, keys, first, cursor, curves, progress } = compiled;
  const { numbers, starts } = curves;
  const { values } = frame;
  values.set(compiled.rest);
  if (compiled.clips) playClips(compiled.clips, time, values);
  const tracks = target.length;
  let end = first[0];
  for (let track = 0; track < tracks; track++) {
    const from = end;
    end = first[track + 1];
    let k = cursor[track];
    let o = k * KEY_STRIDE;
    // Mostly the segment of the last time, or the next one.
    if (!(keys[o + TIME] <= time && time < keys[o + NEXT])) {
      k = searchKey(keys, from, end, time);
      if (k < from) {
        values[target[track]] = keys[from * KEY_STRIDE + VALUE];
        continue;
      }
      cursor[track] = k;
      o = k * KEY_STRIDE;
    }
    const value = keys[o + VALUE];
    const code = keys[o + CODE] | 0;
    const kind = code % KINDS;
    if (kind === SegmentKind.hold) {
      values[target[track]] = value;
      continue;
    }
    const elapsed = time - keys[o + TIME];
    const share = elapsed * keys[o + INVERSE];
    if (kind === SegmentKind.bezier) {
      const c = ((code / KINDS) | 0) * CURVE_STRIDE;
      const cubic = numbers[c];
      const square = numbers[c + 1];
      const line = numbers[c + 2];
      const at = share * INTERVALS;
      const step = at | 0;
      const cell = c * 2 + FIRST_START + step;
      const low = starts[cell];
      let u = low + (starts[cell + 1] - low) * (at - step);
      // Two of Halley's third-order steps are mostly enough; both are taken before anything is compared, so that the
      // processor need not guess.
      let before = ((cubic * u + square) * u + line) * u - share;
      let slope = (3 * cubic * u + 2 * square) * u + line;
      u -= (before * slope) / (slope * slope - before * (3 * cubic * u + square));
      before = ((cubic * u + square) * u + line) * u - share;
      slope = (3 * cubic * u + 2 * square) * u + line;
      u -= (before * slope) / (slope * slope - before * (3 * cubic * u + square));
      const miss = ((cubic * u + square) * u + line) * u - share;
      if (!(miss <= CLOSE && miss >= -CLOSE)) u = solveFrom(low, cubic, square, line, share);
      values[target[track]] = value + ((keys[o + CUBIC] * u + keys[o + SQUARE]) * u + keys[o + LINE]) * u;
      continue;
    }
    if (kind === SegmentKind.linear) {
      values[target[track]] = value + keys[o + LINE] * share;
      continue;
    }
    const way = keys[o + KEY_STRIDE + VALUE] - value;
    values[target[track]] = value + way * progress[(code / KINDS) | 0](elapsed, keys[o + NEXT] - keys[o + TIME]);
  }
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
