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
  /** The number of its key. */
  readonly key: Int32Array;
  /** See `BezierColumn`. What stands still and what goes straight is written as a curve, too. */
  readonly columns: { readonly values: Float64Array; readonly stride: number };
  readonly made: Float64Array;
  /** Where the segments that are no curves stand in the table of segments, by the numbers of their tracks. */
  readonly progressing: Map<number, number>;
}

/** Numbers of a track besides its columns, and its places among others. */
const [NUMBERS, PLACES] = [5, 2];
const [NUMBER, PLACE] = [Float64Array.BYTES_PER_ELEMENT, Int32Array.BYTES_PER_ELEMENT];

/** Room for so many tracks, in one piece; none of them is in a segment yet, since a segment from 0 until 0 holds no time. */
export function createPresent(count: number): Present {
  const places = (BEZIER_COLUMNS + NUMBERS) * count * NUMBER;
  const room = new ArrayBuffer(places + PLACES * count * PLACE);
  const numbers = (n: number): Float64Array => new Float64Array(room, (BEZIER_COLUMNS + n) * count * NUMBER, count);
  return {
    begins: numbers(0),
    ends: numbers(1),
    zero: numbers(2),
    inverse: numbers(3),
    made: numbers(4),
    starts: new Int32Array(room, places, count),
    key: new Int32Array(room, places + count * PLACE, count),
    columns: { values: new Float64Array(room, 0, BEZIER_COLUMNS * count), stride: count },
    progressing: new Map(),
  };
}
