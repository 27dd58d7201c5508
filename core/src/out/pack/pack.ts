import * as z from '../../basics/schema';
import { canonicalJson } from '../export';
import { frontOf, itemRecordSchema, ITEM_KINDS, referencesOf, type ItemRecord } from '../../library/library';
import { idSchema } from '../../basics/ids';
import { dataProblems, readJson } from '../../basics/text';
import type { PackProblem } from './problem';
import { readmeOf } from './readme';
import { unzipTexts, zipTexts } from './zip';

/** How the list in a pack names its format. */
export const PACK_FORMAT = 'wexikine-pack-1';

/** The list of a pack, in the file pack.json. */
export const packSchema = z
  .strictObject({
    format: z.literal(PACK_FORMAT),
    items: z
      .array(
        z.strictObject({
          id: idSchema,
          kind: z.enum(ITEM_KINDS),
          name: z.string().max(200),
          file: z.string().max(200),
        }),
      )
      .max(20_000),
  })
  .describe('The list of a pack: its items and the file of each.');

/** The list of what a pack holds. */
export type PackList = Readonly<z.infer<typeof packSchema>>;

const LIST_FILE = 'pack.json';

/** So many problems are told; nobody reads more. */
export const MOST_PROBLEMS = 50;

/** The items of a pack, or everything that is wrong with it. */
export type ReadPackResult =
  | { readonly ok: true; readonly records: readonly ItemRecord[] }
  | { readonly ok: false; readonly problems: readonly PackProblem[] };

type Failed = Extract<ReadPackResult, { ok: false }>;

function fail(...problems: readonly PackProblem[]): Failed {
  return { ok: false, problems };
}

/** Ids of everything that items need to be computed, themselves included. Links by name alone are not followed. */
export function withNeeds(records: readonly ItemRecord[], ids: readonly string[]): string[] {
  const byId = new Map(records.map((record) => [record.id, record]));
  const found = new Set<string>();
  const waiting = [...ids].reverse();
  for (let id = waiting.pop(); id !== undefined; id = waiting.pop()) {
    const record = byId.get(id);
    if (!record || found.has(id)) continue;
    found.add(id);
    for (const { id: needed, use } of allReferences(record)) if (use !== 'matches') waiting.push(needed);
  }
  return [...found];
}

/** References of every revision of an item and of its draft. */
export function allReferences(record: ItemRecord): ReturnType<typeof referencesOf> {
  const bodies = [...record.revisions.map(({ body }) => body), ...(record.draft ? [record.draft.body] : [])];
  return bodies.flatMap((body) => referencesOf({ kind: record.kind, body }));
}

/** Items as a pack: a zip file with one JSON file an item, the list and a readme made from the notes. */
export function writePack(records: readonly ItemRecord[]): Uint8Array {
  const sorted = [...records].sort((a, b) => (a.id < b.id ? -1 : 1));
  const list: PackList = {
    format: PACK_FORMAT,
    items: sorted.map((record) => {
      const { id, kind } = record;
      return { id, kind, name: frontOf(record).name, file: `items/${id}.json` };
    }),
  };
  const files = new Map([
    ['readme.md', readmeOf(sorted)],
    [LIST_FILE, `${canonicalJson(list, 1)}\n`],
    ...sorted.map((record) => [`items/${record.id}.json`, `${canonicalJson(record, 1)}\n`] as const),
  ]);
  return zipTexts(files);
}

function readFile(text: string, file: string): { readonly data: unknown } | PackProblem {
  const result = readJson(text);
  return result.ok ? { data: result.data } : { code: 'not-json', file, reason: result.message };
}

function readList(files: ReadonlyMap<string, string>): PackList | PackProblem {
  const text = files.get(LIST_FILE);
  if (text === undefined) return { code: 'no-list' };
  const read = readFile(text, LIST_FILE);
  if ('code' in read) return read;
  const format = (read.data as { format?: unknown } | null)?.format;
  if (typeof format !== 'string' || !format.startsWith('wexikine-pack-')) return { code: 'not-a-pack' };
  if (format !== PACK_FORMAT) return { code: 'newer-format', format };
  const parsed = packSchema.safeParse(read.data);
  if (parsed.success) return parsed.data;
  const [{ path, message }] = dataProblems(parsed.error, 1);
  return { code: 'bad-list', path, reason: message };
}

function readItem(
  files: ReadonlyMap<string, string>,
  { id, file }: PackList['items'][number],
): ItemRecord | PackProblem {
  const text = files.get(file);
  if (text === undefined) return { code: 'missing-file', file, id };
  const read = readFile(text, file);
  if ('code' in read) return read;
  const parsed = itemRecordSchema.safeParse(read.data);
  if (!parsed.success) {
    const [{ path, message }] = dataProblems(parsed.error, 1);
    return { code: 'wrong-schema', file, path, reason: message };
  }
  return parsed.data.id === id ? parsed.data : { code: 'wrong-id', file, listed: id, found: parsed.data.id };
}

/** Reads a pack's items, each checked by itself; how they hang together see `checkRecords`. */
export function readPack(bytes: Uint8Array): ReadPackResult {
  const unzipped = unzipTexts(bytes);
  if (!unzipped.ok) return fail(unzipped.problem);
  const list = readList(unzipped.files);
  if ('code' in list) return fail(list);
  const ids = new Set<string>();
  for (const { id } of list.items) {
    if (ids.has(id)) return fail({ code: 'doubled-item', id });
    ids.add(id);
  }
  const read = list.items.map((item) => readItem(unzipped.files, item));
  const problems = read.filter((entry): entry is PackProblem => 'code' in entry);
  return problems.length > 0 ? fail(...problems.slice(0, MOST_PROBLEMS)) : { ok: true, records: read as ItemRecord[] };
}
