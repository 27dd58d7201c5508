import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import {
  apply,
  constellations,
  createClear,
  difference,
  programmeBoard,
  type Edit,
  type SaveRequest,
  type Scene,
} from '@wexikine/core';
import request from 'supertest';
import { readChunk } from '../packing';
import { purgeDeleted } from './scenes';
import { freshApp, type FreshApp } from '../../testing/fresh-app';

let fresh: FreshApp;

beforeEach(async () => {
  fresh = await freshApp();
});

afterEach(async () => {
  await fresh.close();
});

function api() {
  return request(fresh.app);
}

async function create(scene: Scene = programmeBoard()): Promise<Scene> {
  const { id: _id, ...body } = scene;
  const response = await api().post('/api/scenes').set('Host', '127.0.0.1').send({ scene: body, by: 'Ada' });
  expect(response.status).toBe(201);
  return response.body.scene;
}

function edited(scene: Scene, edits: readonly Edit[]): Scene {
  const result = apply(scene, edits);
  if (!result.ok) throw new Error(result.problem.code);
  return result.scene;
}

function saveBody(before: Scene, after: Scene, base: number, by = 'Ada'): SaveRequest {
  const { header, layers, removedLayers, order, runs, removedRuns, runOrder } = difference(before, after);
  return {
    base,
    by,
    what: 'A step',
    header,
    layers: [...layers],
    removedLayers: [...removedLayers],
    order: order && [...order],
    runs: [...runs],
    removedRuns: [...removedRuns],
    runOrder: runOrder && [...runOrder],
  };
}

function save(id: string, body: SaveRequest) {
  return api().put(`/api/scenes/${id}`).set('Host', '127.0.0.1').send(body);
}

async function read(id: string): Promise<{ version: number; scene: Scene }> {
  return (await api().get(`/api/scenes/${id}`).set('Host', '127.0.0.1')).body;
}

const rename = (layer: string, name: string): Edit => ({ type: 'set-layer', layer, fields: { name } });

/** A run that did nothing, for what is only about its place. */
function emptyRun(id: string) {
  const recipe = createClear({ by: 'rule' });
  return { id, sentence: id, recipe, by: 'Ada', when: '2026-01-01T00:00:00.000Z', layers: [], made: {} };
}

describe('runs of a scene', () => {
  test('keep their order when one in the middle is taken out and put back', async () => {
    const scene = await create({ ...programmeBoard(), runs: ['a', 'b', 'c'].map(emptyRun) });
    const without = edited(scene, [{ type: 'remove-run', run: 'b' }]);
    await save(scene.id, saveBody(scene, without, 1)).expect(200);
    const back = edited(without, [{ type: 'add-run', index: 1, run: emptyRun('b') }]);
    await save(scene.id, saveBody(without, back, 2)).expect(200);
    expect((await read(scene.id)).scene.runs.map(({ id }) => id)).toEqual(['a', 'b', 'c']);
  });
});

describe('a scene', () => {
  test('comes back as it was stored', async () => {
    const scene = await create(constellations());
    expect((await read(scene.id)).scene).toEqual({ ...constellations(), id: scene.id });
  });

  test('saves only the layers that changed, and order, removal and runs with them', async () => {
    const scene = await create();
    const after = edited(scene, [
      rename('moon', 'Full moon'),
      { type: 'move-layer', layer: 'title', index: 0 },
      { type: 'remove-layer', layer: 'hill-far' },
      { type: 'set-scene', fields: { name: 'Board' } },
    ]);
    const body = saveBody(scene, after, 1);
    expect(body.layers.map(({ id }) => id)).toEqual(['moon']);
    const response = await save(scene.id, body);
    expect(response.body).toEqual({ version: 2 });
    expect(await read(scene.id)).toEqual({ version: 2, scene: after });
    const chunks = await fresh.database.many<{ body: Uint8Array }>(
      'select body from layer_chunks where scene_id = $1 order by chunk',
      [scene.id],
    );
    expect(chunks.map(({ body }) => readChunk(body).map(({ id }) => id)).at(-1)).toEqual(['moon']);
  });

  test('saved from an old version is refused with what the other window did, and nothing is written', async () => {
    const scene = await create();
    await save(scene.id, saveBody(scene, edited(scene, [rename('moon', 'Theirs')]), 1, 'Bert'));
    const mine = edited(scene, [rename('title', 'Mine')]);
    const refused = await save(scene.id, saveBody(scene, mine, 1));
    expect(refused.status).toBe(409);
    expect(refused.body).toMatchObject({
      code: 'conflict',
      version: 2,
      changes: [{ by: 'Bert', layers: ['moon'], version: 2 }],
    });
    const names = (await read(scene.id)).scene.layers
      .filter(({ id }) => id === 'moon' || id === 'title')
      .map(({ name }) => name);
    expect(names).toEqual(['Theirs', 'Title: Star party']);
  });

  test('a save that would break the groups is refused whole', async () => {
    const scene = await create();
    const body = { ...saveBody(scene, edited(scene, [rename('moon', 'New name')]), 1), removedLayers: ['row-01'] };
    const refused = await save(scene.id, body);
    expect(refused.status).toBe(400);
    expect(refused.body.message).toContain('belongs to a group that is not in the scene');
    expect(await read(scene.id)).toEqual({ version: 1, scene });
  });

  test('is copied, renamed, deleted and brought back', async () => {
    const scene = await create();
    const copy = await api().post(`/api/scenes/${scene.id}/copy`).set('Host', 'localhost').send({ by: 'Ada' });
    expect(copy.body.scene).toMatchObject({ name: 'Programme board (copy)', layers: scene.layers });
    await api().patch(`/api/scenes/${scene.id}`).set('Host', 'localhost').send({ name: 'Board', by: 'Ada' });
    await api().delete(`/api/scenes/${copy.body.scene.id}`).set('Host', 'localhost');
    const list = await api().get('/api/scenes').set('Host', 'localhost');
    expect(list.body.map(({ name, layers }: { name: string; layers: number }) => [name, layers])).toEqual([
      ['Board', scene.layers.length],
    ]);
    await api().post(`/api/scenes/${copy.body.scene.id}/restore`).set('Host', 'localhost').send({});
    expect((await read(copy.body.scene.id)).scene.layers).toEqual(scene.layers);
  });
});

