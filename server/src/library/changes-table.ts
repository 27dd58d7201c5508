import type { ItemChange } from '@wexikine/core';
import type { Queries } from '../database';

/** Writes one line into the histories of some items. */
export async function noteChange(
  queries: Queries,
  ids: readonly string[],
  { by, when, what }: ItemChange,
): Promise<void> {
  await queries.run(
    'insert into item_changes (item_id, by_whom, at, what) select id, $2, $3, $4 from unnest($1::text[]) as id',
    [ids, by, when, what],
  );
}

/** The history of an item, newest first. */
export async function manyChanges(queries: Queries, item: string): Promise<ItemChange[]> {
  const rows = await queries.many<{ by_whom: string; at: Date; what: string }>(
    'select by_whom, at, what from item_changes where item_id = $1 order by id desc limit 500',
    [item],
  );
  return rows.map(({ by_whom, at, what }) => ({ by: by_whom, when: at.toISOString(), what }));
}

/** Number of the last change of any item; while it stays, the library stands as it did. */
export async function lastChange(queries: Queries): Promise<number> {
  const row = await queries.maybeOne<{ last: number }>('select coalesce(max(id), 0)::int as last from item_changes');
  return row?.last ?? 0;
}
