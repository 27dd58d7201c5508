import { afterAll, describe, expect, test } from '@jest/globals';
import { PGlite } from '@electric-sql/pglite';
import {
  headerOf,
  programmeBoard,
  sceneSchema,
  STARTER_MOVEMENTS,
  STARTER_LOOKS,
  STARTER_PALETTES,
  STARTER_RIGS,
  WORD_PRESETS,
  WORD_RIGS,
  type Layer,
  type Scene,
} from '@wexikine/core';
import { copyFileSync, mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openDatabase, type Database } from '../database';
import { manyRecords } from '../library/records';
import { prepare } from '../packing';
import { putChunks, putOutline } from './chunks-table';
import { readScene } from './scenes';
import { UPGRADES } from './upgrade';

const MIGRATIONS = join(__dirname, '../../migrations');
const folders: string[] = [];

afterAll(async () => {
  await pglite.close();
  folders.forEach((folder) => rmSync(folder, { recursive: true, force: true }));
});

/** One for all tests, which each begin with nothing in it: making one takes seconds. */
const pglite = new PGlite();

/**
 * An empty database that is opened by one version after the other: `at(3)` by that which knew three migrations. What a
 * test before it left is gone.
 */
function stages(): { readonly at: (count: number) => Promise<Database> } {
  const folder = mkdtempSync(join(tmpdir(), 'wexikine-migrations-'));
  folders.push(folder);
  const emptied = pglite.exec('drop schema public cascade; create schema public');
  const names = readdirSync(MIGRATIONS).sort();
  return {
    at: async (count) => {
      await emptied;
      for (const name of names.slice(0, count)) copyFileSync(join(MIGRATIONS, name), join(folder, name));
      return openDatabase(pglite, folder, UPGRADES);
    },
  };
}

/** What is to be seen of a layer: everything but who made its keys. */
function seen({ name, span, rest, tracks }: Layer) {
  const keys = Object.fromEntries(
    Object.entries(tracks).map(([channel, list]) => [channel, list.map(({ at, value, ease }) => [at, value, ease])]),
  );
  return { name, span, rest, keys };
}

