import type { LayerValues } from '../operation';
import type { Solved } from '../sentence';

/**
 * Start, gap, length and finish as they came out in a plan; null for a gap or a length that differs. In one go: it is asked
 * at each change of a field, too seldom to be compiled.
 */
export function solvedIn(layers: readonly LayerValues[]): Solved {
  if (layers.length === 0) return { start: null, gap: null, length: null, finish: null };
  let [start, finish, last] = [Infinity, -Infinity, 0];
  let length: number | null = layers[0].lasts;
  for (const { place, starts, lasts } of layers) {
    if (starts < start) start = starts;
    if (starts + lasts > finish) finish = starts + lasts;
    if (lasts !== length) length = null;
    if (place > last) last = place;
  }
  // As long as it will be from the start: one that grows from its end is kept as a table of hashes.
  const first = new Float64Array(last + 1).fill(Infinity);
  for (const { place, starts } of layers) if (starts < first[place]) first[place] = starts;
  let gap: number | null = last > 0 ? first[1] - first[0] : null;
  for (let place = 2; place <= last && gap !== null; place++) {
    if (first[place] - first[place - 1] !== gap) gap = null;
  }
  return { start, gap, length, finish };
}
