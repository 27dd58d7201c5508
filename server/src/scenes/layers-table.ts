import type { Layer } from '@wexikine/core';
import type { Queries } from '../database';

/** All layers of a scene from back to front. */
export async function manyLayers(queries: Queries, scene: string): Promise<Layer[]> {
  const rows = await queries.many<{ body: Layer }>('select body from layers where scene_id = $1 order by depth', [
    scene,
  ]);
  return rows.map(({ body }) => body);
}

/** Writes new and changed layers in one statement; their depth follows with `orderLayers`. */
export async function putLayers(
  queries: Queries,
  scene: string,
  layers: readonly Layer[],
  version: number,
): Promise<void> {
  if (layers.length === 0) return;
  await queries.run(
    `insert into layers (scene_id, id, depth, body, version)
     select $1, item.id, 0, item.body::jsonb, $4 from unnest($2::text[], $3::text[]) as item (id, body)
     on conflict (scene_id, id) do update set body = excluded.body, version = excluded.version`,
    [scene, layers.map(({ id }) => id), layers.map((layer) => JSON.stringify(layer)), version],
  );
}

export async function dropLayers(queries: Queries, scene: string, ids: readonly string[]): Promise<void> {
  if (ids.length === 0) return;
  await queries.run('delete from layers where scene_id = $1 and id = any($2::text[])', [scene, ids]);
}

/** Sets the depth of every layer from a list of ids, back to front. Gives how many layers there are. */
export async function orderLayers(queries: Queries, scene: string, ids: readonly string[]): Promise<void> {
  await queries.run(
    `update layers set depth = item.depth from unnest($2::text[], $3::int[]) as item (id, depth)
     where layers.scene_id = $1 and layers.id = item.id and layers.depth is distinct from item.depth`,
    [scene, ids, ids.map((_, depth) => depth)],
  );
}

/** What decides whether the groups of a scene hang together, without the layers' keys. */
export async function layerTree(queries: Queries, scene: string): Promise<Layer[]> {
  return queries.many<Layer>(
    `select id, body->>'name' as name, body->>'kind' as kind, body->>'parent' as parent
     from layers where scene_id = $1 order by depth`,
    [scene],
  );
}
