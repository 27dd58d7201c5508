import { EXPONENTIAL_SERIES, LN2_HIGH, LN2_LOW, seriesOf } from './series';

/** Beyond these the result is past the greatest number, or nothing. */
const [LEAST_POWER, MOST_POWER] = [-746, 710];

/** e to a power, the same on every machine; 0 and infinity at the ends. Source: fdlibm, e_exp.c. */
export function exponential(power: number): number {
  if (Number.isNaN(power)) return NaN;
  const x = Math.min(MOST_POWER, Math.max(LEAST_POWER, power));
  const times = Math.round(x / Math.LN2);
  const [high, low] = [x - times * LN2_HIGH, times * LN2_LOW];
  const rest = high - low;
  const square = rest * rest;
  const c = rest - square * seriesOf(square, EXPONENTIAL_SERIES);
  const value = 1 - (low - (rest * c) / (2 - c) - high);
  // In two halves, since 2 to a single power cannot be past the ends; whole powers of 2 are exact.
  const half = Math.floor(times / 2);
  return value * 2 ** half * 2 ** (times - half);
}
