import { canonicalJson } from '../export';
import { frontOf, itemRecordSchema, type ItemKind, type ItemRecord, type RevisionRecord } from '../../library/library';
import { counted, dataProblems } from '../../basics/text';
import { checkRecords } from './check';
import { MOST_PROBLEMS } from './pack';
import { describePackProblem, type PackProblem } from './problem';

/**
 * How an item of a pack stands to the library: not here, here and the same, newer than here, older than here,
 * or different in what both have.
 */
export type ImportStatus = 'new' | 'same' | 'newer' | 'older' | 'conflict';

/** What to do with an item that conflicts: keep what is here, take what comes, or have it as a copy besides. */
export const IMPORT_CHOICES = ['keep', 'take', 'both'] as const;
/** What is to become of an item of a pack whose id is taken. */
export type ImportChoice = (typeof IMPORT_CHOICES)[number];

/** What importing does with one item. */
export interface ImportEntry {
  readonly id: string;
  readonly kind: ItemKind;
  readonly name: string;
  readonly status: ImportStatus;
  /** What is different, in words. */
  readonly facts: string;
}

/** What importing a pack does, item by item, and what is wrong with it. */
export interface ImportReport {
  readonly entries: readonly ImportEntry[];
  /** Sentences; with any of them nothing is imported. */
  readonly problems: readonly string[];
}

/** The report with the records that are to be written. */
export interface ImportPlan {
  readonly report: ImportReport;
  /** The records as they will be, new ones and changed ones; none where there are problems. */
  readonly writes: readonly ItemRecord[];
}

function same(a: unknown, b: unknown): boolean {
  return canonicalJson(a) === canonicalJson(b);
}

/** Number of the first revision that both have and that differs; null where none does. */
function firstDifferent(a: readonly RevisionRecord[], b: readonly RevisionRecord[]): number | null {
  const common = Math.min(a.length, b.length);
  for (let i = 0; i < common; i++) if (!same(a[i], b[i])) return i + 1;
  return null;
}

function contents({ revisions, draft }: ItemRecord): string {
  const parts = [
    ...(revisions.length > 0 ? [counted(revisions.length, 'revision')] : []),
    ...(draft ? ['a draft'] : []),
  ];
  return parts.join(' and ');
}

/** What of the labels differs: what is not part of a revision. */
function labelDifferences(here: ItemRecord, coming: ItemRecord): string[] {
  const differs: (readonly [string, boolean])[] = [
    ['tags', !same(here.tags, coming.tags)],
    ['collection', here.collection !== coming.collection],
    [coming.retired ? 'retired there' : 'not retired there', here.retired !== coming.retired],
    ['draft', here.draft !== null && coming.draft !== null && !same(here.draft, coming.draft)],
  ];
  return differs.filter(([, isDifferent]) => isDifferent).map(([words]) => words);
}

function compareRecords(here: ItemRecord, coming: ItemRecord): Pick<ImportEntry, 'status' | 'facts'> {
  if (same(here, coming)) return { status: 'same', facts: contents(here) };
  if (here.kind !== coming.kind) return { status: 'conflict', facts: `here it is a ${here.kind}` };
  const different = firstDifferent(here.revisions, coming.revisions);
  if (different !== null) return { status: 'conflict', facts: `r${different} is another one here` };
  const labels = labelDifferences(here, coming);
  if (labels.length > 0) return { status: 'conflict', facts: `other ${labels.join(', ')}` };
  const [a, b] = [here.revisions.length, coming.revisions.length];
  if (b > a) return { status: 'newer', facts: a === 0 ? `published, r${b}` : `r${a} → r${b}` };
  if (b < a || coming.draft === null)
    return { status: 'older', facts: `here is r${a}${here.draft ? ' and a draft' : ''}` };
  return { status: 'newer', facts: 'with a draft' };
}

/** Revisions from the pack after those that both have, and the pack's draft where there is none here. */
function extended(here: ItemRecord, coming: ItemRecord): ItemRecord {
  const revisions = [...here.revisions, ...coming.revisions.slice(here.revisions.length)];
  return { ...here, revisions, draft: here.draft ?? coming.draft } as ItemRecord;
}

/** The pack's newest revision as the next one here, unless it is here already; labels from the pack; no draft is lost. */
function taken(here: ItemRecord, coming: ItemRecord): ItemRecord {
  const { tags, collection, retired } = coming;
  const labelled = { ...here, tags, collection, retired };
  if (firstDifferent(here.revisions, coming.revisions) === null) return extended(labelled as ItemRecord, coming);
  const newest = coming.revisions.at(-1) as RevisionRecord;
  const revision = here.revisions.length + 1;
  const summary = `From a pack: ${newest.summary}`.slice(0, 500);
  return {
    ...labelled,
    revisions: [...here.revisions, { ...newest, revision, summary }],
    draft: here.draft ?? coming.draft,
  } as ItemRecord;
}

