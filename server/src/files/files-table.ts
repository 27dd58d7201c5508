import type { FileFacts, KeptFile } from '@wexikine/core';
import type { Queries } from '../database';

interface Row {
  readonly name: string;
  readonly title: string;
  readonly size: number;
  readonly added_at: Date;
  readonly facts: FileFacts;
}

/** All files, the newest first. */
export async function manyFiles(queries: Queries): Promise<KeptFile[]> {
  const rows = await queries.many<Row>(
    'select name, title, size, added_at, facts from files order by added_at desc, name',
  );
  const uses = await queries.many<KeptFile['uses'][number] & { readonly file: string }>(
    `select file, scene_id as scene, scenes.header ->> 'name' as "sceneName", layers,
       scenes.deleted_at is not null as "isDeleted"
     from file_uses join scenes on scenes.id = scene_id order by "sceneName"`,
  );
  const byFile = new Map<string, KeptFile['uses'][number][]>();
  for (const { file, ...use } of uses) byFile.set(file, [...(byFile.get(file) ?? []), use]);
  return rows.map(({ name, title, size, added_at, facts }) => ({
    name,
    title,
    size,
    facts,
    added: added_at.toISOString(),
    uses: byFile.get(name) ?? [],
  }));
}

/** Bytes of a file; null where it is not kept. */
export async function maybeSize(queries: Queries, name: string): Promise<number | null> {
  return (await queries.maybeOne<{ size: number }>('select size from files where name = $1', [name]))?.size ?? null;
}

/** A part of a file's content: so many bytes from a place on. */
export async function readPart(queries: Queries, name: string, from: number, length: number): Promise<Uint8Array> {
  const row = await queries.maybeOne<{ part: Uint8Array }>(
    'select substring(body from $2 for $3) as part from files where name = $1',
    [name, from + 1, length],
  );
  return row?.part ?? new Uint8Array();
}

/** Keeps a file; one that is kept already stays as it is, and what was not known of it is added. */
export async function putFile(
  queries: Queries,
  file: { readonly name: string; readonly title: string; readonly facts: FileFacts; readonly body: Uint8Array },
  when: string,
): Promise<void> {
  await queries.run(
    `insert into files (name, title, size, added_at, facts, body) values ($1, $2, $3, $4, $5::jsonb, $6)
     on conflict (name) do update set facts = excluded.facts || files.facts`,
    [file.name, file.title, file.body.length, when, JSON.stringify(file.facts), file.body],
  );
}

/** Takes a file away that nothing uses. True when it did. */
export async function dropFile(queries: Queries, name: string): Promise<boolean> {
  const rows = await queries.many(
    'delete from files where name = $1 and not exists (select from file_uses where file = $1) returning name',
    [name],
  );
  return rows.length > 0;
}

/** Notes which files a scene's layers use: a name for each layer that does. */
export async function writeUses(queries: Queries, scene: string, names: readonly string[]): Promise<void> {
  await queries.run('delete from file_uses where scene_id = $1', [scene]);
  if (names.length === 0) return;
  await queries.run(
    `insert into file_uses (scene_id, file, layers)
     select $1, file, count(*)::int from unnest($2::text[]) as file group by file`,
    [scene, [...names]],
  );
}
