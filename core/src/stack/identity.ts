import type { Key } from '../scene';

/** Names by which keys of one channel are known again: the run's slot, or for others the time. Parallel to the keys. */
export function keyIdentities(keys: readonly Key[]): string[] {
  const seen = new Map<string, number>();
  return keys.map(({ at, by }) => {
    if (!by) return `@${at}`;
    const name = `${by.run}/${by.slot}`;
    const count = seen.get(name) ?? 0;
    seen.set(name, count + 1);
    return `${name}#${count}`;
  });
}
