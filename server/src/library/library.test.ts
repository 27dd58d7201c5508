import { PGlite } from '@electric-sql/pglite';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import {
  createClear,
  createPreset,
  programmeBoard,
  recordOf,
  STARTER_LIBRARY,
  STARTER_PRESETS,
  type CreateItem,
  type LibraryDetail,
  type LibraryEntry,
  type LibraryItem,
} from '@wexikine/core';
import type { Express } from 'express';
import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import request from 'supertest';
import { freshApp, otherApp, type FreshApp } from '../../testing/fresh-app';
import { UPGRADES } from '../scenes/upgrade';
import { openDatabase } from '../database';
import { writeRecords } from '.';

const WHEN = '2026-01-01T00:00:00.000Z';
const HOST = '127.0.0.1';
let fresh: FreshApp;
let app: Express;

async function seeded(): Promise<FreshApp> {
  const made = await freshApp();
  await made.database.inTransaction((queries) => writeRecords(queries, STARTER_LIBRARY.map(recordOf), WHEN));
  return made;
}

beforeAll(async () => {
  fresh = await seeded();
  ({ app } = fresh);
});
afterAll(() => fresh.close());

const get = (path: string, to = app) => request(to).get(path).set('Host', HOST);
const send = (method: 'post' | 'put' | 'patch', path: string, body: object, to = app) =>
  request(to)[method](path).set('Host', HOST).send(body);

const fadeIn = STARTER_PRESETS.find(({ id }) => id === 'fade-in') as (typeof STARTER_PRESETS)[number];

function creation(name: string, body = fadeIn.body): CreateItem {
  return { by: 'Ada', name, note: 'A note.', tags: [], collection: null, content: { kind: 'preset', body } };
}

async function begin(name: string): Promise<LibraryEntry> {
  const response = await send('post', '/api/library', creation(name)).expect(201);
  return response.body as LibraryEntry;
}

async function detail(id: string): Promise<LibraryDetail> {
  return (await get(`/api/library/${id}`).expect(200)).body as LibraryDetail;
}

function move(id: string, base: number, to: string, summary = '') {
  return send('post', `/api/library/${id}/draft/move`, { by: 'Ben', base, to, summary });
}

describe('the library', () => {
  test('lists every item once, with its newest revision and how often it is used', async () => {
    const entries = (await get('/api/library').expect(200)).body as LibraryEntry[];
    expect(entries).toHaveLength(STARTER_LIBRARY.length);
    const byId = new Map(STARTER_LIBRARY.map((item) => [item.id, item]));
    for (const { item, draft, uses } of entries) {
      expect(item).toEqual(byId.get(item.id));
      expect([draft, uses]).toEqual([null, { scenes: 0, layers: 0 }]);
    }
  });

  test('gives some items alone, and says of an unknown one that it is not there', async () => {
    const some = (await get('/api/library?ids=fade-in,nod').expect(200)).body as LibraryEntry[];
    expect(some.map(({ item }) => item.id)).toEqual(['fade-in', 'nod']);
    const { body } = await get('/api/library/ghost').expect(404);
    expect(body).toMatchObject({ message: 'There is no library item “ghost”. It may have been deleted.' });
  });

  test('knows where an item is used: scenes, layers and revision, and what a preset took from it', async () => {
    const { id: _id, ...scene } = programmeBoard();
    const run = {
      id: 'run-1',
      sentence: 'Bring in',
      recipe: createClear({ by: 'rule' }),
      preset: { id: 'take-a-breath', revision: 1, name: 'Take a breath', body: {} },
      uses: [{ id: 'house-breath', revision: 1 }],
      by: 'Ada',
      when: WHEN,
      layers: ['moon', 'title'],
      made: {},
    };
    const response = await send('post', '/api/scenes', { scene: { ...scene, runs: [run] }, by: 'Ada' }).expect(201);
    const use = { scene: response.body.scene.id, sceneName: 'Programme board', revision: 1, runs: 1, layers: 2 };
    expect((await detail('take-a-breath')).uses).toEqual([use]);
    expect((await detail('house-breath')).uses).toEqual([use]);
    expect((await detail('take-a-breath')).entry.uses).toEqual({ scenes: 1, layers: 2 });
  });
});

