import {
  createItemSchema,
  createSceneSchema,
  dataProblems,
  describePackProblem,
  importRequestSchema,
  planImport,
  planTokens,
  readJson,
  readPack,
  readTokens,
  saveDraftSchema,
  saveRequestSchema,
  tokensRequestSchema,
  type ImportPlan,
  type ImportRequest,
  type ItemRecord,
  type SkippedToken,
  type TokenContext,
  type TokenPlan,
} from '@wexikine/core';
import type { ZodType } from 'zod';

/** Bodies that may be large, by name: a schema cannot be sent to another thread. */
export const LARGE_BODIES = {
  createScene: createSceneSchema,
  saveScene: saveRequestSchema,
  createItem: createItemSchema,
  saveDraft: saveDraftSchema,
  importPack: importRequestSchema,
  importTokens: tokensRequestSchema,
} as const satisfies Record<string, ZodType>;

export type LargeBody = keyof typeof LARGE_BODIES;

/** Work that may take long on what somebody sent. */
export type CheckTask =
  | { readonly type: 'body'; readonly name: LargeBody; readonly bytes: Uint8Array }
  | {
      readonly type: 'pack';
      readonly zip: string;
      readonly choices: ImportRequest['choices'];
      readonly here: readonly ItemRecord[];
      /** Ids for copies, as many as there can be. */
      readonly ids: readonly string[];
    }
  | {
      readonly type: 'tokens';
      readonly text: string;
      readonly here: readonly ItemRecord[];
      readonly context: TokenContext;
    };

/** What a body was read as, or why it was refused. */
export type BodyResult<T = unknown> =
  | { readonly ok: true; readonly data: T }
  | { readonly ok: false; readonly message: string; readonly problems: readonly { path: string; message: string }[] };

export type TokensResult =
  | { readonly ok: true; readonly plan: TokenPlan; readonly skipped: readonly SkippedToken[] }
  | { readonly ok: false; readonly message: string };

/** Reads bytes of JSON and checks them against a schema. */
export function checkBody<T>(schema: ZodType<T>, bytes: Uint8Array): BodyResult<T> {
  const refuse = (message: string): BodyResult<T> => ({ ok: false, message, problems: [] });
  let text: string;
  try {
    text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return refuse('The data is not text in UTF-8. Save the file as UTF-8 and send it again.');
  }
  const read = readJson(text === '' ? '{}' : text);
  if (!read.ok) return refuse(`The data was refused. ${read.message}`);
  const parsed = schema.safeParse(read.data);
  if (parsed.success) return { ok: true, data: parsed.data };
  const problems = dataProblems(parsed.error);
  const [{ path, message }] = problems;
  return { ok: false, message: `The data was refused. ${path}: ${message}`, problems };
}

/** What importing a pack would do. */
export function checkPack({ zip, choices, here, ids }: Extract<CheckTask, { type: 'pack' }>): ImportPlan {
  const read = readPack(new Uint8Array(Buffer.from(zip, 'base64')));
  if (!read.ok) return { report: { entries: [], problems: read.problems.map(describePackProblem) }, writes: [] };
  let used = 0;
  return planImport(here, read.records, choices, () => ids[used++]);
}

/** What reading a design tokens file would do. */
export function checkTokens({ text, here, context }: Extract<CheckTask, { type: 'tokens' }>): TokensResult {
  const read = readTokens(text);
  if (!read.ok) return read;
  return { ok: true, plan: planTokens(read.tokens, here, context), skipped: read.skipped };
}

/** Does one task. */
export function doTask(task: CheckTask): unknown {
  switch (task.type) {
    case 'body':
      return checkBody<unknown>(LARGE_BODIES[task.name], task.bytes);
    case 'pack':
      return checkPack(task);
    case 'tokens':
      return checkTokens(task);
  }
}
