import {
  draftOf,
  frontOf,
  ITEM_FORMAT,
  type DraftRecord,
  type ItemRecord,
  type LibraryEntry,
  type RevisionRecord,
  type UseCount,
} from '@wexikine/core';
import type { Queries } from '../database';
import { useCounts } from '../scenes';
import { manyDrafts } from './drafts-table';
import { manyItems, type ItemRow } from './items-table';
import { manyRevisions, newestRevisions } from './revisions-table';

function recordFrom(row: ItemRow, revisions: readonly RevisionRecord[], draft: DraftRecord | null): ItemRecord {
  const { id, kind, tags, collection, retired } = row;
  return { format: ITEM_FORMAT, id, kind, tags, collection, retired, revisions, draft } as ItemRecord;
}

/** Items whole, ordered by id; all of them, or those with the given ids. */
export async function manyRecords(queries: Queries, ids: readonly string[] | null): Promise<ItemRecord[]> {
  const items = await manyItems(queries, ids);
  const revisions = await manyRevisions(queries, ids);
  const drafts = await manyDrafts(queries, ids);
  return items.map((row) => recordFrom(row, revisions.get(row.id) ?? [], drafts.get(row.id)?.draft ?? null));
}

const UNUSED: UseCount = { scenes: 0, layers: 0 };

/** Items as the library lists them; all of them, or those with the given ids. */
export async function manyEntries(queries: Queries, ids: readonly string[] | null): Promise<LibraryEntry[]> {
  const items = await manyItems(queries, ids);
  const newest = await newestRevisions(queries, ids);
  const drafts = await manyDrafts(queries, ids);
  const uses = await useCounts(queries);
  return items.map((row): LibraryEntry => {
    const standing = drafts.get(row.id);
    const revision = newest.get(row.id);
    // A record with its newest revision alone: numbers of revisions are then read from that one.
    const record = recordFrom(row, revision ? [revision] : [], standing?.draft ?? null);
    const draft = draftOf(record);
    return {
      item: frontOf(record),
      draft: draft && { ...draft, revision: row.published + 1 },
      draftVersion: standing?.version ?? 0,
      uses: uses.get(row.id) ?? UNUSED,
    };
  });
}
