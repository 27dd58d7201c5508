import type { ItemKind, ItemRecord } from '@wexikine/core';
import type { Queries } from '../database';

/** What holds for all revisions of an item. `published` counts its published revisions. */
export interface ItemRow {
  readonly id: string;
  readonly kind: ItemKind;
  readonly tags: string[];
  readonly collection: string | null;
  readonly retired: boolean;
  readonly published: number;
}

const COLUMNS = 'id, kind, tags, collection, retired, current_revision as published';

/** All items, or those with the given ids. */
export function manyItems(queries: Queries, ids: readonly string[] | null): Promise<ItemRow[]> {
  return queries.bulk<ItemRow>(`select ${COLUMNS} from items where $1::text[] is null or id = any($1) order by id`, [
    ids,
  ]);
}

/** An item, held against other transactions until this one ends. */
export function maybeItemForUpdate(queries: Queries, id: string): Promise<ItemRow | null> {
  return queries.maybeOne<ItemRow>(`select ${COLUMNS} from items where id = $1 for update`, [id]);
}

/** How many items there are, retired ones too. */
export async function countItems(queries: Queries): Promise<number> {
  const row = await queries.maybeOne<{ count: number }>('select count(*)::int as count from items');
  return row?.count ?? 0;
}

type Labels = Pick<ItemRow, 'tags' | 'collection' | 'retired'>;

/** Adds items or sets the labels and the newest revision of those that are there. */
export async function putItems(queries: Queries, records: readonly ItemRecord[], when: string): Promise<void> {
  await queries.run(
    `insert into items (id, kind, tags, collection, retired, current_revision, created_at)
     select id, kind, tags, collection, retired, published, $2
     from jsonb_to_recordset($1::jsonb)
       as rows (id text, kind text, tags jsonb, collection text, retired boolean, published integer)
     on conflict (id) do update set tags = excluded.tags, collection = excluded.collection,
       retired = excluded.retired, current_revision = excluded.current_revision`,
    [
      JSON.stringify(
        records.map(({ id, kind, tags, collection, retired, revisions }) => ({
          id,
          kind,
          tags,
          collection,
          retired,
          published: revisions.length,
        })),
      ),
      when,
    ],
  );
}

/** Sets the tags and the collection of an item. */
export async function setLabels(queries: Queries, id: string, { tags, collection, retired }: Labels): Promise<void> {
  await queries.run('update items set tags = $2::jsonb, collection = $3, retired = $4 where id = $1', [
    id,
    JSON.stringify(tags),
    collection,
    retired,
  ]);
}

/** Says which revision of an item is the newest. */
export async function setPublished(queries: Queries, id: string, revision: number): Promise<void> {
  await queries.run('update items set current_revision = $2 where id = $1', [id, revision]);
}

/** Removes an item of which nothing was ever published. */
export async function dropItem(queries: Queries, id: string): Promise<void> {
  await queries.run('delete from items where id = $1 and current_revision = 0', [id]);
}
