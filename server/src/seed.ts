import {
  apply,
  constellations,
  createMultiply,
  createShelf,
  gateWipe,
  pictureWall,
  plan,
  programmeBoard,
  recordOf,
  sparks,
  speakers,
  STARTER_LIBRARY,
  usualColours,
  type MultiplyRecipe,
  type Scene,
} from '@wexikine/core';
import type { Database } from './database';
import { withFile } from './files';
import { countItems, writeRecords } from './library';
import { createScene, hasScene, prepareScene } from './scenes';

const HALF = { by: 'spread', shape: 'box', y: 0.5, width: 0.5, height: 0.8 } as const;

/** Sixty sparks from left to right, in colours by chance. */
const SPARKS: MultiplyRecipe = {
  ...createMultiply({ by: 'rule', tag: 'spark' }),
  copies: 60,
  from: { by: 'time', at: '1:00' },
  to: { by: 'time', at: '4:00' },
  life: { by: 'fixed', length: '30f' },
  begin: { ...HALF, x: 0.25 },
  end: { ...HALF, x: 0.75 },
  scale: { begin: [0.4, 1.8], end: [0.4, 1.8] },
  turn: { begin: [-90, 0], end: [0, 120] },
  opacity: { begin: [0.35, 1], end: [0.35, 1] },
  in: { presets: [{ id: 'fade-in', weight: 1 }], length: '8f' },
  out: { presets: [{ id: 'fade-out', weight: 1 }], length: '8f' },
  colours: { ...usualColours(), outlined: 0.33 },
  seed: 7,
};

/** A scene with its copies made. */
function multiplied(scene: Scene, when: string): Scene {
  const planned = plan(scene, createShelf(STARTER_LIBRARY), SPARKS, { runId: 'sparks', by: 'Wexikine', when });
  const result = apply(scene, planned.edits);
  if (!result.ok) throw new Error(`The demo cannot be made: ${result.problem.code}`);
  return result.scene;
}

/** A scene whose pictures are kept as files. */
async function withFiles(database: Database, scene: Scene): Promise<Scene> {
  return database.inTransaction(async (queries) => {
    const layers: Scene['layers'] = [];
    for (const layer of scene.layers) layers.push((await withFile(queries, layer)) ?? layer);
    return { ...scene, layers };
  });
}

/** Fills an empty database with the starter library and the demo scenes; leaves any other as it is. */
export async function seed(database: Database, when: string): Promise<boolean> {
  if ((await countItems(database)) > 0) return false;
  const demos = [multiplied(sparks(), when), gateWipe(), pictureWall(), speakers(), constellations(), programmeBoard()];
  for (const demo of demos) {
    if (await hasScene(database, demo.id)) continue;
    const scene = await withFiles(database, demo);
    await createScene(database, scene.id, prepareScene(scene), when);
  }
  // Items come last and in one transaction: their presence says that seeding was done to the end.
  await database.inTransaction((queries) => writeRecords(queries, STARTER_LIBRARY.map(recordOf), when));
  return true;
}
