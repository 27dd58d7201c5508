import type { DraftRecord } from '@wexikine/core';
import type { Queries } from '../database';

/** A draft with the version that a change of it must name. */
export interface StandingDraft {
  readonly draft: DraftRecord;
  readonly version: number;
}

interface DraftRow {
  readonly item_id: string;
  readonly content: Omit<DraftRecord, 'inReview'>;
  readonly in_review: boolean;
  readonly version: number;
}

/** The drafts by item; of all items, or of those with the given ids. */
export async function manyDrafts(
  queries: Queries,
  ids: readonly string[] | null,
): Promise<ReadonlyMap<string, StandingDraft>> {
  const rows = await queries.bulk<DraftRow>(
    'select item_id, content, in_review, version from drafts where $1::text[] is null or item_id = any($1)',
    [ids],
  );
  return new Map(
    rows.map(({ item_id, content, in_review, version }) => [
      item_id,
      { draft: { ...content, inReview: in_review } as DraftRecord, version },
    ]),
  );
}

/** Writes an item's draft, a new one or over the one that stands. */
export async function putDraft(
  queries: Queries,
  item: string,
  { inReview, ...content }: DraftRecord,
  version: number,
): Promise<void> {
  await queries.run(
    `insert into drafts (item_id, content, in_review, version) values ($1, $2::jsonb, $3, $4)
     on conflict (item_id) do update
       set content = excluded.content, in_review = excluded.in_review, version = excluded.version`,
    [item, JSON.stringify(content), inReview, version],
  );
}

/** Writes the first drafts of several items. */
export async function putDrafts(
  queries: Queries,
  entries: readonly { readonly item: string; readonly draft: DraftRecord }[],
): Promise<void> {
  if (entries.length === 0) return;
  await queries.run(
    `insert into drafts (item_id, content, in_review, version)
     select item, content::jsonb, in_review, 1 from unnest($1::text[], $2::text[], $3::boolean[]) as row (item, content, in_review)`,
    [
      entries.map(({ item }) => item),
      entries.map(({ draft: { inReview: _inReview, ...content } }) => JSON.stringify(content)),
      entries.map(({ draft }) => draft.inReview),
    ],
  );
}

/** Takes a draft away. */
export async function dropDraft(queries: Queries, item: string): Promise<void> {
  await queries.run('delete from drafts where item_id = $1', [item]);
}
