import type { Layer } from '@wexikine/core';
import type { Queries } from '../database';
import { deflate, inflate, prepareLayers, readChunk, type OutlineEntry, type PreparedChunk } from '../packing';
import { writeUses } from '../files';
import { insertMany } from './insert-many';
import { writeCurveUses } from './uses';

type Row = readonly [
  string,
  OutlineEntry['name'],
  OutlineEntry['kind'],
  string | null,
  number,
  ...(readonly [] | readonly [files: OutlineEntry['files']] | readonly [OutlineEntry['files'], OutlineEntry['curves']]),
];

/** What a scene's layers are, from back to front; none where there is no such scene. */
export async function readOutline(queries: Queries, scene: string): Promise<OutlineEntry[]> {
  const row = await queries.maybeOne<{ body: Uint8Array }>('select body from outlines where scene_id = $1', [scene]);
  if (!row) return [];
  const rows = JSON.parse(inflate(row.body)) as Row[];
  return rows.map(([id, name, kind, parent, chunk, files = [], curves = []]) => {
    return { id, name, kind, parent, chunk, files, curves };
  });
}

/** Writes what a scene’s layers are, from back to front. */
export async function putOutline(queries: Queries, scene: string, entries: readonly OutlineEntry[]): Promise<void> {
  const rows = entries.map(({ id, name, kind, parent, chunk, files, curves }): Row => {
    if (curves.length > 0) return [id, name, kind, parent, chunk, files, curves];
    return files.length === 0 ? [id, name, kind, parent, chunk] : [id, name, kind, parent, chunk, files];
  });
  await queries.run(
    `insert into outlines (scene_id, body) values ($1, $2)
     on conflict (scene_id) do update set body = excluded.body`,
    [scene, deflate(JSON.stringify(rows))],
  );
  await queries.run('update scenes set layer_count = $2 where id = $1', [scene, entries.length]);
}

/** Writes what a scene’s layers are, which files they use, and which curves their keys are linked to. */
export async function writeOutline(queries: Queries, scene: string, entries: readonly OutlineEntry[]): Promise<void> {
  await putOutline(queries, scene, entries);
  await writeUses(
    queries,
    scene,
    entries.flatMap((entry) => entry.files),
  );
  await writeCurveUses(
    queries,
    scene,
    entries.flatMap((entry) => entry.curves),
  );
}

/** The chunks of a scene, packed. */
export function manyChunks(queries: Queries, scene: string): Promise<{ chunk: number; body: Uint8Array }[]> {
  return queries.many('select chunk, body from layer_chunks where scene_id = $1 order by chunk', [scene]);
}

async function nextChunk(queries: Queries, scene: string): Promise<number> {
  const row = await queries.maybeOne<{ next: number }>(
    'select coalesce(max(chunk) + 1, 0) as next from layer_chunks where scene_id = $1',
    [scene],
  );
  return row?.next ?? 0;
}

/** Writes chunks of changed layers. Gives what the outline says of these. */
export async function putChunks(
  queries: Queries,
  scene: string,
  chunks: readonly PreparedChunk[],
): Promise<OutlineEntry[]> {
  const first = await nextChunk(queries, scene);
  await insertMany(
    queries,
    'layer_chunks (scene_id, chunk, body)',
    chunks.map(({ body }, i) => [scene, first + i, body]),
  );
  return chunks.flatMap(({ entries }, i) => entries.map((entry) => ({ ...entry, chunk: first + i })));
}

/** Takes the chunks of an upload over as they are. Gives what the outline says of their layers. */
export async function takeChunks(
  queries: Queries,
  scene: string,
  upload: string,
  parts: readonly { readonly part: number; readonly chunks: readonly PreparedChunk['entries'][] }[],
): Promise<OutlineEntry[]> {
  let next = await nextChunk(queries, scene);
  const entries: OutlineEntry[] = [];
  for (const { part, chunks } of parts) {
    await queries.run(
      `insert into layer_chunks (scene_id, chunk, body)
       select $1, place + $4, body from upload_bodies where upload_id = $2 and part = $3 and place < $5`,
      [scene, upload, part, next, chunks.length],
    );
    for (const own of chunks) {
      for (const entry of own) entries.push({ ...entry, chunk: next });
      next++;
    }
  }
  return entries;
}

/** Chunks beyond the least number in which the layers could be, from which on they are put together. */
const MOST_LOOSE = 16;
const FULL = 64;

/**
 * Drops chunks in which no layer is any more, and puts small ones together where they have become many: each save of a
 * single layer leaves one. Gives the outline as it then is.
 */
export async function tidyChunks(
  queries: Queries,
  scene: string,
  outline: readonly OutlineEntry[],
): Promise<OutlineEntry[]> {
  const counts = new Map<number, number>();
  for (const { chunk } of outline) counts.set(chunk, (counts.get(chunk) ?? 0) + 1);
  await queries.run('delete from layer_chunks where scene_id = $1 and not (chunk = any($2::int[]))', [
    scene,
    [...counts.keys()],
  ]);
  if (counts.size <= Math.ceil(outline.length / FULL) + MOST_LOOSE) return [...outline];
  const loose = new Set([...counts].filter(([, count]) => count <= FULL / 2).map(([chunk]) => chunk));
  const rows = await queries.many<{ chunk: number; body: Uint8Array }>(
    'select chunk, body from layer_chunks where scene_id = $1 and chunk = any($2::int[])',
    [scene, [...loose]],
  );
  const known = new Map(
    rows.flatMap(({ chunk, body }) => readChunk(body).map((layer) => [`${chunk} ${layer.id}`, layer])),
  );
  const layers = outline.flatMap(({ id, chunk }): Layer[] => {
    const layer = loose.has(chunk) ? known.get(`${chunk} ${id}`) : undefined;
    return layer ? [layer] : [];
  });
  const moved = new Map((await putChunks(queries, scene, prepareLayers(layers))).map((entry) => [entry.id, entry]));
  await queries.run('delete from layer_chunks where scene_id = $1 and chunk = any($2::int[])', [scene, [...loose]]);
  return outline.map((entry) => moved.get(entry.id) ?? entry);
}
