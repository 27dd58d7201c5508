import { presetSchema, type Lookup, type Preset, type UsedItem } from '../../formulas/preset';
import { curveSchema, houseSchema, houseText } from './house';
import { keptLookSchema, type KeptLook } from './look';
import { paletteSchema, type Palette } from './palette';
import type { Shelf } from './shelf';

/** What a run keeps of a house value or curve that it used. */
export interface Kept {
  readonly id: string;
  readonly revision: number;
  readonly kind?: 'preset' | 'curve' | 'house' | 'look' | 'palette';
  readonly body?: Readonly<Record<string, unknown>>;
}

/** What a run keeps of what its preset took from the library: not only which revision, but what it was. */
export function keepUsed(shelf: Shelf, uses: readonly UsedItem[]): Kept[] {
  return uses.map(({ id, revision }) => {
    const item = shelf.items.get(id);
    if (item?.kind === 'curve') return { id, revision, kind: 'curve', body: { ...item.body } };
    const house = shelf.house(id);
    return house ? { id, revision, kind: 'house', body: { ...house } } : { id, revision };
  });
}

function lookupOf({ kind, body, revision }: Kept): {
  readonly curve: ReturnType<Lookup['curve']>;
  readonly houseText: ReturnType<Lookup['houseText']>;
} | null {
  if (kind === 'curve') {
    const read = curveSchema.safeParse(body);
    return read.success ? { curve: { easing: read.data.easing, revision }, houseText: null } : null;
  }
  const read = kind === 'house' ? houseSchema.safeParse(body) : null;
  if (!read?.success) return null;
  const value = read.data;
  const curve = value.type === 'curve' ? { easing: value.value, revision } : null;
  return { curve, houseText: { text: houseText(value), revision } };
}

const shelves = new WeakMap<readonly Kept[], WeakMap<Shelf, Shelf>>();

/** A shelf on which what a run used is as it was then; the same one for the same run and shelf, so that presets compile once. */
export function shelfAsUsed(shelf: Shelf, uses: readonly Kept[] | undefined): Shelf {
  if (!uses || uses.length === 0) return shelf;
  const ofShelf = shelves.get(uses) ?? new WeakMap<Shelf, Shelf>();
  shelves.set(uses, ofShelf);
  const before = ofShelf.get(shelf);
  if (before) return before;
  const known = new Map(uses.map((kept) => [kept.id, lookupOf(kept)]));
  const then: Shelf = {
    ...shelf,
    curve: (id) => known.get(id)?.curve ?? shelf.curve(id),
    houseText: (id) => known.get(id)?.houseText ?? shelf.houseText(id),
  };
  ofShelf.set(shelf, then);
  return then;
}

const presets = new WeakMap<object, Preset | null>();

/** The preset that a run kept; null where it cannot be read. The same one for the same record. */
export function presetAsUsed(body: Readonly<Record<string, unknown>>): Preset | null {
  const before = presets.get(body);
  if (before !== undefined) return before;
  const read = presetSchema.safeParse(body);
  const preset = read.success ? read.data : null;
  presets.set(body, preset);
  return preset;
}

/** An item that a run takes from the library: what it is, and what the run keeps of it. */
export interface Taken<B> {
  readonly body: B;
  readonly kept: Kept;
}

/**
 * A look or a palette as a run takes it: in the revision that is asked for, where the run kept it or it is the newest; without
 * one the newest; what the run kept where the library has it no more. `other-revision` where the library has it in another
 * one only, null where it is nowhere.
 */
export function takeItem<K extends 'look' | 'palette'>(
  shelf: Shelf,
  kind: K,
  { id, revision }: { readonly id: string; readonly revision?: number },
  uses: readonly Kept[] = [],
): Taken<K extends 'look' ? KeptLook : Palette> | 'other-revision' | null {
  type Body = K extends 'look' ? KeptLook : Palette;
  const before = uses.find((one) => one.id === id && one.kind === kind);
  const item = shelf.items.get(id);
  const isOfThen = before !== undefined && (revision === before.revision || item?.kind !== kind);
  if (isOfThen) {
    const read = (kind === 'look' ? keptLookSchema : paletteSchema).safeParse(before.body);
    if (read.success) return { body: read.data as Body, kept: before };
  }
  if (item?.kind !== kind) return null;
  if (revision !== undefined && revision !== item.revision) return 'other-revision';
  return { body: item.body as Body, kept: { id, revision: item.revision, kind, body: { ...item.body } } };
}
