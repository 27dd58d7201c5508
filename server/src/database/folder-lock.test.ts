import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { buildSync } from 'esbuild';
import { mkdirSync, mkdtempSync, readdirSync, rmSync, utimesSync, writeFileSync } from 'node:fs';
import { spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { once } from 'node:events';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { FolderInUse, lockFolder } from './folder-lock';

let folder: string;

beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'wexikine-lock-'));
});

afterEach(() => rmSync(folder, { recursive: true, force: true }));

const LEFT = JSON.stringify({ pid: 2 ** 22 - 3, began: '1' });

function leave(text: string, ageMs = 0): void {
  const path = join(folder, 'wexikine.lock');
  writeFileSync(path, text);
  const then = (Date.now() - ageMs) / 1000;
  utimesSync(path, then, then);
}

describe('the lock of a folder', () => {
  test('is one caller’s alone until it is given back', () => {
    const unlock = lockFolder(folder);
    expect(() => lockFolder(folder)).toThrow(FolderInUse);
    unlock();
    lockFolder(folder)();
    expect(readdirSync(folder)).toEqual([]);
  });

  test.each([
    ['by a dead process', LEFT],
    ['with a process number of 0', '{"pid":0}'],
    ['with a process number of -1', '{"pid":-1}'],
  ])('left %s is taken over, and nothing of it stays behind', (_, text) => {
    leave(text);
    const unlock = lockFolder(folder);
    expect(readdirSync(folder)).toEqual(['wexikine.lock']);
    unlock();
  });

  test('that is empty is somebody’s who is just writing it, unless it is old', () => {
    leave('');
    expect(() => lockFolder(folder)).toThrow(FolderInUse);
    leave('', 60_000);
    lockFolder(folder)();
  });

  test('whose taker-over died on the way is taken over all the same', () => {
    leave(LEFT);
    // The right to replace it, left by another dead process: named by what stands in the lock.
    const mark = createHash('sha256').update(LEFT).digest('hex').slice(0, 32);
    writeFileSync(join(folder, `wexikine.lock.${mark}`), JSON.stringify({ pid: 2 ** 22 - 5, began: '2', mark: 'x' }));
    lockFolder(folder)();
    expect(readdirSync(folder)).toEqual([]);
  });

  test('of threads and processes that all find one left behind, one gets it', async () => {
    const script = join(folder, 'contend.mjs');
    const built = join(folder, 'lock.mjs');
    buildSync({
      entryPoints: [join(__dirname, 'folder-lock.ts')],
      outfile: built,
      bundle: true,
      platform: 'node',
      format: 'esm',
    });
    writeFileSync(
      script,
      `import { Worker, isMainThread, workerData, parentPort } from 'node:worker_threads';
       import { lockFolder, FolderInUse } from './lock.mjs';
       const attempt = (folder) => {
         try { lockFolder(folder); return 'held'; } catch (error) { return error instanceof FolderInUse ? 'refused' : String(error); }
       };
       if (isMainThread) {
         const gate = new Int32Array(new SharedArrayBuffer(4));
         const folders = JSON.parse(process.argv[2]);
         const workers = [0, 1].map(() => new Worker(new URL(import.meta.url), { workerData: { gate, folders } }));
         const results = await Promise.all(workers.map((worker) => new Promise((done) => worker.once('message', done))));
         process.stdout.write(JSON.stringify(results));
         await Promise.all(workers.map((worker) => worker.terminate()));
       } else {
         const { gate, folders } = workerData;
         parentPort.postMessage(folders.map((folder, i) => {
           Atomics.add(gate, 0, 1);
           while (Atomics.load(gate, 0) < 2 * (i + 1));
           return attempt(folder);
         }));
       }`,
    );
    const folders = Array.from({ length: 300 }, (_, i) => join(folder, `f${i}`));
    for (const one of folders) {
      mkdirSync(one);
      writeFileSync(join(one, 'wexikine.lock'), LEFT);
    }
    const child = spawn(process.execPath, [script, JSON.stringify(folders)], {
      env: { ...process.env, NODE_OPTIONS: '' },
    });
    let text = '';
    child.stdout.on('data', (chunk) => (text += String(chunk)));
    await once(child, 'close');
    const [a, b] = JSON.parse(text) as [string[], string[]];
    const pairs = a.map((one, i) => [one, b[i]].sort().join());
    expect(new Set(pairs)).toEqual(new Set(['held,refused']));
  }, 60_000);
});