test('a deleted scene is gone for good after thirty days, and not before', async () => {
  const scene = await create();
  await api().delete(`/api/scenes/${scene.id}`).set('Host', 'localhost');
  const restore = () => api().post(`/api/scenes/${scene.id}/restore`).set('Host', 'localhost').send({});
  await purgeDeleted(fresh.database, '2026-01-30T00:00:00.000Z');
  expect((await restore()).status).toBe(204);
  await api().delete(`/api/scenes/${scene.id}`).set('Host', 'localhost');
  await purgeDeleted(fresh.database, '2026-02-02T00:00:00.000Z');
  expect((await restore()).status).toBe(404);
  expect(await fresh.database.many('select chunk from layer_chunks')).toEqual([]);
});

test('a conflict tells the last changes, each layer once, however many there were', async () => {
  const scene = await create();
  for (let version = 1; version <= 60; version++) {
    await save(scene.id, saveBody(scene, edited(scene, [rename('moon', `Moon ${version}`)]), version)).expect(200);
  }
  const refused = await save(scene.id, saveBody(scene, edited(scene, [rename('title', 'Mine')]), 1));
  const changes = refused.body.changes as { version: number; layers: string[] }[];
  expect(changes.map(({ version }) => version)).toEqual(Array.from({ length: 50 }, (_, i) => i + 12));
  expect(changes.flatMap(({ layers }) => layers)).toEqual(['moon']);
});

describe('bad requests', () => {
  test.each([
    ['a scene that is not there', 'get', '/api/scenes/ghost', undefined, 404, 'There is no scene “ghost”'],
    ['an address that is not there', 'get', '/api/ghosts', undefined, 404, 'There is no address'],
    [
      'a body without its fields',
      'post',
      '/api/scenes',
      { by: 'Ada' },
      400,
      'The data was refused. scene: This is missing',
    ],
    ['a body that is no JSON', 'post', '/api/scenes', '{oops', 400, 'not valid JSON'],
    ['an unknown field', 'patch', '/api/scenes/x', { name: 'a', by: 'b', admin: true }, 400, 'The data was refused'],
    ['a name of nothing', 'patch', '/api/scenes/x', { name: '  ', by: 'b' }, 400, 'A name is needed.'],
  ] as const)('%s is answered with a sentence', async (_, method, path, body, status, sentence) => {
    const response = await api()
      [method](path)
      .set('Host', '127.0.0.1')
      .set('Content-Type', 'application/json')
      .send(body);
    expect(response.status).toBe(status);
    expect(response.body.message).toContain(sentence);
  });

  test('another site’s page and another host name are turned away', async () => {
    const elsewhere = await api().get('/api/scenes').set('Host', 'wexikine.example');
    expect(elsewhere.status).toBe(403);
    const foreign = await api().get('/api/scenes').set('Host', '127.0.0.1').set('Origin', 'http://other.example');
    expect(foreign.status).toBe(403);
  });

  test('answers carry the headers that keep a page to itself', async () => {
    const { headers } = await api().get('/api/health').set('Host', '127.0.0.1');
    expect(headers['content-security-policy']).toContain("script-src 'self'");
    expect(headers['x-powered-by']).toBeUndefined();
  });
});
