import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { createClear, isHeldText, programmeBoard, type Layer, type SaveRequest } from '@wexikine/core';
import fc from 'fast-check';
import { pino } from 'pino';
import request from 'supertest';
import { createApp } from '../app';
import { createInlineChecker } from '../checking';
import { freshApp, type FreshApp } from '../../testing/fresh-app';

let fresh: FreshApp;
const logged: string[] = [];

beforeAll(async () => {
  fresh = await freshApp();
  const log = pino({ level: 'error' }, { write: (line: string) => void logged.push(line) });
  const surroundings = {
    newId: () => `id-${Math.random().toString(36).slice(2)}`,
    now: () => '2026-01-01T12:00:00.000Z',
  };
  fresh = {
    ...fresh,
    app: createApp({ database: fresh.database, log, checker: createInlineChecker(), ...surroundings }),
  };
  const { id: _id, ...scene } = programmeBoard();
  await send('post', '/api/scenes', JSON.stringify({ scene, by: 'Ada' }));
});

afterAll(() => fresh.close());

type Method = 'get' | 'post' | 'put' | 'patch' | 'delete';

function send(method: Method, path: string, body?: string | Buffer, headers: Record<string, string> = {}) {
  const sent = request(fresh.app)
    [method](path)
    .set('Host', '127.0.0.1')
    .set({ 'Content-Type': 'application/json', ...headers });
  return body === undefined ? sent : sent.serialize((data: unknown) => data as string).send(body);
}

const [layer] = programmeBoard().layers;

function save(change: Partial<Record<keyof SaveRequest, unknown>>): string {
  const body = { base: 1, by: 'Ada', what: 'w', header: null, layers: [], removedLayers: [], order: null };
  return JSON.stringify({ ...body, runs: [], removedRuns: [], runOrder: null, ...change });
}

const recipe = createClear({ by: 'rule' });
const run = { id: 'r', sentence: 's', recipe, by: 'Ada', when: '2026-01-01T00:00:00Z', layers: [], made: {} };
const filled = (fill: string): string => save({ layers: [{ ...layer, look: { fill } } as Layer] });