describe('curves that keys are linked to', () => {
  const link = { id: 'curve-swing', name: 'Swing', revision: 1 };
  const linked = (curve?: typeof link) => {
    const { id: _id, ...board } = programmeBoard();
    const ease = { type: 'bezier', x1: 0.3, y1: 0, x2: 0.2, y2: 1, ...(curve ? { curve } : {}) };
    const keys = [
      { at: 0, value: 0, ease },
      { at: 1000, value: 1, ease },
    ];
    const layers = board.layers.map((layer, i) => (i < 3 ? { ...layer, tracks: { opacity: keys } } : layer));
    return { ...board, layers };
  };

  test('are told where they are used, in copies too, until the links are gone', async () => {
    const before = (await detail('curve-swing')).entry.uses;
    const made = await send('post', '/api/scenes', { scene: linked(link), by: 'Ada' }).expect(201);
    const { id } = made.body.scene;
    const use = { sceneName: 'Programme board', revision: 1, runs: 0, layers: 3 };
    expect((await detail('curve-swing')).uses).toContainEqual({ ...use, scene: id });
    const copy = await send('post', `/api/scenes/${id}/copy`, { by: 'Ada' }).expect(201);
    expect((await detail('curve-swing')).entry.uses).toEqual({
      scenes: before.scenes + 2,
      layers: before.layers + 6,
    });
    expect((await detail('curve-swing')).uses.map(({ scene }) => scene)).toContain(copy.body.scene.id);
    const none = { header: null, order: null, removedLayers: [], runs: [], removedRuns: [], runOrder: null };
    const layers = linked().layers.slice(0, 3);
    await send('put', `/api/scenes/${id}`, { base: 1, by: 'Ada', what: 'Unlink', ...none, layers }).expect(200);
    expect((await detail('curve-swing')).uses.map(({ scene }) => scene)).not.toContain(id);
  });
});

describe('the way of an item', () => {
  test('from draft through review to published, each step with who and when', async () => {
    const { item, draftVersion } = await begin('Mine');
    expect(item).toMatchObject({ state: 'draft', revision: 1, name: 'Mine', author: 'Ada' });
    const content = { kind: 'preset', body: { ...fadeIn.body, stretch: 'scale' } };
    const saved = await send('put', `/api/library/${item.id}/draft`, {
      by: 'Ada',
      base: draftVersion,
      name: 'Mine',
      note: '',
      content,
    }).expect(200);
    expect(saved.body.draftVersion).toBe(2);
    expect((await move(item.id, 2, 'in review').expect(200)).body.item.state).toBe('in review');
    const published = (await move(item.id, 3, 'published', 'first').expect(200)).body as LibraryEntry;
    expect(published).toMatchObject({
      draft: null,
      item: { state: 'published', revision: 1, author: 'Ben', summary: 'first' },
    });
    const { changes, record } = await detail(item.id);
    expect(changes.map(({ by, what }) => `${by}: ${what}`)).toEqual([
      'Ben: Published r1: first',
      'Ben: Sent r1 for review',
      'Ada: Began the preset “Mine”',
    ]);
    expect(record.revisions).toHaveLength(1);
  });

  test('a draft of the next revision stands beside the published one until it is published', async () => {
    const draft = {
      by: 'Ada',
      base: 0,
      name: 'Fade in',
      note: 'Slower.',
      content: { kind: 'preset', body: fadeIn.body },
    };
    const entry = (await send('put', '/api/library/fade-in/draft', draft).expect(200)).body as LibraryEntry;
    expect(entry).toMatchObject({ item: { revision: 1, note: fadeIn.note }, draft: { revision: 2, note: 'Slower.' } });
    await move('fade-in', 1, 'published').expect(200);
    expect((await detail('fade-in')).record.revisions.map(({ note }) => note)).toEqual([fadeIn.note, 'Slower.']);
  });

  test('a later window is told that the draft was changed, and nothing is written over', async () => {
    const { item } = await begin('Shared');
    const save = (name: string, base: number) =>
      send('put', `/api/library/${item.id}/draft`, {
        by: name,
        base,
        name,
        note: '',
        content: { kind: 'preset', body: fadeIn.body },
      });
    await save('Ben', 1).expect(200);
    const { body } = await save('Ada', 1).expect(409);
    expect(body).toMatchObject({ code: 'conflict', version: 2 });
    expect(body.message).toMatch(/^Ben changed this draft in another window/);
    expect((await detail(item.id)).entry.item.name).toBe('Ben');
  });

  test('what is not sound cannot be published, with the reason', async () => {
    const empty = (await send('post', '/api/library', creation('Empty', createPreset('entrance'))).expect(201)).body;
    const { body } = await move(empty.item.id, 1, 'published').expect(400);
    expect(body.message).toBe('It cannot be published yet. The preset moves no channel yet. Add one.');
    const [row] = fadeIn.body.rows;
    const wrong = { ...fadeIn.body, rows: [{ ...row, cells: row.cells.map((cell) => ({ ...cell, value: '20px' })) }] };
    const broken = (await send('post', '/api/library', creation('Broken', wrong)).expect(201)).body;
    expect((await move(broken.item.id, 1, 'published').expect(400)).body.message).toContain('This gives a length');
    expect((await detail(broken.item.id)).record.revisions).toEqual([]);
  });

  test('markup in a name is refused where it comes in', async () => {
    const { body } = await send('post', '/api/library', creation('<img src=x onerror=alert(1)>')).expect(400);
    expect(body.message).toContain('plain text');
  });

  test('a discarded draft of something new takes the item along, and it can come back under its id', async () => {
    const { item } = await begin('Short-lived');
    await send('post', `/api/library/${item.id}/draft/discard`, { by: 'Ada', base: 1 }).expect(204);
    await get(`/api/library/${item.id}`).expect(404);
    await send('post', '/api/library', { ...creation('Short-lived'), id: item.id }).expect(201);
    await send('post', '/api/library', { ...creation('Again'), id: item.id }).expect(400);
  });

  test('retired items stay, with every revision, and can come back', async () => {
    await send('patch', '/api/library', { by: 'Ada', ids: ['nod', 'bump'], retired: true, addTags: ['old'] }).expect(
      200,
    );
    const { entry, record } = await detail('nod');
    expect([entry.item.state, record.revisions.length, record.tags]).toEqual(['retired', 1, ['attention', 'old']]);
    const back = { by: 'Ada', ids: ['nod', 'bump'], retired: false, removeTags: ['old'], collection: 'Quiet' };
    await send('patch', '/api/library', back).expect(200);
    expect((await detail('bump')).changes.map(({ what }) => what)).toEqual([
      'Took off the tags old; Moved to “Quiet”; Brought back from retirement',
      'Tagged old; Retired',
    ]);
  });

  test('labels of several items change all or not at all', async () => {
    await send('patch', '/api/library', { by: 'Ada', ids: ['drift', 'ghost'], addTags: ['x'] }).expect(404);
    expect((await detail('drift')).record.tags).not.toContain('x');
    const { item } = await begin('Never out');
    const { body } = await send('patch', '/api/library', { by: 'Ada', ids: ['drift', item.id], retired: true }).expect(
      400,
    );
    expect(body.message).toContain('was never published');
    expect((await detail('drift')).record.retired).toBe(false);
  });
});

