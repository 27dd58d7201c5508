import { inPresentWords, type ItemRecord, type RevisionRecord } from '@wexikine/core';
import type { Queries } from '../database';

interface RevisionRow {
  readonly item_id: string;
  readonly revision: number;
  readonly content: Omit<RevisionRecord, 'revision'>;
}

function group(rows: readonly RevisionRow[]): ReadonlyMap<string, RevisionRecord[]> {
  const groups = new Map<string, RevisionRecord[]>();
  for (const { item_id, revision, content } of rows) {
    const entry = { revision, ...content, body: inPresentWords(content.body) } as RevisionRecord;
    const list = groups.get(item_id);
    if (list) list.push(entry);
    else groups.set(item_id, [entry]);
  }
  return groups;
}

/** Every published revision by item, oldest first; of all items, or of those with the given ids. */
export async function manyRevisions(
  queries: Queries,
  ids: readonly string[] | null,
): Promise<ReadonlyMap<string, RevisionRecord[]>> {
  const rows = await queries.bulk<RevisionRow>(
    `select item_id, revision, content from revisions
     where $1::text[] is null or item_id = any($1) order by item_id, revision`,
    [ids],
  );
  return group(rows);
}

/** The newest published revision of each item. */
export async function newestRevisions(
  queries: Queries,
  ids: readonly string[] | null,
): Promise<ReadonlyMap<string, RevisionRecord>> {
  const rows = await queries.bulk<RevisionRow>(
    `select revisions.item_id, revisions.revision, revisions.content from items
     join revisions on revisions.item_id = items.id and revisions.revision = items.current_revision
     where $1::text[] is null or items.id = any($1)`,
    [ids],
  );
  return new Map([...group(rows)].map(([id, [revision]]) => [id, revision]));
}

/** Adds those revisions of the records that are not there yet. Those that are there stay as they are. */
export async function addRevisions(queries: Queries, records: readonly ItemRecord[]): Promise<void> {
  const rows = records.flatMap(({ id, revisions }) =>
    revisions.map(({ revision, ...content }) => ({ item_id: id, revision, content, published_at: content.when })),
  );
  await queries.run(
    `insert into revisions (item_id, revision, content, published_at)
     select item_id, revision, content, published_at
     from jsonb_to_recordset($1::jsonb)
       as rows (item_id text, revision integer, content jsonb, published_at timestamptz)
     on conflict (item_id, revision) do nothing`,
    [JSON.stringify(rows)],
  );
}
