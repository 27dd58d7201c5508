import type { SceneChange, SceneHeader, SceneSummary } from '@wexikine/core';
import type { Queries } from '../database';

interface SceneRow {
  readonly id: string;
  readonly header: SceneHeader;
  readonly version: number;
}

/** A scene that is not deleted, without its layers and runs. */
export function maybeScene(queries: Queries, id: string): Promise<SceneRow | null> {
  return queries.maybeOne<SceneRow>('select id, header, version from scenes where id = $1 and deleted_at is null', [
    id,
  ]);
}

/** The same, held against other transactions until this one ends. */
export function maybeSceneForUpdate(queries: Queries, id: string): Promise<SceneRow | null> {
  return queries.maybeOne<SceneRow>(
    'select id, header, version from scenes where id = $1 and deleted_at is null for update',
    [id],
  );
}

/** True when a scene has this id, deleted or not. */
export async function hasScene(queries: Queries, id: string): Promise<boolean> {
  return (await queries.maybeOne('select id from scenes where id = $1', [id])) !== null;
}

interface SummaryRow extends SceneRow {
  readonly changed_at: Date;
  readonly layers: number;
  readonly updates: number;
}

/** All scenes that are not deleted, the one changed last first. */
export async function manySummaries(queries: Queries): Promise<SceneSummary[]> {
  const rows = await queries.many<SummaryRow>(
    `select id, header, version, changed_at,
       layer_count as layers,
       (select count(*)::int from runs join items on items.id = runs.preset_id
        where runs.scene_id = scenes.id and items.current_revision > runs.preset_revision
          and not runs.off) as updates
     from scenes where deleted_at is null order by changed_at desc, id`,
  );
  return rows.map(({ id, header, version, changed_at, layers, updates }) => {
    const { name, project, width, height, rate, length } = header;
    return {
      id,
      name,
      project,
      width,
      height,
      rate,
      length,
      layers,
      updates,
      version,
      changed: changed_at.toISOString(),
    };
  });
}

/** Writes a new scene’s header, at version 1. */
export async function insertScene(queries: Queries, id: string, header: SceneHeader, when: string): Promise<void> {
  await queries.run(
    'insert into scenes (id, header, version, created_at, changed_at) values ($1, $2::jsonb, 1, $3, $3)',
    [id, JSON.stringify(header), when],
  );
}

/** Writes a scene’s header at its next version. */
export async function setVersion(
  queries: Queries,
  id: string,
  header: SceneHeader,
  version: number,
  when: string,
): Promise<void> {
  await queries.run('update scenes set header = $2::jsonb, version = $3, changed_at = $4 where id = $1', [
    id,
    JSON.stringify(header),
    version,
    when,
  ]);
}

/** Marks a scene as deleted, or no longer so. True when there was such a scene. */
export async function setDeleted(queries: Queries, id: string, when: string | null): Promise<boolean> {
  const rows = await queries.many(
    'update scenes set deleted_at = $2 where id = $1 and (deleted_at is null) = ($2::timestamptz is not null) returning id',
    [id, when],
  );
  return rows.length > 0;
}

interface ChangeRow {
  readonly version: number;
  readonly by_whom: string;
  readonly at: Date;
  readonly what: string;
  readonly header: boolean;
  readonly layers: string[];
  readonly removed_layers: string[];
}

/** So many changes of others are told one by one; nobody reads more. */
const MOST_CHANGES = 50;

/**
 * What was saved after a version, oldest first: the last ones. A layer that several of them changed is named in the last
 * of these alone, so that the answer stays as small as the scene.
 */
export async function changesSince(queries: Queries, scene: string, version: number): Promise<SceneChange[]> {
  const rows = await queries.many<ChangeRow>(
    'select * from scene_changes where scene_id = $1 and version > $2 order by version desc limit $3',
    [scene, version, MOST_CHANGES],
  );
  const told = new Set<string>();
  const untold = (ids: readonly string[]): string[] =>
    ids.filter((id) => {
      if (told.has(id)) return false;
      told.add(id);
      return true;
    });
  return rows
    .map(({ version: number, by_whom, at, what, header, layers, removed_layers }) => ({
      version: number,
      by: by_whom,
      when: at.toISOString(),
      what,
      header,
      layers: untold(layers),
      removedLayers: untold(removed_layers),
    }))
    .reverse();
}

/** Copies everything of a scene but its own row, which is there already. */
export async function copyRows(queries: Queries, from: string, to: string): Promise<void> {
  await queries.run('update scenes set layer_count = (select layer_count from scenes where id = $1) where id = $2', [
    from,
    to,
  ]);
  const copies = [
    ['outlines', 'body'],
    ['layer_chunks', 'chunk, body'],
    ['runs', 'id, place, off, preset_id, preset_revision, layer_count, uses, version'],
    ['run_slices', 'run_id, slice, body'],
    ['file_uses', 'file, layers'],
    ['item_uses', 'item_id, revision, layers'],
  ];
  for (const [table, columns] of copies) {
    await queries.run(
      `insert into ${table} (scene_id, ${columns}) select $2, ${columns} from ${table} where scene_id = $1`,
      [from, to],
    );
  }
}

/** Takes scenes that were deleted before a time away for good, with everything of theirs. Gives how many. */
export async function dropDeleted(queries: Queries, before: string): Promise<number> {
  const rows = await queries.many<{ id: string }>('select id from scenes where deleted_at < $1', [before]);
  const ids = rows.map(({ id }) => id);
  if (ids.length === 0) return 0;
  for (const table of ['outlines', 'layer_chunks', 'runs', 'scene_changes', 'file_uses', 'item_uses']) {
    await queries.run(`delete from ${table} where scene_id = any($1::text[])`, [ids]);
  }
  await queries.run('delete from scenes where id = any($1::text[])', [ids]);
  return ids.length;
}

/** Notes a save in the journal. */
export async function insertChange(queries: Queries, scene: string, change: SceneChange): Promise<void> {
  await queries.run(
    `insert into scene_changes (scene_id, version, by_whom, at, what, header, layers, removed_layers)
     values ($1, $2, $3, $4, $5, $6, $7::jsonb, $8::jsonb)`,
    [
      scene,
      change.version,
      change.by,
      change.when,
      change.what,
      change.header,
      JSON.stringify(change.layers),
      JSON.stringify(change.removedLayers),
    ],
  );
}
