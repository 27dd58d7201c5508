import { describe, expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import * as z from 'zod';
import { schemaItself } from './basics/schema';
import { editSchema } from './scene/edit';
import { itemRecordSchema } from './library/library';
import { packSchema } from './out/pack';
import { keyClipSchema } from './runs/adjust';
import { recipeSchema } from './scene/recipe';
import { sceneSchema } from './scene/scene';

describe('the published JSON Schemas', () => {
  test.each([
    ['scene', sceneSchema],
    ['library-item', itemRecordSchema],
    ['pack', packSchema],
    ['recipe', recipeSchema],
    ['edit', editSchema],
    ['key-clip', keyClipSchema],
  ] as const)('of a %s is that of the code; run “npm run schemas” after a change', (name, schema) => {
    const path = join(__dirname, `../../docs/schemas/${name}.schema.json`);
    const published: unknown = JSON.parse(readFileSync(path, 'utf8'));
    expect(
      JSON.parse(
        JSON.stringify(z.toJSONSchema(schemaItself(schema), { unrepresentable: 'any', io: 'input', reused: 'ref' })),
      ),
    ).toEqual(published);
  });
});
