import {
  createItemSchema,
  createFromPartsSchema,
  createSceneSchema,
  dataProblems,
  describePackProblem,
  headerOf,
  importRequestSchema,
  planImport,
  planTokens,
  readJson,
  readPack,
  readTokens,
  saveDraftSchema,
  saveRequestSchema,
  tokensRequestSchema,
  upgradeScene,
  uploadPartSchema,
  type CreateScene,
  type ImportPlan,
  type ImportRequest,
  type ItemRecord,
  type SaveRequest,
  type SceneHeader,
  type SkippedToken,
  type TokenContext,
  type TokenPlan,
  type UploadPart,
} from '@wexikine/core';
import type { ZodType } from 'zod';
import { prepare, preparePacked, prepareRun, type Prepared } from '../packing';

/** How a body that may be large is read. */
interface LargeKind {
  readonly schema: ZodType;
  /** Brings what was written in an earlier format over. */
  readonly before?: (data: unknown) => unknown;
  /** Makes what was read ready to be written, while still in this thread. */
  readonly after?: (data: never) => unknown;
}

/** A scene that is to be stored, packed. */
export type PreparedScene = Prepared & {
  readonly header: SceneHeader;
  readonly order: readonly string[];
  readonly runOrder: readonly string[];
};

/** A save with what is to be written packed. */
export type PreparedSave = Omit<SaveRequest, 'layers' | 'runs'> & { readonly prepared: Prepared };

function prepareNew({ scene }: CreateScene): PreparedScene {
  return {
    ...prepare(scene.layers, scene.runs),
    header: headerOf(scene),
    order: scene.layers.map(({ id }) => id),
    runOrder: scene.runs.map(({ id }) => id),
  };
}

function prepareSave({ layers, runs, ...request }: SaveRequest): PreparedSave {
  return { ...request, prepared: prepare(layers, runs) };
}

function preparePart({ layers, runs }: UploadPart): Prepared {
  return { chunks: layers ? preparePacked(layers) : [], runs: runs.map(prepareRun) };
}

function withPresentScene(data: unknown): unknown {
  return data !== null && typeof data === 'object' && 'scene' in data
    ? { ...data, scene: upgradeScene(data.scene) }
    : data;
}

/** Bodies that may be large, by name: a schema cannot be sent to another thread. */
export const LARGE_BODIES = {
  createScene: { schema: createSceneSchema, before: withPresentScene, after: prepareNew },
  createFromParts: { schema: createFromPartsSchema },
  saveScene: { schema: saveRequestSchema, after: prepareSave },
  uploadPart: { schema: uploadPartSchema, after: preparePart },
  createItem: { schema: createItemSchema },
  saveDraft: { schema: saveDraftSchema },
  importPack: { schema: importRequestSchema },
  importTokens: { schema: tokensRequestSchema },
} as const satisfies Record<string, LargeKind>;

/** The name of a kind of large body. */
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

/** What a design tokens file would do, or why it cannot be read. */
export type TokensResult =
  | { readonly ok: true; readonly plan: TokenPlan; readonly skipped: readonly SkippedToken[] }
  | { readonly ok: false; readonly message: string };

/** Reads bytes of JSON and checks them against a schema. */
export function checkBody<T>(
  schema: ZodType<T>,
  bytes: Uint8Array,
  before: (data: unknown) => unknown = (data) => data,
): BodyResult<T> {
  const refuse = (message: string): BodyResult<T> => ({ ok: false, message, problems: [] });
  let text: string;
  try {
    text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return refuse('The data is not text in UTF-8. Save the file as UTF-8 and send it again.');
  }
  const read = readJson(text === '' ? '{}' : text);
  if (!read.ok) return refuse(`The data was refused. ${read.message}`);
  const parsed = schema.safeParse(before(read.data));
  if (parsed.success) return { ok: true, data: parsed.data };
  const problems = dataProblems(parsed.error);
  const [{ path, message }] = problems;
  return { ok: false, message: `The data was refused. ${path}: ${message}`, problems };
}

/** Reads a body of a kind and makes it ready to be written. */
export function readLarge(name: LargeBody, bytes: Uint8Array): BodyResult {
  const { schema, before, after }: LargeKind = LARGE_BODIES[name];
  const result = checkBody<unknown>(schema, bytes, before);
  return result.ok && after ? { ok: true, data: after(result.data as never) } : result;
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
  return { ok: true, plan: planTokens(read.tokens, here, context, read.palettes), skipped: read.skipped };
}

/** Does one task. */
export function doTask(task: CheckTask): unknown {
  switch (task.type) {
    case 'body':
      return readLarge(task.name, task.bytes);
    case 'pack':
      return checkPack(task);
    case 'tokens':
      return checkTokens(task);
  }
}
