import {
  createShelf,
  dataProblems,
  describePackProblem,
  itemRecordSchema,
  readBundle,
  readJson as parseJson,
  readPack,
  recipeSchema,
  recordOf,
  revisionOf,
  sceneSchema,
  STARTER_LIBRARY,
  upgradeScene,
  type ItemRecord,
  type Recipe,
  type Scene,
  type Shelf,
} from '@wexikine/core';
import { readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import * as z from 'zod';
import { Failure } from './failure';

/** Reads a file's bytes. Fails with a sentence when it is missing. */
export function readBytes(path: string): Uint8Array {
  try {
    return readFileSync(path);
  } catch (error) {
    const reason = (error as NodeJS.ErrnoException).code === 'ENOENT' ? 'It is not there' : 'It cannot be read';
    throw new Failure(`${path}: ${reason}. Check the path.`);
  }
}

/** Zip files begin with these two letters. */
export function isZip(bytes: Uint8Array): boolean {
  return bytes[0] === 0x50 && bytes[1] === 0x4b;
}

/** Reads a JSON file. Fails with a sentence when it is missing or not JSON. */
export function readJson(path: string): unknown {
  const bytes = readBytes(path);
  let text: string;
  try {
    text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    throw new Failure(`${path}: This is not text in UTF-8. Save it as UTF-8.`);
  }
  const result = parseJson(text);
  if (result.ok) return result.data;
  throw new Failure(`${path}: ${result.message}`);
}

function readAs<T>(path: string, schema: z.ZodType<T>, what: string): T {
  return checkAs(path, readJson(path), schema, what);
}

function checkAs<T>(path: string, data: unknown, schema: z.ZodType<T>, what: string): T {
  const parsed = schema.safeParse(data);
  if (parsed.success) return parsed.data;
  const lines = dataProblems(parsed.error).map((problem) => `  ${problem.path}: ${problem.message}`);
  throw new Failure(`${path}: This is not ${what}.\n${lines.join('\n')}`);
}

/** A scene with the pictures and fonts that came with it, by name. */
export interface SceneWithFiles {
  readonly scene: Scene;
  readonly files: ReadonlyMap<string, Uint8Array>;
}

/**
 * Reads a scene from a file, of this format or of one before: JSON, or a zip with its pictures and fonts. Fails with each
 * problem and its place.
 */
export function readSceneWithFiles(path: string): SceneWithFiles {
  const [schema, what] = [z.preprocess(upgradeScene, sceneSchema), 'a scene of Wexikine'] as const;
  const bytes = readBytes(path);
  if (!isZip(bytes)) return { scene: readAs(path, schema, what), files: new Map() };
  const read = readBundle(bytes);
  if (!read.ok) throw new Failure(`${path}: ${read.message}`);
  return { scene: checkAs(path, read.data, schema, what), files: read.files };
}

/** The scene of a file alone. */
export function readScene(path: string): Scene {
  return readSceneWithFiles(path).scene;
}

/** Reads a recipe from a file. Fails with each problem and its place. */
export function readRecipe(path: string): Recipe {
  return readAs(path, recipeSchema, 'a recipe of Wexikine');
}

const libraryFileSchema = z.union([
  z.array(itemRecordSchema),
  z
    .object({ format: z.literal('wexikine-library-1'), items: z.array(itemRecordSchema) })
    .transform(({ items }) => items),
  itemRecordSchema.transform((record) => [record]),
]);

/** Library items of a file: a pack, an item, a list of them, or a whole library. */
export function readRecords(path: string): readonly ItemRecord[] {
  const bytes = readBytes(path);
  if (!isZip(bytes)) return readAs(path, libraryFileSchema, 'a library item, a list of them, or a pack');
  const result = readPack(bytes);
  if (result.ok) return result.records;
  throw new Failure(`${path}: ${result.problems.map(describePackProblem).join('\n')}`);
}

/** The items of the starter library, each whole. */
export function starterRecords(): ItemRecord[] {
  return STARTER_LIBRARY.map(recordOf);
}

/** The starter library, with the published items of a file in their place or besides. */
export function readShelf(path: string | undefined): Shelf {
  if (path === undefined) return createShelf(STARTER_LIBRARY);
  const items = readRecords(path).flatMap((record) => revisionOf(record) ?? []);
  return createShelf([...STARTER_LIBRARY, ...items]);
}

/** Writes text to a file whole or not at all, or to standard output where no path is given. */
export function writeText(path: string | undefined, text: string | Uint8Array): void {
  if (path === undefined) process.stdout.write(text);
  else writeFile(path, text);
}

const WRITE_PROBLEMS: Readonly<Record<string, string>> = {
  ENOSPC: 'The disk is full, so nothing was written. Make room on it.',
  ENOENT: 'Its folder is not there. Make the folder first.',
  EACCES: 'This may not be written by you. Choose another place.',
  EROFS: 'This disk can only be read. Choose another place.',
  EISDIR: 'This is a folder. Give the name of a file.',
};

/** Writes a file whole or not at all. */
export function writeFile(path: string, contents: string | Uint8Array): void {
  const temporary = `${path}.${process.pid}.tmp`;
  try {
    writeFileSync(temporary, contents);
    renameSync(temporary, path);
  } catch (error) {
    rmSync(temporary, { force: true });
    throw new Failure(
      `${path}: ${WRITE_PROBLEMS[(error as NodeJS.ErrnoException).code ?? ''] ?? 'It cannot be written. Check the path and who may write there.'}`,
    );
  }
}
