import { STARTER_LIBRARY, constellations, programmeBoard, recordOf } from '@wexikine/core';
import type { Database } from './database';
import { countItems, writeRecords } from './library';
import { createScene, hasScene, prepareScene } from './scenes';

/** Fills an empty database with the starter library and the demo scenes; leaves any other as it is. */
export async function seed(database: Database, when: string): Promise<boolean> {
  if ((await countItems(database)) > 0) return false;
  for (const scene of [constellations(), programmeBoard()]) {
    if (!(await hasScene(database, scene.id))) await createScene(database, scene.id, prepareScene(scene), when);
  }
  // Items come last and in one transaction: their presence says that seeding was done to the end.
  await database.inTransaction((queries) => writeRecords(queries, STARTER_LIBRARY.map(recordOf), when));
  return true;
}
