import { presetChannels, type LibraryItem } from '@wexikine/core';
import MiniSearch from 'minisearch';

/** Longer words may have one wrong letter for every five. */
const FUZZINESS = 0.2;

/**
 * Search over names, tags, notes, phases and channels, with room for typing errors; the best match first.
 * An empty query gives all items in their own order.
 */
export function createSearch(items: readonly LibraryItem[]): (query: string) => readonly LibraryItem[] {
  const byId = new Map(items.map((item) => [item.id, item]));
  const index = new MiniSearch({
    fields: ['name', 'tags', 'note', 'phase', 'channels'],
    searchOptions: { boost: { name: 3, tags: 2 }, prefix: true, fuzzy: FUZZINESS, combineWith: 'AND' },
  });
  index.addAll(
    items.map((item) => ({
      id: item.id,
      name: item.name,
      tags: item.tags.join(' '),
      note: item.note,
      phase: item.body.phase,
      channels: presetChannels(item.body).join(' '),
    })),
  );
  return (query) => {
    if (query.trim() === '') return items;
    return index.search(query).flatMap(({ id }) => byId.get(id as string) ?? []);
  };
}
