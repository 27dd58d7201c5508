/** True when two values are alike in every part. */
export function isSame(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  const [keysA, keysB] = [Object.keys(a), Object.keys(b)];
  return (
    keysA.length === keysB.length &&
    keysA.every((key) => key in b && isSame((a as Record<string, unknown>)[key], (b as Record<string, unknown>)[key]))
  );
}
