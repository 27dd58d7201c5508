import type { Key } from '../../scene/layer';

/** A key on its way through the runs of its layer: one that was set by hand has a name too, which nobody else sees. */
export interface NamedKey extends Key {
  readonly id?: string;
}

/** By what a key is known again: the run and the slot that made it; set by hand, its time. */
export function nameOf({ at, by }: Key): string {
  return by ? `${by.run}/${by.slot}` : `@${at}`;
}

/** Parts that joining adds to a slot follow this sign. */
const PART = '~';

/** Where in a preset a key of a run comes from, whatever it was joined with. */
function ownPart(slot: string): string {
  const at = slot.indexOf(PART);
  return at < 0 ? slot : slot.slice(0, at);
}

/** The moment of its preset at which a run made a key, from the key's slot. */
export function momentOfSlot(slot: string): string {
  const own = ownPart(slot);
  return own.slice(own.indexOf('/') + 1);
}

/** The origin of a key that joining adds to a run's keys: it is part of the one that it belongs to. */
export function partOf({ by }: Key, part: string): Key['by'] {
  return by && { run: by.run, slot: `${ownPart(by.slot)}${PART}${part}` };
}

/** Parts of a standing key that was cut by a run's `made` key; the first keeps the name of the whole. */
export function namedParts(parts: readonly Key[], made: Key, side: 'before' | 'after'): Key[] {
  return parts.map((part: NamedKey, i) => {
    if (i === 0) return part;
    const name = `${made.by?.run ?? ''}.${side}${i}`;
    const by = partOf(part, name);
    return {
      ...part,
      ...(by ? { by } : {}),
      ...(part.id === undefined ? {} : { id: `${ownPart(part.id)}${PART}${name}` }),
    };
  });
}
