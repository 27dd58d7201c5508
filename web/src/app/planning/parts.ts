/** Edits, or layers, in one message: so many are handed over in well under a frame. */
const PART = 1_000;

/** A list in parts of bounded length, none where it is empty. */
export function inParts<T>(list: readonly T[]): T[][] {
  return Array.from({ length: Math.ceil(list.length / PART) }, (_, i) => list.slice(i * PART, (i + 1) * PART));
}