describe('a database of a version before', () => {
  test('a library that is older than rigs gets those of a new one, once; an empty database is left to be filled', async () => {
    const { at } = stages();
    const old = await at(6);
    await old.run(
      `insert into items (id, kind, tags, current_revision, created_at) values ('i', 'curve', '[]', 1, now())`,
    );
    const now = await at(7);
    const rigs = await now.many<{ id: string }>(`select id from items where kind = 'rig'`);
    expect(rigs.map(({ id }) => id).sort()).toEqual(STARTER_RIGS.map(({ id }) => id).sort());
    const again = await at(7);
    expect(await again.many(`select id from items where kind = 'rig'`)).toHaveLength(STARTER_RIGS.length);
    const empty = stages();
    await empty.at(6);
    expect(await (await empty.at(7)).many('select id from items')).toEqual([]);
  });

  test('a library that is older than movements gets the presets that show them', async () => {
    const { at } = stages();
    const old = await at(6);
    await old.run(
      `insert into items (id, kind, tags, current_revision, created_at) values ('i', 'curve', '[]', 1, now())`,
    );
    await at(7);
    const now = await at(8);
    const ids = (await now.many<{ id: string }>('select id from items')).map(({ id }) => id);
    expect(STARTER_MOVEMENTS.filter(({ id }) => !ids.includes(id))).toEqual([]);
    expect(ids).toContain('rig-travel-along-its-path');
    expect(ids).toContain('i');
  });

  test('a library that is older than copies gets the rig for all of them, and its scenes and items stay', async () => {
    const { at } = stages();
    await at(6);
    const old = await at(9);
    await old.run(
      `insert into items (id, kind, tags, current_revision, created_at) values ('i', 'curve', '[]', 1, now())`,
    );
    const now = await at(10);
    const ids = (await now.many<{ id: string }>('select id from items')).map(({ id }) => id);
    expect(ids).toContain('rig-all-copies');
    expect(ids).toContain('i');
  });

  test('a library that is older than looks and palettes gets them, and its scenes and items stay', async () => {
    const { at } = stages();
    const old = await at(10);
    await old.run(
      `insert into items (id, kind, tags, current_revision, created_at) values ('i', 'curve', '[]', 1, now())`,
    );
    const now = await at(11);
    const ids = (await now.many<{ id: string }>('select id from items')).map(({ id }) => id);
    expect([...STARTER_LOOKS, ...STARTER_PALETTES].filter(({ id }) => !ids.includes(id))).toEqual([]);
    expect(ids).toContain('i');
  });

  test('a library that is older than words that are typed gets their presets and rigs, and its items stay', async () => {
    const { at } = stages();
    const old = await at(11);
    await old.run(
      `insert into items (id, kind, tags, current_revision, created_at) values ('i', 'curve', '[]', 1, now())`,
    );
    const now = await at(12);
    const ids = (await now.many<{ id: string }>('select id from items')).map(({ id }) => id);
    expect([...WORD_PRESETS, ...WORD_RIGS].filter(({ id }) => !ids.includes(id))).toEqual([]);
    expect(ids).toContain('i');
  });

  test('a library that is older than looks with parameters gets the one that has some, and no other comes back', async () => {
    const { at } = stages();
    const old = await at(13);
    await old.run(
      `insert into items (id, kind, tags, current_revision, created_at) values ('i', 'curve', '[]', 1, now())`,
    );
    const now = await at(14);
    const ids = (await now.many<{ id: string }>('select id from items order by id')).map(({ id }) => id);
    expect(ids).toEqual(['i', 'look-raised']);
  });

  test('drafts and runs that were written in the words of before are read in those of now', async () => {
    const { at } = stages();
    const old = await at(3);
    await old.run(
      `insert into scenes (id, header, version, created_at, changed_at) values ('s', '{}', 1, now(), now())`,
    );
    await old.run(`insert into runs (scene_id, id, place, body, version) values ('s', 'r', 0, $1, 1)`, [
      JSON.stringify({ id: 'r', recipe: { operation: 'carry-through', preset: { id: 'drift' } }, layers: [] }),
    ]);
    await old.run(
      `insert into items (id, kind, tags, current_revision, created_at) values ('i', 'preset', '[]', 1, now())`,
    );
    await old.run(`insert into revisions (item_id, revision, content, published_at) values ('i', 1, $1, now())`, [
      JSON.stringify({ name: 'Drift', body: { phase: 'through' } }),
    ]);
    await old.run(`insert into drafts (item_id, content, in_review, version) values ('i', $1, false, 1)`, [
      JSON.stringify({ name: 'Drift', body: { phase: 'through' } }),
    ]);
    const now = await at(4);
    const [{ body }] = await now.many<{ body: { recipe: { operation: string } } }>('select body from runs');
    const [record] = await manyRecords(now, null);
    expect(body.recipe.operation).toBe('move-throughout');
    expect(record.revisions[0].body).toEqual({ phase: 'throughout' });
    expect(record.draft?.body).toEqual({ phase: 'throughout' });
  });

  test('runs that were applied before runs kept their steps are brought up to date, with what they replaced', async () => {
    const { at } = stages();
    const old = await at(2);
    const key = (at: number, run?: string) => ({
      at,
      value: 1,
      ease: { type: 'hold' },
      ...(run ? { by: { run, slot: 's/t' } } : {}),
    });
    await old.run(
      `insert into scenes (id, header, version, created_at, changed_at) values ('s', '{}', 1, now(), now())`,
    );
    await old.run(`insert into layers (scene_id, id, depth, body, version) values ('s', 'l', 0, $1, 1)`, [
      JSON.stringify({ id: 'l', tracks: { opacity: [key(1, 'r'), key(9)] } }),
    ]);
    await old.run(`insert into runs (scene_id, id, place, body, version) values ('s', 'r', 0, $1, 1)`, [
      JSON.stringify({
        id: 'r',
        preset: { id: 'gone', revision: 2 },
        layers: ['l'],
        replaced: [{ layer: 'l', channel: 'opacity', keys: [key(3)] }],
        moved: [],
      }),
    ]);
    const now = await at(4);
    const [{ body }] = await now.many<{ body: unknown }>('select body from runs');
    expect(body).toEqual({
      id: 'r',
      preset: { id: 'gone', revision: 2, name: 'gone', body: {} },
      layers: ['l'],
      steps: [{ layer: 'l', tracks: [{ channel: 'opacity', before: [key(3), key(9)], after: [key(1, 'r'), key(9)] }] }],
    });
  });

  test('has its scenes packed, with every key where it was and its runs still to be changed', async () => {
    const { at } = stages();
    const old = await at(4);
    const file = join(__dirname, '../../../core/src/testing/scenes-of-format-1.json');
    const scenes = JSON.parse(readFileSync(file, 'utf8')) as Scene[];
    for (const [i, { format: _format, id: _id, layers, runs, ...header }] of scenes.entries()) {
      await old.run(
        `insert into scenes (id, header, version, created_at, changed_at) values ($1, $2::jsonb, 7, now(), now())`,
        [`s${i}`, JSON.stringify(header)],
      );
      for (const [depth, layer] of layers.entries()) {
        await old.run(`insert into layers (scene_id, id, depth, body, version) values ($1, $2, $3, $4::jsonb, 7)`, [
          `s${i}`,
          layer.id,
          depth,
          JSON.stringify(layer),
        ]);
      }
      for (const [place, run] of runs.entries()) {
        await old.run(`insert into runs (scene_id, id, place, body, version) values ($1, $2, $3, $4::jsonb, 7)`, [
          `s${i}`,
          run.id,
          place,
          JSON.stringify(run),
        ]);
      }
    }
    const now = await at(5);
    for (const [i, before] of scenes.entries()) {
      const { version, scene } = await readScene(now, `s${i}`);
      expect(version).toBe(7);
      expect(sceneSchema.safeParse(scene).error?.issues ?? []).toEqual([]);
      expect(scene.layers.map(seen)).toEqual(before.layers.map(seen));
      expect(scene.runs.map(({ id, off }) => [id, off])).toEqual(before.runs.map(({ id, off }) => [id, off]));
    }
    const counts = await now.many<{ layer_count: number }>('select layer_count from scenes order by id');
    expect(counts.map(({ layer_count }) => layer_count)).toEqual(scenes.map(({ layers }) => layers.length));
  });

  test('pictures that stood as text in a scene become files, each kept once, and the scene shows the same', async () => {
    const { at } = stages();
    const old = await at(8);
    const bytes = Buffer.concat([Buffer.from([0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10]), Buffer.alloc(50, 1)]);
    const board = programmeBoard();
    const source = { type: 'picture' as const, href: `data:image/png;base64,${bytes.toString('base64')}` };
    const drawing = { type: 'picture' as const, href: 'data:image/svg+xml,%3Csvg/%3E' };
    const cards = board.layers.filter(({ kind }) => kind === 'card');
    const layers = board.layers.map((layer): Layer => {
      const place = cards.indexOf(layer);
      return place < 0 || place > 2 ? layer : { ...layer, kind: 'picture', source: place < 2 ? source : drawing };
    });
    const { chunks } = prepare(layers, []);
    await old.run(
      'insert into scenes (id, header, version, created_at, changed_at) values ($1, $2::jsonb, 1, now(), now())',
      ['s', JSON.stringify(headerOf(board))],
    );
    await putOutline(old, 's', await putChunks(old, 's', chunks));
    const now = await at(9);
    const { scene } = await readScene(now, 's');
    expect(scene.layers.map(({ id }) => id)).toEqual(layers.map(({ id }) => id));
    const hrefs = scene.layers.flatMap((layer) => (layer.source.type === 'picture' ? [layer.source.href] : []));
    expect(hrefs[0]).toMatch(/^files\/[0-9a-f]{64}\.png$/);
    expect(hrefs.slice(1)).toEqual([hrefs[0], drawing.href]);
    expect(sceneSchema.safeParse(scene).error?.issues ?? []).toEqual([]);
    const kept = await now.many<{ body: Uint8Array }>('select body from files');
    expect(kept.map(({ body }) => Buffer.compare(Buffer.from(body), bytes))).toEqual([0]);
    expect(await now.many('select file, layers from file_uses')).toEqual([{ file: hrefs[0].slice(6), layers: 2 }]);
  });

  test('the curves that keys of its scenes are linked to are told from then on', async () => {
    const { at } = stages();
    const old = await at(12);
    const board = programmeBoard();
    const ease = { type: 'linear' as const, curve: { id: 'curve-swing', name: 'Swing', revision: 2 } };
    const keys = [0, 1_000].map((time) => ({ at: time, value: 1, ease }));
    const layers = board.layers.map((layer, i): Layer => (i < 2 ? { ...layer, tracks: { opacity: keys } } : layer));
    await old.run(
      'insert into scenes (id, header, version, created_at, changed_at) values ($1, $2::jsonb, 1, now(), now())',
      ['s', JSON.stringify(headerOf(board))],
    );
    // As the version before wrote outlines: without curves.
    const entries = await putChunks(old, 's', prepare(layers, []).chunks);
    await putOutline(
      old,
      's',
      entries.map((entry) => ({ ...entry, curves: [] })),
    );
    const now = await at(13);
    expect(await now.many('select item_id, revision, layers from item_uses')).toEqual([
      { item_id: 'curve-swing', revision: 2, layers: 2 },
    ]);
    expect((await readScene(now, 's')).scene.layers.map(({ id }) => id)).toEqual(layers.map(({ id }) => id));
  });

  test('the font of words that were split is used from then on, also where no part of them is set in it', async () => {
    const { at } = stages();
    const old = await at(14);
    const board = programmeBoard();
    const font = `${'f'.repeat(64)}.woff2`;
    const source = {
      type: 'text',
      text: 'Tide',
      font: 'Marsh',
      fontFile: `files/${font}`,
      weight: 400,
      size: 40,
      align: 'left',
    } as const;
    const layers = board.layers.map((layer, i): Layer =>
      i === 0
        ? { ...layer, kind: 'group', source: { type: 'none' }, split: { by: 'letters', source, look: {} } }
        : layer,
    );
    await old.run(
      'insert into scenes (id, header, version, created_at, changed_at) values ($1, $2::jsonb, 1, now(), now())',
      ['s', JSON.stringify(headerOf(board))],
    );
    await old.run(
      "insert into files (name, title, size, added_at, facts, body) values ($1, 'Marsh', 1, now(), '{}', $2)",
      [font, new Uint8Array([1])],
    );
    // As the version before wrote outlines: without what words were split from.
    const entries = await putChunks(old, 's', prepare(layers, []).chunks);
    await putOutline(
      old,
      's',
      entries.map((entry) => ({ ...entry, files: [] })),
    );
    const now = await at(15);
    expect(await now.many('select file, layers from file_uses')).toEqual([{ file: font, layers: 1 }]);
    expect((await readScene(now, 's')).scene.layers.map(({ id }) => id)).toEqual(layers.map(({ id }) => id));
  });
});
