import {
  compilePreset,
  dataProblems,
  describePresetProblem,
  libraryItemSchema,
  recipeSchema,
  sceneSchema,
} from '@wexikine/core';
import { Failure } from '../failure';
import { readJson } from '../files';

const KINDS = [
  { what: 'scene', schema: sceneSchema, field: 'layers' },
  { what: 'library item', schema: libraryItemSchema, field: 'body' },
  { what: 'recipe', schema: recipeSchema, field: 'operation' },
] as const;

function kindOf(data: unknown) {
  if (data === null || typeof data !== 'object') return undefined;
  return KINDS.find(({ field }) => field in data);
}

function formulaProblems(data: unknown): string[] {
  const item = libraryItemSchema.safeParse(data);
  if (!item.success) return [];
  const result = compilePreset(item.data.body);
  return result.ok ? [] : result.problems.map(describePresetProblem);
}

/** `wexikine validate`: says what a file is, or everything that is wrong with it. */
export function validateCommand(path: string): string {
  const data = readJson(path);
  const kind = kindOf(data);
  if (!kind) throw new Failure(`${path}: This is neither a scene, nor a library item, nor a recipe of Wexikine.`);
  const parsed = kind.schema.safeParse(data);
  const problems = parsed.success
    ? formulaProblems(data)
    : dataProblems(parsed.error, 50).map((problem) => `${problem.path}: ${problem.message}`);
  if (problems.length > 0) {
    throw new Failure(`${path}: A ${kind.what} with ${problems.length} problem(s).\n  ${problems.join('\n  ')}`);
  }
  return `${path}: a valid ${kind.what}.\n`;
}
