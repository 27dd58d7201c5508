import { BEZIER_COLUMNS } from './bezier-columns';

/**
 * The segment that each track is in, as columns over all tracks. Playing stays in a segment for many frames, so that most
 * of what a frame needs stands here already, in the order in which it is read.
 */
export interface Present {
  /** The segment holds the times from `begins` until before `ends`. */
  readonly begins: Float64Array;
  readonly ends: Float64Array;
  /** The share of its time is (time − zero) · inverse. */
  readonly zero: Float64Array;
  readonly inverse: Float64Array;
  /** Where the starting points of its time curve stand. */
  readonly starts: Int32Array;
  /** Its key, counted in numbers; what stays as it is has none: −1. */
  readonly key: Int32Array;
  /** See `BezierColumn`. What stands still and what goes straight is written as a curve, too. */
  readonly columns: { readonly values: Float64Array; readonly stride: number };
  readonly made: Float64Array;
}

/** Room for so many tracks, none of them in a segment yet. */
export function createPresent(count: number): Present {
  const numbers = (): Float64Array => new Float64Array(count);
  return {
    begins: numbers().fill(Infinity),
    ends: numbers(),
    zero: numbers(),
    inverse: numbers(),
    starts: new Int32Array(count),
    key: new Int32Array(count),
    columns: { values: new Float64Array(count * BEZIER_COLUMNS), stride: count },
    made: numbers(),
  };
}