test('published revisions cannot be changed, removed or emptied in the database itself', async () => {
  for (const sql of [
    `update revisions set content = '{}' where item_id = 'fade-in'`,
    `delete from revisions where item_id = 'fade-in'`,
    'truncate revisions',
  ]) {
    await expect(fresh.database.run(sql)).rejects.toThrow('Published revisions never change.');
  }
});

test('a database of the first version is brought up to date with its items', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'wexikine-migrations-'));
  const source = join(__dirname, '../../migrations');
  const copy = (name: string): void => writeFileSync(join(folder, name), readFileSync(join(source, name)));
  copy('001_library_and_scenes.sql');
  const pglite = new PGlite();
  const old = await openDatabase(pglite, folder, {});
  const content = { ...fadeIn, format: 'wexikine-item-1', tags: ['calm'] };
  await old.run(`insert into items values ('fade-in', 'preset', 'published', 1, now())`);
  await old.run(`insert into revisions values ('fade-in', 1, $1::jsonb, now())`, [JSON.stringify(content)]);
  readdirSync(source).forEach(copy);
  const database = await openDatabase(pglite, folder, UPGRADES);
  const { manyEntries } = await import('./records');
  const entries = await manyEntries(database, null);
  const item = entries.find((entry) => entry.item.id === 'fade-in')?.item;
  expect(item).toEqual({ ...fadeIn, tags: ['calm'] } satisfies LibraryItem);
  await database.close();
});

