import type { RunRecord } from '@wexikine/core';
import type { Queries } from '../database';

/** All runs of a scene in the order in which they were applied. */
export async function manyRuns(queries: Queries, scene: string): Promise<RunRecord[]> {
  const rows = await queries.many<{ body: RunRecord }>('select body from runs where scene_id = $1 order by place', [
    scene,
  ]);
  return rows.map(({ body }) => body);
}

/** Writes new and changed runs; a new one comes last. */
export async function putRuns(
  queries: Queries,
  scene: string,
  runs: readonly RunRecord[],
  version: number,
): Promise<void> {
  if (runs.length === 0) return;
  await queries.run(
    `insert into runs (scene_id, id, place, body, version)
     select $1, item.id, item.place + (select coalesce(max(place), -1) from runs where scene_id = $1), item.body::jsonb, $4
     from unnest($2::text[], $3::text[]) with ordinality as item (id, body, place)
     on conflict (scene_id, id) do update set body = excluded.body, version = excluded.version`,
    [scene, runs.map(({ id }) => id), runs.map((run) => JSON.stringify(run)), version],
  );
}

/** Sets the order of all runs from a list of ids, the first first. */
export async function orderRuns(queries: Queries, scene: string, ids: readonly string[]): Promise<void> {
  await queries.run(
    `update runs set place = item.place from unnest($2::text[], $3::int[]) as item (id, place)
     where runs.scene_id = $1 and runs.id = item.id`,
    [scene, ids, ids.map((_, place) => place)],
  );
}

export async function dropRuns(queries: Queries, scene: string, ids: readonly string[]): Promise<void> {
  if (ids.length === 0) return;
  await queries.run('delete from runs where scene_id = $1 and id = any($2::text[])', [scene, ids]);
}
