import type { LayerValues } from '../operation';
import type { Solved } from '../sentence';

/** The one value of a list whose values are alike; null where they differ or there is none. */
function same(values: readonly number[]): number | null {
  return values.length > 0 && values.every((value) => value === values[0]) ? values[0] : null;
}

/** Start, gap, length and finish as they came out in a plan. */
export function solvedIn(layers: readonly LayerValues[]): Solved {
  if (layers.length === 0) return { start: null, gap: null, length: null, finish: null };
  const places = 1 + layers.reduce((most, { place }) => Math.max(most, place), 0);
  // As long as it will be from the start: one that grows from its end is kept as a table of hashes.
  const starts = new Array<number>(places).fill(Infinity);
  for (const { place, starts: at } of layers) starts[place] = Math.min(starts[place], at);
  const gaps = starts.slice(1).map((at, i) => at - starts[i]);
  return {
    start: starts.reduce((a, b) => Math.min(a, b), Infinity),
    gap: same(gaps),
    length: same(layers.map(({ lasts }) => lasts)),
    finish: layers.reduce((latest, { starts: at, lasts }) => Math.max(latest, at + lasts), -Infinity),
  };
}