describe('packs', () => {
  const canonical = async (of: Express): Promise<string> => (await get('/api/library/canonical', of).expect(200)).text;
  const packOf = async (ids: readonly string[], of = app): Promise<string> => {
    const { body } = await send('post', '/api/library/pack', { ids }, of).buffer(true).parse(collectBytes).expect(200);
    return (body as Buffer).toString('base64');
  };
  const bring = (zip: string, more: object, to: Express) =>
    send('post', '/api/library/import', { by: 'Ada', dry: false, zip, choices: {}, ...more }, to);

  test('a whole library goes through a pack into an empty one, byte for byte', async () => {
    const before = await canonical(app);
    const zip = await packOf([]);
    const other = await otherApp();
    const { body } = await bring(zip, {}, other.app).expect(200);
    expect(body.written).toBe(JSON.parse(before).items.length);
    expect(await canonical(other.app)).toBe(before);
    expect(await packOf([], other.app)).toBe(zip);
    await other.close();
  });

  test('a pack of one item brings what it needs; a dry import only reports', async () => {
    const zip = await packOf(['fade-in-and-out']);
    const other = await otherApp();
    const { body } = await bring(zip, { dry: true }, other.app).expect(200);
    expect(body.entries.map(({ id, status }: { id: string; status: string }) => [id, status])).toEqual([
      ['fade-in-and-out', 'new'],
      ['house-steady', 'new'],
    ]);
    expect(await canonical(other.app)).toContain('"items": []');
    await other.close();
  });

  test('a broken pack changes nothing, and neither does one with a single broken item', async () => {
    const before = await canonical(app);
    const cut = Buffer.from(await packOf([]), 'base64')
      .subarray(0, 5_000)
      .toString('base64');
    const { body } = await bring(cut, {}, app).expect(200);
    expect(body).toMatchObject({ written: 0, problems: [expect.stringContaining('cut off')] });
    expect(await canonical(app)).toBe(before);
    await bring('not base64!', {}, app).expect(400);
  });
});

describe('design tokens', () => {
  const read = (text: string, dry: boolean) =>
    send('post', '/api/library/tokens', { by: 'Ada', dry, file: 'brand.json', text });

  test('become house values, and a second reading changes nothing', async () => {
    const text = JSON.stringify({ motion: { quick: { $type: 'duration', $value: { value: 100, unit: 'ms' } } } });
    expect((await read(text, true).expect(200)).body.written).toBe(0);
    expect((await read(text, false).expect(200)).body.written).toBe(1);
    expect((await detail('motion-quick')).record).toMatchObject({
      kind: 'house',
      collection: 'motion',
      revisions: [{ name: 'quick', author: 'Ada', summary: 'From brand.json.', body: { value: '100ms' } }],
    });
    expect((await read(text, false).expect(200)).body.written).toBe(0);
  });

  test('that are no tokens, or that carry markup in a name, are refused with a sentence', async () => {
    expect((await read('{}', false).expect(400)).body.message).toContain('no design tokens');
    const markup = JSON.stringify({ '<b>': { $type: 'number', $value: 1 } });
    expect((await read(markup, false).expect(400)).body.message).toContain('plain text');
  });
});

test('every change is told to open windows, and closing one is noticed', async () => {
  const server = createServer(app);
  await new Promise<void>((ready) => server.listen(0, HOST, ready));
  const { port } = server.address() as AddressInfo;
  const stop = new AbortController();
  const stream = await fetch(`http://${HOST}:${port}/api/events`, { signal: stop.signal });
  expect(stream.headers.get('content-type')).toContain('text/event-stream');
  const reader = (stream.body as ReadableStream<Uint8Array>).getReader();
  await send('patch', '/api/library', { by: 'Ada', ids: ['drift'], addTags: ['told'] }).expect(200);
  let heard = '';
  while (!heard.includes('data:')) heard += new TextDecoder().decode((await reader.read()).value);
  expect(heard).toContain('data: {"topic":"library","ids":["drift"]}');
  const { id: _id, ...scene } = programmeBoard();
  const made = (await send('post', '/api/scenes', { scene, by: 'Ada' }).expect(201)).body.scene as { id: string };
  await send('patch', `/api/scenes/${made.id}`, { name: 'Told', by: 'Ben' }).expect(200);
  while (!heard.includes('"topic":"scene"')) heard += new TextDecoder().decode((await reader.read()).value);
  expect(heard).toContain(`{"topic":"scene","id":"${made.id}","version":2,"by":"Ben","what":"Rename to “Told”"}`);
  stop.abort();
  server.closeAllConnections();
  await new Promise((done) => server.close(done));
});

function collectBytes(response: request.Response, done: (error: Error | null, body: Buffer) => void): void {
  const chunks: Buffer[] = [];
  const stream = response as unknown as NodeJS.ReadableStream;
  stream.on('data', (chunk: Buffer) => chunks.push(chunk));
  stream.on('end', () => done(null, Buffer.concat(chunks)));
}
