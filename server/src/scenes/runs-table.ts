import type { Queries } from '../database';
import { runText, type PreparedRun, type RunRow } from '../packing';
import { insertMany } from './insert-many';

/** The records of a scene's runs as texts of JSON, in the order in which they were applied. */
export async function manyRunTexts(queries: Queries, scene: string): Promise<string[]> {
  const rows = await queries.many<{ run_id: string; body: Uint8Array }>(
    `select run_slices.run_id, run_slices.body
     from run_slices join runs on runs.scene_id = run_slices.scene_id and runs.id = run_slices.run_id
     where runs.scene_id = $1 order by runs.place, run_slices.slice`,
    [scene],
  );
  const slices = new Map<string, Uint8Array[]>();
  for (const { run_id, body } of rows) slices.set(run_id, [...(slices.get(run_id) ?? []), body]);
  return [...slices.values()].map(runText);
}

/** Writes what is asked of new and changed runs; a new one comes last. Their slices are dropped, to be written anew. */
async function putRows(queries: Queries, scene: string, rows: readonly RunRow[], version: number): Promise<void> {
  await queries.run('delete from run_slices where scene_id = $1 and run_id = any($2::text[])', [
    scene,
    rows.map(({ id }) => id),
  ]);
  for (const { id, preset, uses, layers, off } of rows) {
    await queries.run(
      `insert into runs (scene_id, id, place, off, preset_id, preset_revision, layer_count, uses, version)
       values ($1, $2, (select coalesce(max(place) + 1, 0) from runs where scene_id = $1), $3, $4, $5, $6, $7::jsonb, $8)
       on conflict (scene_id, id) do update set off = excluded.off, preset_id = excluded.preset_id,
         preset_revision = excluded.preset_revision, layer_count = excluded.layer_count, uses = excluded.uses,
         version = excluded.version`,
      [scene, id, off, preset?.id ?? null, preset?.revision ?? null, layers, JSON.stringify(uses), version],
    );
  }
}

/** Writes new and changed runs; a new one comes last. */
export async function putRuns(
  queries: Queries,
  scene: string,
  runs: readonly PreparedRun[],
  version: number,
): Promise<void> {
  if (runs.length === 0) return;
  await putRows(
    queries,
    scene,
    runs.map(({ row }) => row),
    version,
  );
  const rows = runs.flatMap(({ row, slices }) => slices.map((body, slice) => [scene, row.id, slice, body]));
  await insertMany(queries, 'run_slices (scene_id, run_id, slice, body)', rows);
}

/** A run of an upload: what is asked of it, and where its slices are in the part. */
export interface UploadedRun {
  readonly row: RunRow;
  readonly first: number;
  readonly slices: number;
}

/** Takes the runs of an upload over as they are. */
export async function takeRuns(
  queries: Queries,
  scene: string,
  upload: string,
  parts: readonly { readonly part: number; readonly runs: readonly UploadedRun[] }[],
  version: number,
): Promise<void> {
  for (const { part, runs } of parts) {
    if (runs.length === 0) continue;
    await putRows(
      queries,
      scene,
      runs.map(({ row }) => row),
      version,
    );
    for (const { row, first, slices } of runs) {
      await queries.run(
        `insert into run_slices (scene_id, run_id, slice, body)
         select $1, $2, place - $5, body from upload_bodies
         where upload_id = $3 and part = $4 and place >= $5 and place < $5 + $6`,
        [scene, row.id, upload, part, first, slices],
      );
    }
  }
}

/** Sets the order of all runs from a list of ids, the first first. */
export async function orderRuns(queries: Queries, scene: string, ids: readonly string[]): Promise<void> {
  await queries.run(
    `update runs set place = item.place from unnest($2::text[], $3::int[]) as item (id, place)
     where runs.scene_id = $1 and runs.id = item.id`,
    [scene, ids, ids.map((_, place) => place)],
  );
}

/** Takes runs away with their slices. */
export async function dropRuns(queries: Queries, scene: string, ids: readonly string[]): Promise<void> {
  if (ids.length === 0) return;
  await queries.run('delete from runs where scene_id = $1 and id = any($2::text[])', [scene, ids]);
}
