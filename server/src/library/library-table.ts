import type { LibraryItem } from '@wexikine/core';
import type { Queries } from '../database';

/** The newest revision of every item. */
export async function manyItems(queries: Queries): Promise<LibraryItem[]> {
  const rows = await queries.many<{ content: LibraryItem }>(
    `select revisions.content from items
     join revisions on revisions.item_id = items.id and revisions.revision = items.current_revision
     order by revisions.content->>'name'`,
  );
  return rows.map(({ content }) => content);
}

/** Every revision of an item, the newest first. */
export async function manyRevisions(queries: Queries, id: string): Promise<LibraryItem[]> {
  const rows = await queries.many<{ content: LibraryItem }>(
    'select content from revisions where item_id = $1 order by revision desc',
    [id],
  );
  return rows.map(({ content }) => content);
}

/** Adds an item with one revision. */
export async function insertItem(queries: Queries, item: LibraryItem): Promise<void> {
  await queries.run('insert into items (id, kind, state, current_revision, created_at) values ($1, $2, $3, $4, $5)', [
    item.id,
    item.kind,
    item.state,
    item.revision,
    item.when,
  ]);
  await queries.run('insert into revisions (item_id, revision, content, published_at) values ($1, $2, $3::jsonb, $4)', [
    item.id,
    item.revision,
    JSON.stringify(item),
    item.when,
  ]);
}

export async function countItems(queries: Queries): Promise<number> {
  const row = await queries.maybeOne<{ count: number }>('select count(*)::int as count from items');
  return row?.count ?? 0;
}
