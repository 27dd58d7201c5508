import type { Finding } from '../finding';

/** Layers by what was noted of them, row by row: each note once, with all its layers. */
export function groupNotes(
  notes: readonly (readonly string[])[],
  layerOf: (row: number) => string,
): [string, string[]][] {
  const groups = new Map<string, string[]>();
  notes.forEach((own, row) => {
    for (const note of own) {
      const layers = groups.get(note) ?? [];
      layers.push(layerOf(row));
      groups.set(note, layers);
    }
  });
  return [...groups];
}

/** Findings of parameters that hard limits held back, from their names by row. */
export function limitedFindings(
  limited: readonly (readonly string[])[],
  layerOf: (row: number) => string,
): Extract<Finding, { code: 'limited' }>[] {
  return groupNotes(limited, layerOf).map(([parameter, layers]) => ({ code: 'limited', parameter, layers }));
}