describe('wrong input is answered with 400 and a sentence', () => {
  test.each<[string, Method, string, string | Buffer | undefined, Record<string, string>, number, string]>([
    ['an id with a NUL', 'get', '/api/scenes/%00', undefined, {}, 404, 'There is no scene'],
    [
      'an address cut off in a character',
      'get',
      '/api/scenes/%E0%A4%A',
      undefined,
      {},
      400,
      'not written as it must be',
    ],
    [
      'an id longer than any',
      'get',
      `/api/library/${'x'.repeat(3_000)}`,
      undefined,
      {},
      404,
      'There is no library item',
    ],
    ['a NUL in a text', 'put', '/api/scenes/id-1', save({ what: 'a\0b' }), {}, 400, 'what: This text holds a NUL'],
    ['half of a character', 'put', '/api/scenes/id-1', '{"what":"\\ud800"}', {}, 400, 'half of a character'],
    ['a NUL in a name', 'put', '/api/scenes/id-1', '{"a\\u0000":1}', {}, 400, 'a name: This text holds'],
    [
      'a version beyond any',
      'put',
      '/api/scenes/id-1',
      save({ base: 3_000_000_000 }),
      {},
      400,
      'base: It must be at most',
    ],
    [
      'a revision beyond any',
      'put',
      '/api/scenes/id-1',
      save({ runs: [{ ...run, preset: { id: 'a', revision: 2 ** 53 - 1, name: '', body: {} } }] }),
      {},
      400,
      'revision',
    ],
    ['a layer twice', 'put', '/api/scenes/id-1', save({ layers: [layer, layer] }), {}, 400, 'A layer is in it twice'],
    ['a run twice', 'put', '/api/scenes/id-1', save({ runs: [run, run] }), {}, 400, 'A run is in it twice'],
    [
      'a year that no calendar has',
      'put',
      '/api/scenes/id-1',
      save({ runs: [{ ...run, when: '0000-01-01T00:00:00Z' }] }),
      {},
      400,
      'not a date and time',
    ],
    [
      'a colour that is not closed',
      'put',
      '/api/scenes/id-1',
      filled('rgb(255 0 0'),
      {},
      400,
      'This is not a CSS colour',
    ],
    [
      'a colour that only begins like one',
      'put',
      '/api/scenes/id-1',
      filled('color('),
      {},
      400,
      'This is not a CSS colour',
    ],
    [
      'another encoding',
      'put',
      '/api/scenes/id-1',
      '{}',
      { 'Content-Type': 'application/json; charset=latin1' },
      400,
      'Send it in UTF-8',
    ],
    [
      'bytes that are no text',
      'put',
      '/api/scenes/id-1',
      Buffer.from([0x7b, 0xff, 0x7d]),
      {},
      400,
      'not text in UTF-8',
    ],
    [
      'an unknown packing',
      'put',
      '/api/scenes/id-1',
      '{}',
      { 'Content-Encoding': 'rot13' },
      400,
      'packed in a way that is not known',
    ],
    [
      'a false gzip',
      'put',
      '/api/scenes/id-1',
      'hello',
      { 'Content-Encoding': 'gzip' },
      400,
      'cannot be read as it was sent',
    ],
    [
      'a recipe 20 000 deep',
      'post',
      '/api/library',
      `${'{"a":'.repeat(20_000)}1${'}'.repeat(20_000)}`,
      {},
      400,
      'nested more than 64 deep',
    ],
    [
      'more than a small request can need',
      'patch',
      '/api/scenes/id-1',
      'x'.repeat(100_000),
      {},
      413,
      'larger than 64 kB',
    ],
    ['nothing at all', 'post', '/api/scenes', '', {}, 400, 'scene: This is missing'],
  ])('%s', async (_, method, path, body, headers, status, sentence) => {
    const response = await send(method, path, body, headers);
    expect([response.status, response.body.message]).toEqual([status, expect.stringContaining(sentence)]);
  });

  test('no request whatever is answered with 500, and no answer speaks of inputs and types', async () => {
    const anyText = fc.oneof(
      fc.string({ unit: 'binary', maxLength: 12 }),
      fc.constantFrom('', '\0', '\ud800', '__proto__', 'programme-board'),
    );
    const anyValue = fc.oneof(fc.jsonValue({ maxDepth: 3 }), anyText, fc.constantFrom(-1, 0, 2 ** 53, 1e308, 3e9));
    const valid = {
      create: { scene: { ...programmeBoard(), id: undefined }, by: 'A' },
      save: JSON.parse(save({ layers: [layer] })) as object,
      item: {
        by: 'A',
        name: 'n',
        note: '',
        tags: [],
        collection: null,
        content: { kind: 'house', body: { type: 'number', value: 1 } },
      },
      move: { by: 'A', base: 1, to: 'published', summary: '' },
      labels: { by: 'A', ids: ['a'] },
      import: { by: 'A', dry: true, zip: 'UEs=', choices: {} },
      tokens: { by: 'A', dry: true, file: 'f', text: '{}' },
    };
    const anyBody = fc
      .tuple(fc.constantFrom(...Object.values(valid)), fc.array(fc.tuple(fc.nat(), anyValue), { maxLength: 2 }))
      .map(([body, changes]) => {
        const changed = { ...(body as Record<string, unknown>) };
        const names = Object.keys(changed);
        for (const [at, value] of changes) changed[names[at % names.length]] = value;
        return JSON.stringify(changed);
      });
    const anyPath = fc
      .tuple(
        fc.constantFrom('/api/scenes/', '/api/library/', '/api/'),
        anyText,
        fc.constantFrom('', '/copy', '/draft', '/draft/move', '/restore'),
      )
      .map(([head, id, tail]) => head + encodeURIComponent(isHeldText(id.replace('\0', '')) ? id : 'x') + tail);
    await fc.assert(
      fc.asyncProperty(
        fc.constantFrom<Method>('get', 'post', 'put', 'patch', 'delete'),
        fc.oneof(
          anyPath,
          fc.constantFrom(
            '/api/scenes',
            '/api/library',
            '/api/library/import',
            '/api/library/tokens',
            '/api/library/pack',
          ),
        ),
        anyBody,
        async (method, path, body) => {
          const response = await send(method, path, method === 'get' ? undefined : body);
          expect([response.status, logged.at(-1)]).not.toEqual([500, expect.anything()]);
          expect(String(response.body?.message ?? '')).not.toMatch(/expected|Invalid/);
        },
      ),
      { numRuns: 400 },
    );
  });
});

test('what was not expected is logged with its cause, and without what was sent', async () => {
  logged.length = 0;
  const broken = {
    ...fresh.database,
    inTransaction: () => Promise.reject(Object.assign(new Error('the cause'), { params: ['SECRET'] })),
  };
  const app = createApp({
    database: broken,
    log: pino({ level: 'error' }, { write: (line: string) => void logged.push(line) }),
    checker: createInlineChecker(),
    newId: () => 'x',
    now: () => '',
  });
  const response = await request(app)
    .put('/api/scenes/id-1')
    .set('Host', '127.0.0.1')
    .set('Content-Type', 'application/json')
    .send(save({ what: 'SECRET' }));
  expect(response.status).toBe(500);
  expect(logged).toHaveLength(1);
  expect(logged[0]).toContain('the cause');
  expect(logged[0]).not.toContain('SECRET');
  const full = {
    ...fresh.database,
    inTransaction: () => Promise.reject(Object.assign(new Error('x'), { code: '53100' })),
  };
  const answer = await request(
    createApp({
      database: full,
      log: pino({ level: 'silent' }),
      checker: createInlineChecker(),
      newId: () => 'x',
      now: () => '',
    }),
  )
    .put('/api/scenes/id-1')
    .set('Host', '127.0.0.1')
    .set('Content-Type', 'application/json')
    .send(save({}));
  expect([answer.status, answer.body.message]).toEqual([507, expect.stringContaining('The disk is full')]);
});
