import { beforeEach, describe, expect, test } from '@jest/globals';
import {
  apply,
  createRecipe,
  createShelf,
  difference,
  headerOf,
  packLayers,
  plan,
  sceneSchema,
  STARTER_LIBRARY,
  unpackScene,
  type Layer,
  type PackedScene,
  type Scene,
  type UploadPart,
} from '@wexikine/core';
import request from 'supertest';
import { freshApp, type FreshApp } from '../../testing/fresh-app';
import { purgeDeleted, readScene } from './scenes';

let fresh: FreshApp;

beforeEach(async () => {
  fresh = await freshApp();
});

const HOST = '127.0.0.1';
const send = (method: 'post' | 'put', path: string, body: object) =>
  request(fresh.app)[method](path).set('Host', HOST).send(body);

function card(i: number): Layer {
  return {
    id: `l${i}`,
    name: `Layer ${i}`,
    kind: 'card',
    parent: null,
    tags: [],
    locked: false,
    hidden: false,
    span: { in: 0, out: 705_600_000 * 10 },
    rest: { 'position.x': i, 'size.x': 10, 'size.y': 10 },
    tracks: {},
    look: { fill: '#ffffff' },
    source: { type: 'rectangle' },
    data: {},
  };
}

const shelf = createShelf(STARTER_LIBRARY);
const LAYERS = 150;
const plain: Scene = {
  format: 'wexikine-scene-2',
  id: 'new',
  name: 'Many',
  project: '',
  width: 100,
  height: 100,
  rate: { num: 25, den: 1 },
  length: 705_600_000 * 10,
  cues: [],
  layers: Array.from({ length: LAYERS }, (_, i) => card(i)),
  runs: [],
};

function withRun(scene: Scene): Scene {
  const recipe = createRecipe('bring-in', 'rise-and-settle', { by: 'rule', name: '*' });
  const context = { runId: `run-${scene.runs.length}`, by: 'Ada', when: '2026-01-01T00:00:00.000Z' };
  const done = apply(scene, plan(scene, shelf, recipe, context).edits);
  if (!done.ok) throw new Error(done.problem.code);
  return done.scene;
}

function partsOf(layers: readonly Layer[], runs: Scene['runs']): UploadPart[] {
  const half = Math.ceil(layers.length / 2);
  return [
    { layers: packLayers(layers.slice(0, half)), runs: [] },
    { layers: packLayers(layers.slice(half)), runs: [] },
    { layers: null, runs: [...runs] },
  ];
}

async function upload(id: string, parts: readonly UploadPart[]): Promise<void> {
  for (const [i, part] of parts.entries()) await send('put', `/api/scenes/uploads/${id}/${i}`, part).expect(204);
}

async function createInParts(scene: Scene): Promise<string> {
  await upload('up', partsOf(scene.layers, scene.runs));
  const order = scene.layers.map(({ id }) => id);
  const runOrder = scene.runs.map(({ id }) => id);
  const body = { header: headerOf(scene), order, runOrder, upload: { id: 'up', parts: 3 }, by: 'Ada' };
  const answer = await send('post', '/api/scenes/from-parts', body).expect(201);
  return answer.body.id as string;
}

function saveOf(before: Scene, after: Scene, parts: number, base = 1) {
  const { header, removedLayers, order, removedRuns, runOrder } = difference(before, after);
  const change = { header, layers: [], removedLayers, order, runs: [], removedRuns, runOrder };
  return { base, by: 'Ada', what: 'A step', ...change, upload: { id: 'save', parts } };
}

