import { PGlite } from '@electric-sql/pglite';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { apply, createShelf, difference, plan, STARTER_LIBRARY, type Scene } from '@wexikine/core';
import { readLarge, type LargeBody } from '../../server/src/checking';
import { openDatabase, type Database } from '../../server/src/database';
import { createScene, keepPart, prepareScene, saveScene } from '../../server/src/scenes';
import { partsOf } from '../../web/src/app/api/scene-parts';
import { report } from './measure';
import { plainScene, recipe } from './scenes';

const WHEN = '2026-01-01T00:00:00.000Z';

/** Takes a body in as the server does: reads, checks and packs it. */
function received<T>(name: LargeBody, body: unknown): T {
  const result = readLarge(name, new TextEncoder().encode(JSON.stringify(body)));
  if (!result.ok) throw new Error(result.message);
  return result.data as T;
}

/**
 * Milliseconds to save a run over all layers of a scene, into a real folder: writing the parts as text, reading and
 * checking them, storing them, and the save itself.
 */
async function saveOnce(database: Database, scene: Scene): Promise<number> {
  const planned = plan(scene, createShelf(STARTER_LIBRARY), recipe, { runId: 'bench', by: 'bench', when: WHEN });
  const done = apply(scene, planned.edits);
  if (!done.ok) throw new Error(done.problem.code);
  const { header, layers, removedLayers, order, runs, removedRuns, runOrder } = difference(scene, done.scene);
  const began = performance.now();
  const parts = partsOf(layers, runs);
  for (const [i, part] of parts.entries()) {
    await keepPart(database, scene.id, i, received('uploadPart', part()), WHEN);
  }
  const request = {
    base: 1,
    by: 'bench',
    what: 'bench',
    header,
    layers: [],
    removedLayers,
    order,
    runs: [],
    removedRuns,
    runOrder,
    upload: { id: scene.id, parts: parts.length },
  };
  await saveScene(database, scene.id, received('saveScene', request), WHEN);
  return performance.now() - began;
}

/** Saving grows with what changed. */
export async function benchSaving(sizes: readonly number[]): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'wexikine-bench-'));
  const database = await openDatabase(
    new PGlite(join(folder, 'database')),
    join(process.cwd(), 'server/migrations'),
    {},
  );
  const times: number[] = [];
  for (const size of [sizes[0], ...sizes]) {
    const id = `bench-${times.length}`;
    const scene = { ...plainScene(size), id };
    await createScene(database, id, prepareScene(scene), WHEN);
    times.push(await saveOnce(database, scene));
  }
  await database.close();
  rmSync(folder, { recursive: true, force: true });
  const [, small, middle, large] = times;
  report(
    `saving it, 1,000 layers (100: ${small.toFixed(0)} ms)`,
    `${middle.toFixed(0)} ms`,
    'at most 200 ms',
    middle <= 200,
  );
  report('  10,000 layers', `${large.toFixed(0)} ms`, 'at most 2,000 ms', large <= 2_000);
}
