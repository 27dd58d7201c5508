import { channelOf, PHASES, presetChannels, type ChannelFamily, type LibraryItem, type Phase } from '@wexikine/core';

/** What the library is narrowed down to; null stands for everything. */
export interface Facets {
  readonly phase: Phase | null;
  readonly family: ChannelFamily | null;
}

export interface FacetCount<T> {
  readonly value: T;
  readonly count: number;
}

/** Families of channels that a preset moves, each once. */
export function familiesOf(item: LibraryItem): ChannelFamily[] {
  return [...new Set(presetChannels(item.body).map((id) => channelOf(id).family))];
}

export function matchesFacets(item: LibraryItem, { phase, family }: Facets): boolean {
  return (phase === null || item.body.phase === phase) && (family === null || familiesOf(item).includes(family));
}

/** How many items each phase has among those that the other facet lets through. */
export function countPhases(items: readonly LibraryItem[], { family }: Facets): FacetCount<Phase>[] {
  const open = items.filter((item) => matchesFacets(item, { phase: null, family }));
  return PHASES.map((value) => ({ value, count: open.filter(({ body }) => body.phase === value).length }));
}

/** How many items each family of channels has, in the order of the channels. */
export function countFamilies(items: readonly LibraryItem[], { phase }: Facets): FacetCount<ChannelFamily>[] {
  const open = items.filter((item) => matchesFacets(item, { phase, family: null }));
  const families = [...new Set(items.flatMap(familiesOf))];
  return families.map((value) => ({ value, count: open.filter((item) => familiesOf(item).includes(value)).length }));
}