describe('a scene in parts', () => {
  test('is created and read as it was, plain and packed', async () => {
    const scene = withRun(plain);
    const id = await createInParts(scene);
    const get = (path: string) => request(fresh.app).get(path).set('Host', HOST).expect(200);
    const wanted = { version: 1, scene: { ...scene, id } };
    expect((await get(`/api/scenes/${id}`)).body).toEqual(wanted);
    expect(unpackScene((await get(`/api/scenes/${id}/packed`)).body as PackedScene)).toEqual(wanted);
    expect(sceneSchema.safeParse(wanted.scene).success).toBe(true);
  });

  test('is saved whole: what changed in parts, and the rest as it was', async () => {
    const id = await createInParts(plain);
    const before = { ...plain, id };
    const after = withRun(before);
    const { layers, runs } = difference(before, after);
    await upload('save', partsOf(layers, [...runs]));
    await send('put', `/api/scenes/${id}`, saveOf(before, after, 3)).expect(200);
    expect((await readScene(fresh.database, id)).scene).toEqual(after);
    expect(await fresh.database.many('select part from upload_parts')).toEqual([]);
  });

  test('of which one did not arrive is refused, and nothing is saved', async () => {
    const id = await createInParts(plain);
    const before = { ...plain, id };
    const after = withRun(before);
    const { layers, runs } = difference(before, after);
    await upload('save', partsOf(layers, [...runs]).slice(0, 2));
    const refused = await send('put', `/api/scenes/${id}`, saveOf(before, after, 3)).expect(400);
    expect(refused.body.message).toBe('Of 3 parts of this scene 2 arrived. Nothing was saved; save again.');
    expect(await readScene(fresh.database, id)).toEqual({ version: 1, scene: before });
  });

  test('a part that is sent again takes the place of the first', async () => {
    await upload('up', [{ layers: packLayers([card(900)]), runs: [] }]);
    const id = await createInParts(plain);
    expect((await readScene(fresh.database, id)).scene.layers).toEqual(plain.layers);
  });

  test('saved from an old version is refused with its parts kept, so that nothing need be sent twice', async () => {
    const id = await createInParts(plain);
    const before = { ...plain, id };
    const after = withRun(before);
    const { layers, runs } = difference(before, after);
    await upload('save', partsOf(layers, [...runs]));
    await send('put', `/api/scenes/${id}`, saveOf(before, after, 3, 7)).expect(409);
    await send('put', `/api/scenes/${id}`, saveOf(before, after, 3)).expect(200);
  });

  test('broken parts are refused with the layer and what is wrong with it', async () => {
    const packed = packLayers([withRun(plain).layers[0]]);
    const [first] = packed.layers;
    const channel = Object.keys(first.tracks)[0] as keyof typeof first.tracks;
    const cases: [number[], string][] = [
      [[0, 1, 0], 'cut off in the middle of a key'],
      [[5, 1, 0, 0, 5, 2, 0, 0], 'in order of time'],
      [[5, 1, 99, 0], 'an easing that is not listed'],
      [[5, 1, 0, 99], 'an origin that is not listed'],
      [[0.5, 1, 0, 0], 'a whole number of ticks'],
      [[], 'must be left out'],
      [[5, 1e15, 0, 0], 'at most 1000000000000'],
    ];
    for (const [numbers, sentence] of cases) {
      const layers = { ...packed, layers: [{ ...first, tracks: { [channel]: numbers } }] };
      const refused = await send('put', '/api/scenes/uploads/bad/0', { layers, runs: [] }).expect(400);
      expect(refused.body.message).toContain('Layer “Layer 0”');
      expect(refused.body.message.toLowerCase()).toContain(sentence.toLowerCase());
    }
  });

  test('parts of saves that were never done are swept after an hour, and not before', async () => {
    await upload('left', [{ layers: packLayers([card(1)]), runs: [] }]);
    const count = async () => (await fresh.database.many('select part from upload_bodies')).length;
    await purgeDeleted(fresh.database, '2026-01-01T12:30:00.000Z');
    expect(await count()).toBe(1);
    await purgeDeleted(fresh.database, '2026-01-01T13:30:00.000Z');
    expect(await count()).toBe(0);
  });
});

test('many saves of single layers are put together, and every layer stays as it was saved last', async () => {
  let standing: Scene = { ...plain, id: await createInParts(plain) };
  for (let i = 0; i < 40; i++) {
    const layers = standing.layers.with(i, { ...standing.layers[i], name: `Renamed ${i}` });
    const after = { ...standing, layers };
    const { header, removedLayers, order, removedRuns, runOrder } = difference(standing, after);
    const change = { header, layers: [layers[i]], removedLayers, order, runs: [], removedRuns, runOrder };
    await send('put', `/api/scenes/${standing.id}`, { base: i + 1, by: 'Ada', what: 'Rename', ...change }).expect(200);
    standing = after;
  }
  expect((await readScene(fresh.database, standing.id)).scene.layers).toEqual(standing.layers);
  const chunks = await fresh.database.many('select chunk from layer_chunks');
  expect(chunks.length).toBeLessThan(20);
});
