import type { ItemRevision, ItemUse, UseCount } from '@wexikine/core';
import type { Queries } from '../database';

/** Every use of every item: by a run's preset, by what that took from the library, and by keys that are linked to a curve. */
const USES = `
  select runs.scene_id, runs.layer_count, runs.preset_id as item_id, runs.preset_revision as revision, 1 as runs
  from runs join scenes on scenes.id = runs.scene_id and scenes.deleted_at is null
  union all
  select runs.scene_id, runs.layer_count, used.id, used.revision, 1
  from runs join scenes on scenes.id = runs.scene_id and scenes.deleted_at is null
  cross join lateral jsonb_to_recordset(runs.uses) as used (id text, revision integer)
  union all
  select item_uses.scene_id, item_uses.layers, item_uses.item_id, item_uses.revision, 0
  from item_uses join scenes on scenes.id = item_uses.scene_id and scenes.deleted_at is null`;

/** How often each item is used, by id; those that are not used are left out. */
export async function useCounts(queries: Queries): Promise<ReadonlyMap<string, UseCount>> {
  const rows = await queries.many<UseCount & { readonly item_id: string }>(
    `select item_id, count(distinct scene_id)::int as scenes, sum(layer_count)::int as layers
     from (${USES}) as uses group by item_id`,
  );
  return new Map(rows.map(({ item_id, scenes, layers }) => [item_id, { scenes, layers }]));
}

/** Where an item is used, by scene and revision. */
export function usesOfItem(queries: Queries, item: string): Promise<ItemUse[]> {
  return queries.many<ItemUse>(
    `select uses.scene_id as scene, scenes.header ->> 'name' as "sceneName", uses.revision,
       sum(uses.runs)::int as runs, sum(uses.layer_count)::int as layers
     from (${USES}) as uses join scenes on scenes.id = uses.scene_id
     where uses.item_id = $1
     group by uses.scene_id, scenes.header ->> 'name', uses.revision
     order by "sceneName", uses.revision desc`,
    [item],
  );
}

/** Notes which curves the keys of a scene's layers are linked to: a revision for each layer that has such keys. */
export async function writeCurveUses(queries: Queries, scene: string, curves: readonly ItemRevision[]): Promise<void> {
  await queries.run('delete from item_uses where scene_id = $1', [scene]);
  if (curves.length === 0) return;
  await queries.run(
    `insert into item_uses (scene_id, item_id, revision, layers)
     select $1, item, revision, count(*)::int from unnest($2::text[], $3::int[]) as used (item, revision)
     group by item, revision`,
    [scene, curves.map(({ id }) => id), curves.map(({ revision }) => revision)],
  );
}
