import {
  DAYS_DELETED_KEPT,
  SCENE_FORMAT,
  headerOf,
  treeProblem,
  type CreateScene,
  type SaveRequest,
  type Scene,
  type SceneHeader,
  type StoredScene,
} from '@wexikine/core';
import type { Database, Queries } from '../database';
import { notFound, RequestProblem } from '../http';
import { dropLayers, layerTree, manyLayers, orderLayers, putLayers } from './layers-table';
import { dropRuns, manyRuns, orderRuns, putRuns } from './runs-table';
import {
  changesSince,
  dropDeleted,
  insertChange,
  insertScene,
  maybeScene,
  maybeSceneForUpdate,
  setDeleted,
  setVersion,
} from './scenes-table';

/** A whole scene with its version, read at one moment. */
export async function readScene(database: Database, id: string): Promise<StoredScene> {
  return database.inTransaction(async (queries) => {
    const row = await maybeScene(queries, id);
    if (!row) throw notFound('scene', id);
    const layers = await manyLayers(queries, id);
    const runs = await manyRuns(queries, id);
    return { version: row.version, scene: { format: SCENE_FORMAT, id, ...row.header, layers, runs } };
  });
}

/** Stores a new scene whole. */
export async function createScene(
  database: Database,
  id: string,
  { scene }: Pick<CreateScene, 'scene'>,
  when: string,
): Promise<StoredScene> {
  const whole: Scene = { ...scene, id };
  await database.inTransaction(async (queries) => {
    await insertScene(queries, id, headerOf(whole), when);
    await putLayers(queries, id, whole.layers, 1);
    await orderLayers(
      queries,
      id,
      whole.layers.map((layer) => layer.id),
    );
    await putRuns(queries, id, whole.runs, 1);
  });
  return { version: 1, scene: whole };
}

async function refuseConflict(queries: Queries, id: string, base: number, version: number): Promise<void> {
  if (base === version) return;
  throw new RequestProblem({
    code: 'conflict',
    message: 'This scene was changed in another window since you opened it. Nothing of yours was lost or saved yet.',
    changes: await changesSince(queries, id, base),
    version,
  });
}

async function refuseBrokenTree(queries: Queries, id: string): Promise<void> {
  const message = treeProblem(await layerTree(queries, id));
  if (message) throw new RequestProblem({ code: 'invalid', message: `The scene was not saved. ${message}` });
}

async function writeChanges(queries: Queries, id: string, request: SaveRequest, version: number): Promise<void> {
  await dropLayers(queries, id, request.removedLayers);
  await putLayers(queries, id, request.layers, version);
  if (request.order) await orderLayers(queries, id, request.order);
  await dropRuns(queries, id, request.removedRuns);
  await putRuns(queries, id, request.runs, version);
  if (request.runOrder) await orderRuns(queries, id, request.runOrder);
  if (request.layers.length > 0 || request.removedLayers.length > 0) await refuseBrokenTree(queries, id);
}

/**
 * Saves what changed since `request.base` in one transaction and gives the new version.
 * Throws a conflict with the list of changes when somebody saved in between; then nothing is written.
 */
export async function saveScene(database: Database, id: string, request: SaveRequest, when: string): Promise<number> {
  return database.inTransaction(async (queries) => {
    const row = await maybeSceneForUpdate(queries, id);
    if (!row) throw notFound('scene', id);
    await refuseConflict(queries, id, request.base, row.version);
    const version = row.version + 1;
    await writeChanges(queries, id, request, version);
    await setVersion(queries, id, request.header ?? row.header, version, when);
    const { by, what, removedLayers } = request;
    const layers = request.layers.map((layer) => layer.id);
    await insertChange(queries, id, {
      version,
      by,
      when,
      what,
      header: request.header !== null,
      layers,
      removedLayers,
    });
    return version;
  });
}

/** Gives a scene another name, over whatever version stands. */
export async function renameScene(
  database: Database,
  id: string,
  name: string,
  by: string,
  when: string,
): Promise<number> {
  return database.inTransaction(async (queries) => {
    const row = await maybeSceneForUpdate(queries, id);
    if (!row) throw notFound('scene', id);
    const version = row.version + 1;
    const header: SceneHeader = { ...row.header, name };
    await setVersion(queries, id, header, version, when);
    const what = `Rename to “${name}”`;
    await insertChange(queries, id, { version, by, when, what, header: true, layers: [], removedLayers: [] });
    return version;
  });
}

const COPY = ' (copy)';
const MOST_NAME = 200;

/** Copies a scene under another id; its name says that it is a copy. */
export async function copyScene(database: Database, id: string, copyId: string, when: string): Promise<StoredScene> {
  const { scene } = await readScene(database, id);
  return createScene(
    database,
    copyId,
    { scene: { ...scene, name: `${scene.name.slice(0, MOST_NAME - COPY.length)}${COPY}` } },
    when,
  );
}

/** Deletes a scene, or takes that back. */
export async function deleteScene(database: Database, id: string, when: string | null): Promise<void> {
  if (!(await setDeleted(database, id, when))) throw notFound('scene', id);
}

/** A deleted scene can be brought back for so long; then it is gone for good. */
const KEPT_MS = DAYS_DELETED_KEPT * 24 * 60 * 60 * 1000;

/** Takes scenes away for good that were deleted long enough ago. */
export async function purgeDeleted(database: Database, now: string): Promise<void> {
  const before = new Date(Date.parse(now) - KEPT_MS).toISOString();
  await database.inTransaction((queries) => dropDeleted(queries, before));
}
