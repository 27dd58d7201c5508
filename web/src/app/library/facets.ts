import type { ChannelFamily, ItemKind, ItemState, Phase } from '@wexikine/core';
import { ITEM_KINDS, ITEM_STATES, PHASES } from '@wexikine/core';
import type { LibraryRow } from './rows';

/** Items of one's own choosing, kept in this browser. */
export type Mine = 'favourites' | 'recent';

/** What the library is narrowed down to; null stands for everything. */
export interface Facets {
  readonly kind: ItemKind | null;
  readonly phase: Phase | null;
  readonly family: ChannelFamily | null;
  /** Without a state retired items are left out. */
  readonly state: ItemState | null;
  readonly collection: string | null;
  readonly tag: string | null;
  readonly mine: Mine | null;
}

/** Nothing is narrowed down. */
export const NO_FACETS: Facets = {
  kind: null,
  phase: null,
  family: null,
  state: null,
  collection: null,
  tag: null,
  mine: null,
};

/** What the library can be narrowed down by. */
export type FacetName = keyof Facets;

/** A value of a facet, and how many items have it. */
export interface FacetCount {
  readonly value: string;
  readonly count: number;
}

/** What is one's own: ids of favourites, and of the items that were opened last, newest first. */
export interface Personal {
  readonly favourites: readonly string[];
  readonly recent: readonly string[];
}

/** The values that a row has for a facet. */
function valuesOf(row: LibraryRow, name: FacetName, personal: Personal): readonly string[] {
  switch (name) {
    case 'kind':
      return [row.kind];
    case 'phase':
      return row.phase === null ? [] : [row.phase];
    case 'family':
      return row.families;
    case 'state':
      return row.states;
    case 'collection':
      return row.item.collection === null ? [] : [row.item.collection];
    case 'tag':
      return row.item.tags;
    case 'mine':
      return (['favourites', 'recent'] as const).filter((mine) => personal[mine].includes(row.id));
  }
}

const NAMES = Object.keys(NO_FACETS) as FacetName[];

function fits(row: LibraryRow, name: FacetName, facets: Facets, personal: Personal): boolean {
  const wanted = facets[name];
  if (wanted === null) return name !== 'state' || row.item.state !== 'retired';
  return valuesOf(row, name, personal).includes(wanted);
}

/** Rows that every facet lets through. */
export function narrow(rows: readonly LibraryRow[], facets: Facets, personal: Personal): LibraryRow[] {
  return rows.filter((row) => NAMES.every((name) => fits(row, name, facets, personal)));
}

const KNOWN: Partial<Record<FacetName, readonly string[]>> = {
  kind: ITEM_KINDS,
  phase: PHASES,
  state: ITEM_STATES,
  mine: ['favourites', 'recent'],
};

const collator = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });

/**
 * How many rows a click on each value of each facet would show, given what the other facets let through. Values that
 * nothing has are left out but for kinds, phases and states, which have their order.
 */
export function countFacets(
  rows: readonly LibraryRow[],
  facets: Facets,
  personal: Personal,
): Readonly<Record<FacetName, readonly FacetCount[]>> {
  const counts = new Map(NAMES.map((name) => [name, new Map<string, number>()]));
  for (const row of rows) {
    const failing = NAMES.filter((name) => !fits(row, name, facets, personal));
    for (const name of NAMES) {
      if (failing.some((other) => other !== name)) continue;
      const own = counts.get(name) as Map<string, number>;
      for (const value of valuesOf(row, name, personal)) own.set(value, (own.get(value) ?? 0) + 1);
    }
  }
  const listed = NAMES.map((name) => {
    const own = counts.get(name) as Map<string, number>;
    const values =
      KNOWN[name] ?? [...new Set(rows.flatMap((row) => valuesOf(row, name, personal)))].sort(collator.compare);
    return [name, values.map((value) => ({ value, count: own.get(value) ?? 0 }))] as const;
  });
  return Object.fromEntries(listed) as Record<FacetName, FacetCount[]>;
}
