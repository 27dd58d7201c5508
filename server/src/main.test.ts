import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { packLayers, type SaveRequest, type StoredScene } from '@wexikine/core';
import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { cpSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import type { Readable } from 'node:stream';

const MAIN = resolve(__dirname, '../dist/main.js');
/** Milliseconds for what starts servers. */
const SLOW = 90_000;

/** A folder whose database is made and filled, which every test begins with a copy of: making one takes seconds. */
const filled = mkdtempSync(join(tmpdir(), 'wexikine-filled-'));
let folder = filled;
const running: ChildProcess[] = [];

beforeAll(async () => {
  const { child } = await start();
  child.kill('SIGINT');
  await once(child, 'exit');
}, SLOW);

beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'wexikine-'));
  cpSync(filled, folder, { recursive: true });
});

afterAll(() => rmSync(filled, { recursive: true, force: true }));

afterEach(() => {
  for (const process of running.splice(0)) process.kill('SIGKILL');
  rmSync(folder, { recursive: true, force: true });
});

function launch(): ChildProcess {
  const child = spawn(process.execPath, [MAIN], {
    env: { ...process.env, WEXIKINE_DATA: folder, PORT: '0', NODE_OPTIONS: '' },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  running.push(child);
  return child;
}

/** Starts a server and gives its address. */
async function start(): Promise<{ child: ChildProcess; address: string }> {
  const child = launch();
  for await (const chunk of child.stdout as AsyncIterable<Buffer>) {
    const ready = /ready at (http:\S+)\//.exec(String(chunk));
    if (ready) return { child, address: ready[1] };
  }
  throw new Error('The server ended before it was ready.');
}

async function output(child: ChildProcess): Promise<{ code: number | null; text: string }> {
  let text = '';
  child.stderr?.on('data', (chunk) => (text += String(chunk)));
  const [code] = (await once(child, 'close')) as [number | null];
  return { code, text };
}

async function load(address: string): Promise<StoredScene> {
  return (await (await fetch(`${address}/api/scenes/programme-board`)).json()) as StoredScene;
}

function saveName(address: string, stored: StoredScene, name: string, version: number): Promise<Response> {
  const layers = stored.scene.layers.map((layer) => ({ ...layer, name }));
  const body: SaveRequest = {
    base: version,
    by: 'Test',
    what: name,
    header: null,
    layers,
    removedLayers: [],
    order: null,
    runs: [],
    removedRuns: [],
    runOrder: null,
  };
  return fetch(`${address}/api/scenes/programme-board`, {
    method: 'PUT',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(body),
  });
}

/** Saves all layers under a name, five at a time. True when it was acknowledged. */
async function saveInParts(address: string, stored: StoredScene, name: string, version: number): Promise<boolean> {
  const put = (path: string, body: object): Promise<Response> =>
    fetch(`${address}/api/scenes/${path}`, {
      method: 'PUT',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    });
  const layers = stored.scene.layers.map((layer) => ({ ...layer, name }));
  const id = `save-${version}`;
  let parts = 0;
  for (let i = 0; i < layers.length; i += 5) {
    await put(`uploads/${id}/${parts++}`, { layers: packLayers(layers.slice(i, i + 5)), runs: [] });
  }
  const change = {
    header: null,
    layers: [],
    removedLayers: [],
    order: null,
    runs: [],
    removedRuns: [],
    runOrder: null,
  };
  const body = { base: version, by: 'Test', what: name, ...change, upload: { id, parts } };
  return (await put('programme-board', body)).ok;
}

describe('the server', () => {
  test(
    'killed in the middle of saving, it starts again with everything that was acknowledged, and nothing half done',
    async () => {
      const first = await start();
      const stored = await load(first.address);
      let acknowledged = stored.version;
      const saving = (async () => {
        for (let version = stored.version; ; version++) {
          const response = await saveName(first.address, stored, `Name ${version + 1}`, version);
          if (!response.ok) return;
          acknowledged = ((await response.json()) as { version: number }).version;
          if (acknowledged === stored.version + 4) setTimeout(() => first.child.kill('SIGKILL'), 15);
        }
      })().catch(() => undefined);
      await once(first.child, 'exit');
      await saving;
      expect(acknowledged).toBeGreaterThan(stored.version + 3);
      const second = await start();
      const after = await load(second.address);
      expect(after.version - acknowledged === 0 || after.version - acknowledged === 1).toBe(true);
      expect(new Set(after.scene.layers.map(({ name }) => name))).toEqual(new Set([`Name ${after.version}`]));
    },
    SLOW,
  );

  test(
    'killed at any time while a save comes in parts, the scene is as it was saved last, or as before',
    async () => {
      let { child, address } = await start();
      const stored = await load(address);
      let { version } = stored;
      for (const delay of [0, 40, 120, 250]) {
        const saving = saveInParts(address, stored, `Name ${version + 1}`, version).catch(() => false);
        setTimeout(() => child.kill('SIGKILL'), delay);
        const wasAcknowledged = await saving;
        if (child.exitCode === null && child.signalCode === null) await once(child, 'exit');
        ({ child, address } = await start());
        const after = await load(address);
        expect(after.version - version).toBeGreaterThanOrEqual(wasAcknowledged ? 1 : 0);
        expect(after.version - version).toBeLessThanOrEqual(1);
        const names = new Set(after.scene.layers.map(({ name }) => name));
        if (after.version > stored.version) expect(names).toEqual(new Set([`Name ${after.version}`]));
        else expect(after.scene).toEqual(stored.scene);
        ({ version } = after);
      }
    },
    SLOW,
  );

  test(
    'a second one on the same folder is refused with a sentence; after Ctrl-C the folder is free, and the start is quick',
    async () => {
      const { child, address } = await start();
      const refused = await output(launch());
      expect(refused.code).toBe(1);
      expect(refused.text).toContain('is in use by another Wexikine server');
      expect((await fetch(`${address}/api/health`)).status).toBe(200);
      child.kill('SIGINT');
      const [code] = (await once(child, 'exit')) as [number];
      expect(code).toBe(0);
      const again = await start();
      expect((await load(again.address)).scene.name).toBe('Programme board');
    },
    SLOW,
  );

  /** A server that waits for a page, which a script says how it ends. */
  function waiting(page: string): ChildProcess {
    const script = join(folder, 'serving.mjs');
    writeFileSync(script, `import { serve } from '${MAIN.replace('main.js', 'serve.js')}';\nawait serve(${page});\n`);
    const child = spawn(process.execPath, [script], {
      env: { ...process.env, WEXIKINE_DATA: folder, PORT: '0', NODE_OPTIONS: '' },
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    running.push(child);
    return child;
  }

  test(
    'a page that cannot be built is said, and the data folder is closed and opens again',
    async () => {
      const { code, text } = await output(waiting("Promise.reject(new Error('The page has a fault.'))"));
      expect([code, text]).toEqual([1, 'Wexikine could not start: The page has a fault.\n']);
      await start();
    },
    SLOW,
  );

  test(
    'it is closed in order while the page is still being built',
    async () => {
      // It is waited for once the folder is open.
      const child = waiting("{ catch: () => undefined, then: () => console.log('building') }");
      let said = '';
      child.stdout?.on('data', (chunk) => (said += String(chunk)));
      await once(child.stdout as Readable, 'data');
      child.kill('SIGTERM');
      const [code] = (await once(child, 'close')) as [number | null];
      expect([code, said]).toEqual([0, 'building\nWexikine has closed.\n']);
      await start();
    },
    SLOW,
  );

  test('a port that is none is refused with a sentence', async () => {
    const child = spawn(process.execPath, [MAIN], {
      env: { ...process.env, WEXIKINE_DATA: folder, PORT: 'soon', NODE_OPTIONS: '' },
      stdio: ['ignore', 'ignore', 'pipe'],
    });
    expect(await output(child)).toEqual({
      code: 1,
      text: 'PORT is “soon”, which is not a port. Give a whole number from 1 to 65535.\n',
    });
  });
});
