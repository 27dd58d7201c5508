import { PGlite } from '@electric-sql/pglite';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { apply, createShelf, difference, plan, STARTER_LIBRARY, type Scene } from '@wexikine/core';
import { openDatabase, type Database } from '../../server/src/database';
import { createScene, saveScene } from '../../server/src/scenes';
import { report } from './measure';
import { plainScene, recipe } from './scenes';

const WHEN = '2026-01-01T00:00:00.000Z';

/** Milliseconds to save a run over all layers of a scene, into a real folder. */
async function saveOnce(database: Database, scene: Scene): Promise<number> {
  const planned = plan(scene, createShelf(STARTER_LIBRARY), recipe, { runId: 'bench', by: 'bench', when: WHEN });
  const done = apply(scene, planned.edits);
  if (!done.ok) throw new Error(done.problem.code);
  const { header, layers, removedLayers, order, runs, removedRuns, runOrder } = difference(scene, done.scene);
  const began = performance.now();
  await saveScene(
    database,
    scene.id,
    {
      base: 1,
      by: 'bench',
      what: 'bench',
      header,
      layers: [...layers],
      removedLayers: [...removedLayers],
      order: order === null ? null : [...order],
      runs: [...runs],
      removedRuns: [...removedRuns],
      runOrder: runOrder === null ? null : [...runOrder],
    },
    WHEN,
  );
  return performance.now() - began;
}

/** Saving grows with what changed. */
export async function benchSaving(sizes: readonly number[], slack: number): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'wexikine-bench-'));
  const database = await openDatabase(new PGlite(join(folder, 'database')), join(process.cwd(), 'server/migrations'));
  const times: number[] = [];
  for (const size of [sizes[0], ...sizes]) {
    const id = `bench-${times.length}`;
    const scene = { ...plainScene(size), id };
    await createScene(database, id, { scene }, WHEN);
    times.push(await saveOnce(database, scene));
  }
  await database.close();
  rmSync(folder, { recursive: true, force: true });
  const [, small, middle, large] = times;
  report('saving it, 1,000 layers', `${middle.toFixed(0)} ms`, 'under 1,000 ms', middle < 1_000);
  report(
    `  from 1,000 to 10,000 layers (100: ${small.toFixed(0)} ms)`,
    `${(large / middle).toFixed(1)}×, ${large.toFixed(0)} ms`,
    `at most ${10 * slack}×`,
    large / middle <= 10 * slack,
  );
}
