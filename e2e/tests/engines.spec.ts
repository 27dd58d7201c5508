import { expect, test } from '../pages/test';
import { build } from 'esbuild';
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { runInNewContext } from 'node:vm';

/** Drives each starter rig on some layers at many times and gives all bits of what comes out as one number (after FNV-1a, a word at a time). */
const PROGRAM = `
import { apply, compileScene, createFrame, createRigRecipe, createShelf, plan, sampleFrame, STARTER_LIBRARY, STARTER_RIGS } from '@wexikine/core';
const TPS = 705600000;
export function hashes() {
  return STARTER_RIGS.map((item) => {
    const layers = Array.from({ length: 40 }, (_, i) => ({
      id: 'l' + i, name: 'L' + i, kind: 'card', parent: null, tags: [], locked: false, hidden: false,
      span: { in: 0, out: 6 * TPS }, rest: { 'position.x': 8 * i, 'position.y': 90, 'size.x': 30, 'size.y': 20 },
      tracks: { 'position.x': [{ at: 0, value: 0, ease: { type: 'linear' } }, { at: TPS / 2, value: 8 * i, ease: { type: 'linear' } }] },
      look: {}, source: { type: 'rectangle' }, data: {},
    }));
    const scene = { format: 'wexikine-scene-2', id: 's', name: 's', project: '', width: 800, height: 400, rate: { num: 25, den: 1 }, length: 6 * TPS, cues: [], layers, runs: [] };
    const roles = Object.fromEntries(item.body.roles.map(({ name }) => [name, 'l0']));
    const recipe = { ...createRigRecipe(item.id, { by: 'rule' }), roles };
    const planned = plan(scene, createShelf(STARTER_LIBRARY), recipe, { runId: 'r', by: 'e', when: '2026-01-01T00:00:00.000Z' });
    const compiled = compileScene(apply(scene, planned.edits).scene);
    const frame = createFrame(compiled);
    let hash = 0x811c9dc5;
    for (let i = 0; i < 60; i++) {
      sampleFrame(compiled, i * TPS / 10 + i * 12345, frame);
      for (const word of new Uint32Array(frame.values.buffer)) hash = Math.imul(hash ^ word, 0x01000193);
    }
    return item.id + ' ' + (hash >>> 0);
  });
}`;

test('rigs give the same bits in Node and in the browser, with machine code and with the plain runner', async ({
  page,
}) => {
  // All of it is computing, three times over.
  const folder = mkdtempSync(join(tmpdir(), 'wexikine-engines-'));
  const outfile = join(folder, 'program.js');
  await build({
    stdin: { contents: PROGRAM, resolveDir: join(import.meta.dirname, '..'), loader: 'ts' },
    bundle: true,
    format: 'iife',
    globalName: 'program',
    outfile,
    target: 'es2022',
    logLevel: 'error',
  });
  const source = readFileSync(outfile, 'utf8');
  const inNode = (more: object): string[] =>
    runInNewContext(`${source}; program.hashes()`, { ...globals, ...more }) as string[];
  const globals = { performance, structuredClone, TextEncoder, TextDecoder, URL, atob, btoa };
  const machine = [...inNode({ WebAssembly })];
  const plain = [...inNode({ WebAssembly: undefined })];
  expect(plain).toEqual(machine);
  await page.goto('about:blank');
  await page.addScriptTag({ content: source });
  const browser = await page.evaluate(() =>
    (globalThis as unknown as { program: { hashes(): string[] } }).program.hashes(),
  );
  expect(browser).toEqual(machine);
});