function isItem(value: object): boolean {
  const { by } = value as { readonly by?: unknown };
  return by === 'look' || by === 'palette';
}

/** Where items name others: by their id alone, and recipes as what has an id. */
const NAMED_BY: readonly string[] = ['house', 'as', 'matches'];
const USED_BY: readonly string[] = ['preset', 'presets', 'rig'];

/** All references of a record to some items turned to others. */
function remapped(record: ItemRecord, ids: ReadonlyMap<string, string>): ItemRecord {
  if (ids.size === 0) return record;
  const to = (id: string): string => ids.get(id) ?? id;
  /** A recipe says its presets and its rig under their names, looks and palettes by what they are. */
  const remap = (value: unknown, isNamed = false): unknown => {
    if (Array.isArray(value)) return value.map((item) => remap(item, isNamed));
    if (value === null || typeof value !== 'object') return value;
    const fields = Object.entries(value).map(([key, item]) => {
      const isReference = NAMED_BY.includes(key) || (key === 'id' && ('is' in value || isNamed || isItem(value)));
      if (isReference && typeof item === 'string') return [key, to(item)];
      const curve = key === 'default' && typeof item === 'string' ? /^curve\s+(\S+)$/.exec(item) : null;
      return [key, curve ? `curve ${to(curve[1])}` : remap(item, record.kind === 'recipe' && USED_BY.includes(key))];
    });
    return Object.fromEntries(fields) as unknown;
  };
  return {
    ...record,
    revisions: record.revisions.map((revision) => ({ ...revision, body: remap(revision.body) })),
    draft: record.draft && { ...record.draft, body: remap(record.draft.body) },
  } as ItemRecord;
}

const FROM_A_PACK = ' (from a pack)';
const MOST_NAME = 200;

function copyOf(record: ItemRecord, id: string): ItemRecord {
  const named = <T extends { readonly name: string }>(entry: T): T => ({
    ...entry,
    name: `${entry.name.slice(0, MOST_NAME - FROM_A_PACK.length)}${FROM_A_PACK}`,
  });
  return {
    ...record,
    id,
    revisions: record.revisions.map(named),
    draft: record.draft && named(record.draft),
  } as ItemRecord;
}

function writesFor(
  coming: readonly ItemRecord[],
  hereById: ReadonlyMap<string, ItemRecord>,
  entries: readonly ImportEntry[],
  choices: Readonly<Record<string, ImportChoice>>,
  copies: ReadonlyMap<string, string>,
): ItemRecord[] {
  return coming.flatMap((original, i): ItemRecord[] => {
    const record = remapped(original, copies);
    const here = hereById.get(record.id);
    switch (entries[i].status) {
      case 'new':
        return [record];
      case 'same':
      case 'older':
        return [];
      case 'newer':
        return here ? [extended(here, record)] : [];
      case 'conflict': {
        const copy = copies.get(record.id);
        if (copy !== undefined) return [copyOf(record, copy)];
        return choices[record.id] === 'take' && here && here.kind === record.kind ? [taken(here, record)] : [];
      }
    }
  });
}

/**
 * Plans the import of a pack's items into a library: a report, and the records to write, all or none. A conflicting
 * item without a choice is kept as it is here. `newId` gives ids for copies.
 */
export function planImport(
  here: readonly ItemRecord[],
  coming: readonly ItemRecord[],
  choices: Readonly<Record<string, ImportChoice>> = {},
  newId: () => string = () => 'copy',
): ImportPlan {
  const hereById = new Map(here.map((record) => [record.id, record]));
  const entries = coming.map((record): ImportEntry => {
    const standing = hereById.get(record.id);
    const { id, kind } = record;
    const compared = standing ? compareRecords(standing, record) : { status: 'new' as const, facts: contents(record) };
    return { id, kind, name: frontOf(record).name, ...compared };
  });
  const problems: PackProblem[] = checkRecords(coming, here);
  if (problems.length > 0)
    return { report: { entries, problems: problems.slice(0, MOST_PROBLEMS).map(describePackProblem) }, writes: [] };
  const copied = entries.filter(({ id, status }) => status === 'conflict' && choices[id] === 'both');
  const copies = new Map(copied.map(({ id }) => [id, newId()]));
  const writes = writesFor(coming, hereById, entries, choices, copies);
  const refused = unwritable(writes);
  if (refused.length > 0) return { report: { entries, problems: refused }, writes: [] };
  return { report: { entries, problems: [] }, writes };
}

/** What of the records to write the library could not hold, such as a name that is too long with what is added to it. */
function unwritable(writes: readonly ItemRecord[]): string[] {
  return writes.flatMap((record): string[] => {
    const parsed = itemRecordSchema.safeParse(record);
    if (parsed.success) return [];
    const [{ path, message }] = dataProblems(parsed.error, 1);
    return [`“${frontOf(record).name}” cannot be imported. ${path}: ${message}`];
  });
}
