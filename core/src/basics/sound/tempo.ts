import { LOOKS_A_SECOND } from './onsets';

const SLOWEST = 40;
const FASTEST = 240;
/** The tempo that people tap most, beats a minute, and how far they stray from it, octaves. */
const USUAL = 120;
const STRAY = 0.9;

/**
 * Looks from one beat to the next: where the onsets agree best with themselves moved on, weighed by what people would tap.
 * Not a whole number. Null where nothing repeats. Source: D. Ellis, Beat Tracking by Dynamic Programming (2007), section 3.2.
 */
export function beatPeriod(onsets: Float64Array): number | null {
  const [least, most] = [FASTEST, SLOWEST].map((tempo) => Math.round((60 * LOOKS_A_SECOND) / tempo));
  const agreement = (lag: number): number => {
    let sum = 0;
    for (let i = lag; i < onsets.length; i++) sum += onsets[i] * onsets[i - lag];
    return sum / onsets.length;
  };
  const weighed = (lag: number): number => {
    const octaves = Math.log2((60 * LOOKS_A_SECOND) / lag / USUAL);
    return Math.exp(-0.5 * (octaves / STRAY) ** 2) * agreement(lag);
  };
  let [best, period] = [0, 0];
  for (let lag = least; lag <= Math.min(most, onsets.length - 1); lag++) {
    const found = weighed(lag);
    if (found > best) [best, period] = [found, lag];
  }
  if (period === 0) return null;
  return sharpened(agreement, period);
}

/** Multiples of the period that the sound is long enough for make it exact: each lag errs by half a look at most. */
function sharpened(agreement: (lag: number) => number, period: number): number {
  let exact: number = period;
  for (const times of [2, 4, 8, 16]) {
    const around = Math.round(exact * times);
    const lags = [-3, -2, -1, 0, 1, 2, 3].map((by) => around + by);
    const found = lags.map(agreement);
    const best = found.indexOf(Math.max(...found));
    if (found[best] <= 0 || best === 0 || best === lags.length - 1) break;
    // The top of the parabola through the best and its neighbours.
    const [before, top, after] = [found[best - 1], found[best], found[best + 1]];
    const bend = before - 2 * top + after;
    exact = (lags[best] + (bend < 0 ? (before - after) / (2 * bend) : 0)) / times;
  }
  return exact;
}
