import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { fileAddress, programmeBoard, type KeptFile, type Layer, type Scene } from '@wexikine/core';
import { createHash } from 'node:crypto';
import request from 'supertest';
import { freshApp, type FreshApp } from '../../testing/fresh-app';

let fresh: FreshApp;

beforeEach(async () => {
  fresh = await freshApp();
});

afterEach(async () => {
  await fresh.close();
});

/** Bytes that begin as a PNG file does. */
const PNG = Buffer.concat([Buffer.from([0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10]), Buffer.alloc(3_000_000, 7)]);

function nameOf(body: Uint8Array, ending = 'png'): string {
  return `${createHash('sha256').update(body).digest('hex')}.${ending}`;
}

function ask(method: 'get' | 'put' | 'delete' | 'head', path: string) {
  return request(fresh.app)[method](`/api/files${path}`).set('Host', '127.0.0.1');
}

async function keep(body: Buffer, name = nameOf(body)): Promise<number> {
  const answer = await ask('put', `/${name}?title=A%20picture`).set('Content-Type', 'image/png').send(body);
  return answer.status;
}

async function listed(): Promise<KeptFile[]> {
  return (await ask('get', '/')).body as KeptFile[];
}

/** A scene whose first layer shows a picture that is kept as a file. */
function withPicture(name: string): Omit<Scene, 'id'> {
  const { id: _id, ...scene } = programmeBoard();
  const picture: Layer = {
    ...scene.layers[0],
    kind: 'picture',
    source: { type: 'picture', href: fileAddress(name), width: 30, height: 20 },
  };
  return { ...scene, layers: [picture, ...scene.layers.slice(1)] };
}

describe('files', () => {
  test('are kept once by their content, given back whole, and by range', async () => {
    const name = nameOf(PNG);
    expect(await keep(PNG)).toBe(204);
    expect(await keep(PNG)).toBe(204);
    expect(await listed()).toMatchObject([{ name, title: 'A picture', size: PNG.length, uses: [] }]);
    const whole = await ask('get', `/${name}`).buffer(true);
    expect([whole.status, whole.headers['content-type']]).toEqual([200, 'image/png']);
    expect(Buffer.compare(whole.body as Buffer, PNG)).toBe(0);
    expect(whole.headers['cache-control']).toContain('immutable');
    const part = await ask('get', `/${name}`).set('Range', 'bytes=1-3').buffer(true);
    expect([part.status, part.headers['content-range']]).toEqual([206, `bytes 1-3/${PNG.length}`]);
    expect((part.body as Buffer).toString()).toBe('PNG');
    const end = await ask('get', `/${name}`).set('Range', 'bytes=-5').buffer(true);
    expect((end.body as Buffer).length).toBe(5);
    expect((await ask('get', `/${name}`).set('Range', `bytes=${PNG.length}-`)).status).toBe(416);
    expect((await ask('get', `/${name}`).set('If-None-Match', `"${name}"`)).status).toBe(304);
    const head = await ask('head', `/${name}`);
    expect([head.status, head.headers['content-length']]).toEqual([200, String(PNG.length)]);
  });

  test('what was not known of a kept one is added when it is sent again, and what was stays', async () => {
    const name = nameOf(PNG);
    const send = (facts: object) =>
      ask('put', `/${name}?title=A&facts=${encodeURIComponent(JSON.stringify(facts))}`)
        .set('Content-Type', 'image/png')
        .send(PNG);
    expect((await send({ width: 30, height: 20 })).status).toBe(204);
    expect((await send({ width: 99, seconds: 4 })).status).toBe(204);
    expect(await listed()).toMatchObject([{ name, facts: { width: 30, height: 20, seconds: 4 } }]);
  });

  test('what is empty, not what its name says, or did not arrive whole is refused with the reason', async () => {
    const put = async (name: string, body: Buffer): Promise<string> =>
      ((await ask('put', `/${name}`).set('Content-Type', 'image/png').send(body)).body as { message: string }).message;
    expect(await put(nameOf(PNG, 'webp'), PNG)).toMatch(/not WebP/);
    expect(await put(nameOf(Buffer.from('x')), PNG)).toMatch(/did not arrive/);
    const page = Buffer.from('<html><script>alert(1)</script></html>');
    expect(await put(nameOf(page, 'svg'), page)).toMatch(/not SVG/);
    expect(await put(nameOf(Buffer.alloc(0)), Buffer.alloc(0))).toMatch(/empty/);
    expect((await ask('get', '/..%2f..%2fetc')).status).toBe(404);
    expect((await ask('get', `/${nameOf(PNG)}`)).status).toBe(404);
    expect(await listed()).toEqual([]);
  });

  test('a drawing may do nothing when it is opened by itself', async () => {
    const drawing = Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script></svg>');
    const name = nameOf(drawing, 'svg');
    await keep(drawing, name);
    const answer = await ask('get', `/${name}`);
    expect(answer.headers['content-security-policy']).toMatch(/default-src 'none'.*sandbox/);
    expect(answer.headers['x-content-type-options']).toBe('nosniff');
  });

  test('one that a layer uses stays, in a copy and in a deleted scene too, and goes when nothing uses it', async () => {
    const name = nameOf(PNG);
    await keep(PNG);
    const api = request(fresh.app);
    const made = await api
      .post('/api/scenes')
      .set('Host', '127.0.0.1')
      .send({ scene: withPicture(name), by: 'Ada' });
    const { id } = made.body.scene as Scene;
    const copy = await api.post(`/api/scenes/${id}/copy`).set('Host', '127.0.0.1').send({ by: 'Ada' });
    expect((await listed())[0].uses.map(({ layers }) => layers)).toEqual([1, 1]);
    const refused = await ask('delete', `/${name}`);
    expect([refused.status, (refused.body as { message: string }).message]).toEqual([
      409,
      expect.stringMatching(/used in “Programme board”, “Programme board \(copy\)”/),
    ]);
    const copied = copy.body as { scene: Scene; version: number };
    const body = {
      base: copied.version,
      by: 'Ada',
      what: 'Remove',
      header: null,
      layers: [],
      removedLayers: [copied.scene.layers[0].id],
      order: null,
      runs: [],
      removedRuns: [],
      runOrder: null,
    };
    const saved = await api.put(`/api/scenes/${copied.scene.id}`).set('Host', '127.0.0.1').send(body);
    expect(saved.status).toBe(200);
    expect((await listed())[0].uses).toHaveLength(1);
    await api.delete(`/api/scenes/${id}`).set('Host', '127.0.0.1');
    expect((await ask('delete', `/${name}`)).status).toBe(409);
    expect((await listed())[0].uses).toMatchObject([{ sceneName: 'Programme board', layers: 1, isDeleted: true }]);
    await api.post(`/api/scenes/${id}/restore`).set('Host', '127.0.0.1');
    const unused = Buffer.concat([PNG, Buffer.from('x')]);
    await keep(unused);
    expect((await ask('delete', `/${nameOf(unused)}`)).status).toBe(204);
    expect((await listed()).map((file) => file.name)).toEqual([name]);
  });
});
