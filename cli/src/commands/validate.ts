import {
  compilePreset,
  createShelf,
  dataProblems,
  describePresetProblem,
  itemRecordSchema,
  recipeSchema,
  revisionOf,
  sceneSchema,
  STARTER_LIBRARY,
  upgradeScene,
} from '@wexikine/core';
import { Failure } from '../failure';
import { isZip, readBytes, readJson } from '../files';
import { validatePack } from './pack';

const KINDS = [
  { what: 'scene', schema: sceneSchema, field: 'layers' },
  { what: 'library item', schema: itemRecordSchema, field: 'revisions' },
  { what: 'recipe', schema: recipeSchema, field: 'operation' },
] as const;

function kindOf(data: unknown) {
  if (data === null || typeof data !== 'object') return undefined;
  return KINDS.find(({ field }) => field in data);
}

function formulaProblems(data: unknown): string[] {
  const parsed = itemRecordSchema.safeParse(data);
  if (!parsed.success) return [];
  const shelf = createShelf(STARTER_LIBRARY);
  return parsed.data.revisions.flatMap(({ revision }) => {
    const item = revisionOf(parsed.data, revision);
    if (item?.kind !== 'preset') return [];
    const result = compilePreset(item.body, shelf);
    return result.ok ? [] : result.problems.map((problem) => `r${revision}: ${describePresetProblem(problem)}`);
  });
}

/** `wexikine validate`: says what a file is, or everything that is wrong with it. */
export function validateCommand(path: string, library: string | undefined): string {
  if (path.endsWith('.zip') || isZip(readBytes(path))) return validatePack(path, library);
  const data = readJson(path);
  const kind = kindOf(data);
  if (!kind)
    throw new Failure(`${path}: This is neither a scene, nor a library item, nor a recipe, nor a pack of Wexikine.`);
  const parsed = kind.schema.safeParse(upgradeScene(data));
  const problems = parsed.success
    ? formulaProblems(data)
    : dataProblems(parsed.error, 50).map((problem) => `${problem.path}: ${problem.message}`);
  if (problems.length > 0) {
    throw new Failure(`${path}: A ${kind.what} with ${problems.length} problem(s).\n  ${problems.join('\n  ')}`);
  }
  return `${path}: a valid ${kind.what}.\n`;
}
