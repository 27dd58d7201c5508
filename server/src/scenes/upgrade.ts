import {
  curvesOf,
  filesOf,
  recordOf,
  STARTER_MOVEMENTS,
  STARTER_RECIPES,
  STARTER_LOOKS,
  STARTER_PALETTES,
  STARTER_RIGS,
  WORD_PRESETS,
  WORD_RIGS,
  upgradeRuns,
  type Layer,
  type LibraryItem,
  type Scene,
} from '@wexikine/core';
import type { Queries } from '../database';
import { writeRecords } from '../library/import';
import { withFile, writeUses } from '../files';
import { prepare, prepareLayers, readChunk } from '../packing';
import { manyChunks, putChunks, putOutline, readOutline, writeOutline } from './chunks-table';
import { orderRuns, putRuns } from './runs-table';

/** Brings the layers and runs of every scene over to packed chunks, the runs with what is their own (migration 005). */
export async function packScenes(queries: Queries): Promise<void> {
  const scenes = await queries.many<{ id: string; header: Scene; version: number }>(
    'select id, header, version from scenes',
  );
  for (const { id, header, version } of scenes) {
    const layers = await queries.many<{ body: Layer }>(
      'select body from layers_before where scene_id = $1 order by depth',
      [id],
    );
    const records = await queries.many<{ body: unknown }>(
      'select body from runs_before where scene_id = $1 order by place',
      [id],
    );
    const standing = { ...header, id, layers: layers.map(({ body }) => body), runs: [] };
    const scene = upgradeRuns(
      standing,
      records.map(({ body }) => body),
    );
    const { chunks, runs } = prepare(scene.layers, scene.runs);
    await putOutline(queries, id, await putChunks(queries, id, chunks));
    await putRuns(queries, id, runs, version);
    await orderRuns(
      queries,
      id,
      scene.runs.map((run) => run.id),
    );
  }
}

/** Adds items that a new library begins with to an older one that lacks them; an empty one is filled whole, later. */
async function addStarters(queries: Queries, items: readonly LibraryItem[]): Promise<void> {
  const known = await queries.many<{ id: string }>('select id from items');
  if (known.length === 0) return;
  const ids = new Set(known.map(({ id }) => id));
  const missing = items.filter(({ id }) => !ids.has(id)).map(recordOf);
  await writeRecords(queries, missing, new Date().toISOString());
}

/** Takes pictures that stand as text in scenes out into files, each kept once (migration 009). */
async function fileEmbedded(queries: Queries): Promise<void> {
  const scenes = await queries.many<{ id: string }>('select id from scenes');
  for (const { id } of scenes) {
    const outline = await readOutline(queries, id);
    const moved: Layer[] = [];
    for (const { chunk, body } of await manyChunks(queries, id)) {
      for (const layer of readChunk(body)) {
        if (!outline.some((entry) => entry.id === layer.id && entry.chunk === chunk)) continue;
        const filed = await withFile(queries, layer);
        if (filed) moved.push(filed);
      }
    }
    if (moved.length === 0) continue;
    const known = new Map((await putChunks(queries, id, prepareLayers(moved))).map((entry) => [entry.id, entry]));
    const now = outline.map((entry) => known.get(entry.id) ?? entry);
    await putOutline(queries, id, now);
    await writeUses(
      queries,
      id,
      now.flatMap(({ files }) => files),
    );
  }
}

/** Notes anew which files layers of scenes use, and which curves their keys are linked to (migrations 013 and 015). */
async function noteUses(queries: Queries): Promise<void> {
  const scenes = await queries.many<{ id: string }>('select id from scenes');
  for (const { id } of scenes) {
    const layers = new Map<string, Layer>();
    for (const { chunk, body } of await manyChunks(queries, id)) {
      for (const layer of readChunk(body)) layers.set(`${chunk} ${layer.id}`, layer);
    }
    const outline = await readOutline(queries, id);
    await writeOutline(
      queries,
      id,
      outline.map((entry) => {
        const layer = layers.get(`${entry.chunk} ${entry.id}`);
        return layer ? { ...entry, files: filesOf(layer), curves: curvesOf(layer) } : entry;
      }),
    );
  }
}

/** What some migrations leave to the application, by their file. */
export const UPGRADES = {
  '005_parts.sql': packScenes,
  '007_rigs.sql': (queries: Queries) => addStarters(queries, STARTER_RIGS),
  '008_movements.sql': (queries: Queries) => addStarters(queries, [...STARTER_MOVEMENTS, ...STARTER_RIGS]),
  '009_files.sql': fileEmbedded,
  '010_copies.sql': (queries: Queries) => addStarters(queries, [...STARTER_RIGS, ...STARTER_RECIPES]),
  '011_looks.sql': (queries: Queries) => addStarters(queries, [...STARTER_LOOKS, ...STARTER_PALETTES]),
  '012_words.sql': (queries: Queries) => addStarters(queries, [...WORD_PRESETS, ...WORD_RIGS]),
  '013_linked_curves.sql': noteUses,
  '014_look_parameters.sql': (queries: Queries) =>
    addStarters(
      queries,
      STARTER_LOOKS.filter(({ body }) => body.parameters !== undefined),
    ),
  '015_split_files.sql': noteUses,
} as const;
