import {
  editSchema,
  itemRecordSchema,
  keyClipSchema,
  layerClipSchema,
  packSchema,
  recipeSchema,
  sceneSchema,
  schemaItself,
} from '@wexikine/core';
import { writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import * as z from 'zod';

/** Writes the JSON Schemas of every file that Wexikine reads and writes, from the core's own schemas. */
const SCHEMAS = {
  scene: sceneSchema,
  'library-item': itemRecordSchema,
  pack: packSchema,
  recipe: recipeSchema,
  edit: editSchema,
  'key-clip': keyClipSchema,
  'layer-clip': layerClipSchema,
};
const folder = resolve(import.meta.dirname, '../docs/schemas');

for (const [name, schema] of Object.entries(SCHEMAS)) {
  const json = z.toJSONSchema(schemaItself(schema), { unrepresentable: 'any', io: 'input', reused: 'ref' });
  writeFileSync(join(folder, `${name}.schema.json`), `${JSON.stringify(json, null, 1)}\n`);
}
