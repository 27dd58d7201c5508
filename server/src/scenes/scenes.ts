import {
  DAYS_DELETED_KEPT,
  headerOf,
  SCENE_FORMAT,
  treeProblem,
  type CreateFromParts,
  type Layer,
  type RunRecord,
  type Scene,
  type SceneHeader,
} from '@wexikine/core';
import type { PreparedSave, PreparedScene } from '../checking';
import type { Database, Queries } from '../database';
import { notFound, RequestProblem } from '../http';
import { inflate, prepare, readChunk, type OutlineEntry, type Prepared } from '../packing';
import { manyChunks, putChunks, readOutline, takeChunks, tidyChunks, writeOutline } from './chunks-table';
import { dropRuns, manyRunTexts, orderRuns, putRuns, takeRuns } from './runs-table';
import {
  changesSince,
  copyRows,
  dropDeleted,
  insertChange,
  insertScene,
  maybeScene,
  maybeSceneForUpdate,
  setDeleted,
  setVersion,
} from './scenes-table';
import { dropUpload, dropUploadsBefore, manyParts, putPart } from './uploads-table';

/** A scene as text of JSON, piece by piece: however large it is, no text is longer than one of its chunks. */
export type SceneText = readonly string[];

/** All of a stored scene, packed, read at one moment. */
interface Packed {
  readonly version: number;
  readonly header: SceneHeader;
  readonly outline: readonly OutlineEntry[];
  readonly chunks: readonly { readonly chunk: number; readonly body: Uint8Array }[];
  readonly runs: readonly string[];
}

function readPacked(database: Database, id: string): Promise<Packed> {
  return database.inTransaction(async (queries) => {
    const row = await maybeScene(queries, id);
    if (!row) throw notFound('scene', id);
    const outline = await readOutline(queries, id);
    const chunks = await manyChunks(queries, id);
    return { version: row.version, header: row.header, outline, chunks, runs: await manyRunTexts(queries, id) };
  });
}

/** Texts with commas between them. */
function listed(texts: readonly string[]): string[] {
  return texts.flatMap((text, i) => (i === 0 ? [text] : [',', text]));
}

/** A scene with its chunks as they are stored: quickly sent, and quickly read. */
export async function packedScene(database: Database, id: string): Promise<SceneText> {
  const { version, header, outline, chunks, runs } = await readPacked(database, id);
  const places = JSON.stringify(outline.map((entry) => [entry.id, entry.chunk]));
  const head = JSON.stringify({ version, id, header }).slice(0, -1);
  const bodies = chunks.map(({ chunk, body }) => `"${chunk}":${inflate(body)}`);
  return [`${head},"outline":${places},"chunks":{`, ...listed(bodies), '},"runs":[', ...listed(runs), ']}'];
}

/** A scene with its version, as the schema of scenes has it. */
export async function plainScene(database: Database, id: string): Promise<SceneText> {
  const { version, header, outline, chunks, runs } = await readPacked(database, id);
  const layers = layersOf(outline, chunks).map((layer) => JSON.stringify(layer));
  const head = JSON.stringify({ format: SCENE_FORMAT, id, ...header }).slice(0, -1);
  return [`{"version":${version},"scene":${head},"layers":[`, ...listed(layers), '],"runs":[', ...listed(runs), ']}}'];
}

function layersOf(outline: readonly OutlineEntry[], chunks: Packed['chunks']): Layer[] {
  const known = new Map<string, Layer>();
  for (const { chunk, body } of chunks) {
    for (const layer of readChunk(body)) known.set(`${chunk} ${layer.id}`, layer);
  }
  return outline.map(({ id, chunk }) => known.get(`${chunk} ${id}`) as Layer);
}

/** A whole scene with its version, read at one moment. */
export async function readScene(database: Database, id: string): Promise<{ version: number; scene: Scene }> {
  const { version, header, outline, chunks, runs } = await readPacked(database, id);
  const records = runs.map((text) => JSON.parse(text) as RunRecord);
  return {
    version,
    scene: { format: SCENE_FORMAT, id, ...header, layers: layersOf(outline, chunks), runs: records },
  };
}

/** A scene as it is written, for the application's own. */
export function prepareScene(scene: Omit<Scene, 'id'>): PreparedScene {
  return {
    ...prepare(scene.layers, scene.runs),
    header: headerOf(scene),
    order: scene.layers.map(({ id }) => id),
    runOrder: scene.runs.map(({ id }) => id),
  };
}

/** Stores a new scene whole. Gives its version. */
export async function createScene(database: Database, id: string, scene: PreparedScene, when: string): Promise<number> {
  await database.inTransaction(async (queries) => {
    await insertScene(queries, id, scene.header, when);
    await putRuns(queries, id, scene.runs, 1);
    await writeOutline(queries, id, await putChunks(queries, id, scene.chunks));
  });
  return 1;
}

/** The parts of an upload; refused where one has not arrived. */
async function partsOf(queries: Queries, { id, parts }: CreateFromParts['upload']) {
  const found = await manyParts(queries, id);
  if (found.length === parts && found.every(({ part }, i) => part === i)) return found;
  throw new RequestProblem({
    code: 'invalid',
    message: `Of ${parts} parts of this scene ${found.length} arrived. Nothing was saved; save again.`,
  });
}

