import { noiseOfSlopes, randomAt } from '../random';

/** One layer of a sway: how often (Hz, > 0), how much at most (the channel's unit), and its seed. */
export interface SwayPart {
  readonly rate: number;
  readonly amount: number;
  readonly seed: number;
}

/** How long a sway lasts (seconds), whether its end meets its beginning, and over how long it grows and dies away. */
export interface SwayFrame {
  readonly lasts: number;
  readonly isLoop: boolean;
  readonly fade: number;
}

/** Least slope of a cell: below it whole stretches would all but stand still. */
const LEAST_SLOPE = 0.6;

/** A slope of either sign, never near 0, so that a sway comes close to its amount again and again. */
function slopeOf(seed: number, cell: number): number {
  const drawn = randomAt(seed, cell) * 2 - 1;
  return Math.sign(drawn || 1) * (LEAST_SLOPE + (1 - LEAST_SLOPE) * Math.abs(drawn));
}

function around(cell: number, cells: number): number {
  return ((cell % cells) + cells) % cells;
}

/** Noise is 0 at whole numbers: sways set out between two of them. */
const SET_OUT = 0.5;

function grown(share: number): number {
  const u = Math.min(1, Math.max(0, share));
  return u * u * (3 - 2 * u);
}

/**
 * How far a sway is from rest, by the seconds since its beginning: seeded gradient noise, one octave a part, never more
 * than the sum of the amounts. A loop meets its beginning in value and slope: its rates are brought to whole numbers of
 * cells in its length.
 */
export function createSway(
  parts: readonly SwayPart[],
  { lasts, isLoop, fade }: SwayFrame,
): (seconds: number) => number {
  const isClosed = isLoop && lasts > 0;
  const layers = parts.map(({ rate, amount, seed }) => {
    const cells = Math.max(1, Math.round(rate * lasts));
    // A cell is asked for again and again, by every time within it.
    const slopes: number[] = [];
    const slopeAt = (wanted: number): number => {
      const cell = isClosed ? around(wanted, cells) : wanted;
      return (slopes[cell] ??= slopeOf(seed, cell));
    };
    return { amount, cellAt: (seconds: number) => (isClosed ? (seconds / lasts) * cells : seconds * rate), slopeAt };
  });
  return (seconds) => {
    let sum = 0;
    for (const { amount, cellAt, slopeAt } of layers) sum += amount * noiseOfSlopes(cellAt(seconds) + SET_OUT, slopeAt);
    if (!(fade > 0)) return sum;
    return sum * grown(seconds / fade) * grown((lasts - seconds) / fade);
  };
}
