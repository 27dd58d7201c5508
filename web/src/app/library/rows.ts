import {
  channelOf,
  presetChannels,
  rigChannels,
  type ChannelFamily,
  type ItemKind,
  type ItemState,
  type LibraryEntry,
  type LibraryItem,
  type Phase,
} from '@wexikine/core';

/** One item of the library with what it is searched, sorted and narrowed down by. */
export interface LibraryRow {
  readonly id: string;
  readonly entry: LibraryEntry;
  /** What its tile shows: the newest published revision, or the draft where nothing is published. */
  readonly item: LibraryItem;
  readonly kind: ItemKind;
  readonly phase: Phase | null;
  readonly families: readonly ChannelFamily[];
  /** A published item with a draft stands in both states. */
  readonly states: readonly ItemState[];
}

/** Families of channels that an item moves, each once; a curve and a house value move none. */
export function familiesOf(item: LibraryItem): ChannelFamily[] {
  if (item.kind !== 'preset' && item.kind !== 'rig') return [];
  const channels = item.kind === 'rig' ? rigChannels(item.body) : presetChannels(item.body);
  return [...new Set(channels.map((id) => channelOf(id).family))];
}

/** Prepares the library's entries. */
export function rowsOf(entries: readonly LibraryEntry[]): LibraryRow[] {
  return entries.map((entry) => {
    const { item, draft } = entry;
    const phase = item.kind === 'preset' ? item.body.phase : null;
    const states = draft && draft.state !== item.state ? [item.state, draft.state] : [item.state];
    return { id: item.id, entry, item, kind: item.kind, phase, families: familiesOf(item), states };
  });
}

/** How the library can be sorted. */
export const SORTS = ['use', 'name', 'newest'] as const;
/** How the library is sorted. */
export type Sort = (typeof SORTS)[number];
/** How sortings are called. */
export const SORT_WORDS: Readonly<Record<Sort, string>> = {
  use: 'most used first',
  name: 'by name',
  newest: 'newest first',
};

const collator = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });

function byName(a: LibraryRow, b: LibraryRow): number {
  return collator.compare(a.item.name, b.item.name) || (a.id < b.id ? -1 : 1);
}

const KIND_ORDER: Readonly<Record<ItemKind, number>> = {
  preset: 0,
  rig: 1,
  look: 2,
  palette: 3,
  curve: 4,
  house: 5,
  recipe: 6,
};

/** Rows in order; equal ones by kind and name. */
export function sortRows(rows: readonly LibraryRow[], sort: Sort): LibraryRow[] {
  const then = (a: LibraryRow, b: LibraryRow): number => KIND_ORDER[a.kind] - KIND_ORDER[b.kind] || byName(a, b);
  switch (sort) {
    case 'use':
      return [...rows].sort((a, b) => b.entry.uses.layers - a.entry.uses.layers || then(a, b));
    case 'name':
      return [...rows].sort(byName);
    case 'newest':
      return [...rows].sort((a, b) => (b.item.when < a.item.when ? -1 : b.item.when > a.item.when ? 1 : then(a, b)));
  }
}
