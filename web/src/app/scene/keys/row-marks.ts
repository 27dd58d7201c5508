import type { RunRecord, Ticks } from '@wexikine/core';
import type { KeyRow } from './key-rows';

/** Where the keys of a row come from, in flat arrays by time: a place in the scene's list of runs, or −1 by hand. */
export interface RowMarks {
  readonly times: Float64Array;
  readonly owners: Int16Array;
  /** How many keys stand at each time. */
  readonly counts: Uint16Array;
}

const known = new WeakMap<KeyRow, { readonly runs: readonly RunRecord[]; readonly marks: RowMarks }>();

/** A key by hand among keys of runs is what one looks for, so it is what a moment with both shows. */
export const BY_HAND = -1;

function gather({ layers, channel }: KeyRow, places: ReadonlyMap<string, number>): RowMarks {
  const found = new Map<Ticks, { owner: number; count: number }>();
  const note = (at: Ticks, owner: number): void => {
    const before = found.get(at);
    if (!before) found.set(at, { owner, count: 1 });
    else {
      before.count++;
      before.owner = Math.min(before.owner, owner);
    }
  };
  for (const { tracks } of layers) {
    for (const [id, keys] of Object.entries(tracks)) {
      if (channel !== null && id !== channel) continue;
      for (const { at, by } of keys) {
        note(at, by ? (places.get(by.run) ?? BY_HAND) : BY_HAND);
      }
    }
  }
  const sorted = [...found].sort(([a], [b]) => a - b);
  return {
    times: Float64Array.from(sorted, ([at]) => at),
    owners: Int16Array.from(sorted, ([, { owner }]) => owner),
    counts: Uint16Array.from(sorted, ([, { count }]) => count),
  };
}

/** The marks of a row; worked out once for it and a list of runs. */
export function rowMarks(row: KeyRow, runs: readonly RunRecord[]): RowMarks {
  const before = known.get(row);
  if (before?.runs === runs) return before.marks;
  const places = new Map(runs.map(({ id }, place) => [id, place]));
  const marks = gather(row, places);
  known.set(row, { runs, marks });
  return marks;
}
