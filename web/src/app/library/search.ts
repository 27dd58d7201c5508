import { houseText, presetChannels, rigChannels, type LibraryItem } from '@wexikine/core';
import MiniSearch from 'minisearch';

/** Longer words may have one wrong letter for every five; short ones must be right. */
function fuzziness(term: string): number | false {
  return term.length > 3 ? 0.2 : false;
}

const KIND_WORDS = {
  preset: 'preset',
  rig: 'rig',
  look: 'look',
  palette: 'palette',
  curve: 'curve easing',
  house: 'house value',
  recipe: 'recipe run',
} as const;

function beginsWith(name: string, letter: string): boolean {
  return name
    .toLowerCase()
    .split(/\s+/)
    .some((word) => word.startsWith(letter));
}

/** What is moved or held, for searching: channels of a preset, the value of a house value. */
function contentsOf(item: LibraryItem): string {
  if (item.kind === 'preset') return [item.body.phase, ...presetChannels(item.body)].join(' ');
  if (item.kind === 'rig') return rigChannels(item.body).join(' ');
  if (item.kind === 'recipe') return item.body.operation;
  if (item.kind === 'look') return item.body.parts.join(' ');
  if (item.kind === 'palette') return item.body.colours.map(({ name }) => name).join(' ');
  return item.kind === 'house' ? `${item.body.type} ${houseText(item.body)}` : '';
}

/**
 * Search over names, tags, notes, phases and channels, with room for typing errors; the best match first.
 * An empty query gives all items in their own order.
 */
export function createSearch<T extends LibraryItem>(items: readonly T[]): (query: string) => readonly T[] {
  const byId = new Map(items.map((item) => [item.id, item]));
  const index = new MiniSearch({
    fields: ['name', 'tags', 'note', 'contents', 'kind', 'collection'],
    searchOptions: { boost: { name: 3, tags: 2 }, prefix: true, fuzzy: fuzziness, combineWith: 'AND' },
  });
  index.addAll(
    items.map((item) => ({
      id: item.id,
      name: item.name,
      tags: item.tags.join(' '),
      note: item.note,
      contents: contentsOf(item),
      kind: KIND_WORDS[item.kind],
      collection: item.collection ?? '',
    })),
  );
  return (query) => {
    const wanted = query.trim().toLowerCase();
    if (wanted === '') return items;
    // A single letter is in every text; it stands for names of which a word begins with it.
    if (wanted.length === 1) return items.filter(({ name }) => beginsWith(name, wanted));
    return index.search(query).flatMap(({ id }) => byId.get(id as string) ?? []);
  };
}