/** Stores a new scene of what was sent in parts before. Gives its version. */
export async function createFromParts(
  database: Database,
  id: string,
  { header, order, runOrder, upload }: CreateFromParts,
  when: string,
): Promise<number> {
  return database.inTransaction(async (queries) => {
    const parts = await partsOf(queries, upload);
    await insertScene(queries, id, header, when);
    const outline = ordered(await takeChunks(queries, id, upload.id, parts), order);
    refuseBroken(outline);
    await writeOutline(queries, id, outline);
    await takeRuns(queries, id, upload.id, parts, 1);
    await orderRuns(queries, id, runOrder);
    await dropUpload(queries, upload.id);
    return 1;
  });
}

/** Keeps a part of a save until the save is done. */
export async function keepPart(
  database: Database,
  upload: string,
  part: number,
  prepared: Prepared,
  when: string,
): Promise<void> {
  await database.inTransaction((queries) => putPart(queries, upload, part, prepared, when));
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

function refuseBroken(outline: readonly OutlineEntry[]): void {
  const message = treeProblem(outline);
  if (message) throw new RequestProblem({ code: 'invalid', message: `The scene was not saved. ${message}` });
}

/** Entries in the order of a list of ids; those that it does not name come last. */
function ordered(outline: readonly OutlineEntry[], ids: readonly string[]): OutlineEntry[] {
  const places = new Map(ids.map((id, place) => [id, place]));
  const placeOf = ({ id }: OutlineEntry): number => places.get(id) ?? ids.length;
  return [...outline].sort((a, b) => placeOf(a) - placeOf(b));
}

/** An outline with layers that were changed, or are new and come last. */
function withChanged(outline: readonly OutlineEntry[], changed: readonly OutlineEntry[]): OutlineEntry[] {
  const fresh = new Map(changed.map((entry) => [entry.id, entry]));
  const kept = outline.map((entry) => fresh.get(entry.id) ?? entry);
  const known = new Set(outline.map(({ id }) => id));
  return [...kept, ...changed.filter(({ id }) => !known.has(id))];
}

/** Writes what changed. Gives the ids of the layers that did. */
async function writeChanges(queries: Queries, id: string, request: PreparedSave, version: number): Promise<string[]> {
  const { prepared, upload, removedLayers, order } = request;
  const parts = upload ? await partsOf(queries, upload) : [];
  await dropRuns(queries, id, request.removedRuns);
  await putRuns(queries, id, prepared.runs, version);
  if (upload) await takeRuns(queries, id, upload.id, parts, version);
  if (request.runOrder) await orderRuns(queries, id, request.runOrder);
  const changed = await putChunks(queries, id, prepared.chunks);
  if (upload) changed.push(...(await takeChunks(queries, id, upload.id, parts)));
  if (changed.length > 0 || removedLayers.length > 0 || order) {
    const removed = new Set(removedLayers);
    const standing = (await readOutline(queries, id)).filter((entry) => !removed.has(entry.id));
    const outline = withChanged(standing, changed);
    const next = order ? ordered(outline, order) : outline;
    refuseBroken(next);
    await writeOutline(queries, id, await tidyChunks(queries, id, next));
  }
  if (upload) await dropUpload(queries, upload.id);
  return changed.map((entry) => entry.id);
}

/**
 * Saves what changed since `request.base` in one transaction and gives the new version.
 * Throws a conflict with the list of changes when somebody saved in between; then nothing is written.
 */
export async function saveScene(database: Database, id: string, request: PreparedSave, when: string): Promise<number> {
  return database.inTransaction(async (queries) => {
    const row = await maybeSceneForUpdate(queries, id);
    if (!row) throw notFound('scene', id);
    await refuseConflict(queries, id, request.base, row.version);
    const version = row.version + 1;
    const layers = await writeChanges(queries, id, request, version);
    await setVersion(queries, id, request.header ?? row.header, version, when);
    const { by, what, removedLayers } = request;
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

/** Copies a scene under another id, as it is stored; its name says that it is a copy. */
export async function copyScene(database: Database, id: string, copyId: string, when: string): Promise<void> {
  await database.inTransaction(async (queries) => {
    const row = await maybeScene(queries, id);
    if (!row) throw notFound('scene', id);
    const name = `${row.header.name.slice(0, MOST_NAME - COPY.length)}${COPY}`;
    await insertScene(queries, copyId, { ...row.header, name }, when);
    await copyRows(queries, id, copyId);
  });
}

/** Deletes a scene, or takes that back. */
export async function deleteScene(database: Database, id: string, when: string | null): Promise<void> {
  if (!(await setDeleted(database, id, when))) throw notFound('scene', id);
}

/** A deleted scene can be brought back for so long; then it is gone for good. */
const KEPT_MS = DAYS_DELETED_KEPT * 24 * 60 * 60 * 1000;
/** Parts of a save wait for so long for the others. */
const UPLOAD_MS = 60 * 60 * 1000;

/** Takes scenes away for good that were deleted long enough ago, and parts of saves that were never done. */
export async function purgeDeleted(database: Database, now: string): Promise<void> {
  const ago = (ms: number): string => new Date(Date.parse(now) - ms).toISOString();
  await database.inTransaction(async (queries) => {
    await dropDeleted(queries, ago(KEPT_MS));
    await dropUploadsBefore(queries, ago(UPLOAD_MS));
  });
}
