import {
  dataProblems,
  libraryItemSchema,
  recipeSchema,
  sceneSchema,
  createShelf,
  STARTER_LIBRARY,
  type Recipe,
  type Scene,
  type Shelf,
} from '@wexikine/core';
import { readFileSync, renameSync, writeFileSync } from 'node:fs';
import * as z from 'zod';
import { Failure } from './failure';

/** Reads a JSON file. Fails with a sentence when it is missing or not JSON. */
export function readJson(path: string): unknown {
  let text: string;
  try {
    text = readFileSync(path, 'utf8');
  } catch (error) {
    const reason = (error as NodeJS.ErrnoException).code === 'ENOENT' ? 'It is not there' : 'It cannot be read';
    throw new Failure(`${path}: ${reason}. Check the path.`);
  }
  try {
    return JSON.parse(text);
  } catch (error) {
    throw new Failure(`${path}: This is not valid JSON (${(error as Error).message}).`);
  }
}

function readAs<T>(path: string, schema: z.ZodType<T>, what: string): T {
  const parsed = schema.safeParse(readJson(path));
  if (parsed.success) return parsed.data;
  const lines = dataProblems(parsed.error).map((problem) => `  ${problem.path}: ${problem.message}`);
  throw new Failure(`${path}: This is not ${what}.\n${lines.join('\n')}`);
}

export function readScene(path: string): Scene {
  return readAs(path, sceneSchema, 'a scene of Wexikine');
}

export function readRecipe(path: string): Recipe {
  return readAs(path, recipeSchema, 'a recipe of Wexikine');
}

/** The starter library, with the items of a file in their place or besides. */
export function readShelf(path: string | undefined): Shelf {
  if (path === undefined) return createShelf(STARTER_LIBRARY);
  const items = readAs(
    path,
    z.union([z.array(libraryItemSchema), libraryItemSchema.transform((item) => [item])]),
    'a library item or a list of them',
  );
  return createShelf([...STARTER_LIBRARY, ...items]);
}

/** Writes a file whole or not at all, or to standard output where no path is given. */
export function writeText(path: string | undefined, text: string): void {
  if (path === undefined) return void process.stdout.write(text);
  const temporary = `${path}.${process.pid}.tmp`;
  try {
    writeFileSync(temporary, text);
    renameSync(temporary, path);
  } catch (error) {
    throw new Failure(`${path}: It cannot be written (${(error as Error).message}).`);
  }
}
