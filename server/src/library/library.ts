import {
  checkRecords,
  describePackProblem,
  itemRecordSchema,
  dataProblems,
  type CreateItem,
  type DraftRecord,
  type ItemKind,
  type ItemRecord,
  type LabelItems,
  type LibraryDetail,
  type LibraryEntry,
  type MoveDraft,
  type SaveDraft,
} from '@wexikine/core';
import type { Database, Queries } from '../database';
import { notFound, RequestProblem } from '../http';
import { usesOfItem } from '../scenes';
import { manyChanges, noteChange } from './changes-table';
import { dropDraft, manyDrafts, putDraft, type StandingDraft } from './drafts-table';
import {
  dropItem,
  manyItems,
  maybeItemForUpdate,
  putItems,
  setLabels,
  setPublished,
  type ItemRow,
} from './items-table';
import { manyEntries, manyRecords } from './records';
import { addRevisions } from './revisions-table';

const KIND_WORDS: Readonly<Record<ItemKind, string>> = {
  preset: 'preset',
  rig: 'rig',
  look: 'look',
  palette: 'palette',
  curve: 'curve',
  house: 'house value',
  recipe: 'recipe',
};

function refuse(message: string): RequestProblem {
  return new RequestProblem({ code: 'invalid', message });
}

/** One item as the library lists it. */
export async function oneEntry(queries: Queries, id: string): Promise<LibraryEntry> {
  const [entry] = await manyEntries(queries, [id]);
  if (!entry) throw notFound('library item', id);
  return entry;
}

/** Everything about one item, read at one moment. */
export function readDetail(database: Database, id: string): Promise<LibraryDetail> {
  return database.inTransaction(async (queries) => {
    const entry = await oneEntry(queries, id);
    const [record] = await manyRecords(queries, [id]);
    return { entry, record, changes: await manyChanges(queries, id), uses: await usesOfItem(queries, id) };
  });
}

/** Adds an item that is only a draft yet. */
export function createItem(
  database: Database,
  newId: string,
  request: CreateItem,
  when: string,
): Promise<LibraryEntry> {
  const { by, name, note, tags, collection, content } = request;
  const id = request.id ?? newId;
  return database.inTransaction(async (queries) => {
    if ((await manyItems(queries, [id])).length > 0) throw refuse(`There is an item with the id “${id}” already.`);
    const draft = { name, note, author: by, when, inReview: false, body: content.body } as DraftRecord;
    const { kind } = content;
    await putItems(
      queries,
      [{ format: 'wexikine-item-1', id, kind, tags, collection, retired: false, revisions: [], draft } as ItemRecord],
      when,
    );
    await putDraft(queries, id, draft, 1);
    await noteChange(queries, [id], { by, when, what: `Began the ${KIND_WORDS[kind]} “${name}”` });
    return oneEntry(queries, id);
  });
}

interface Held {
  readonly item: ItemRow;
  readonly standing: StandingDraft | null;
}

/** An item with its draft, held for this transaction; refuses a request that is based on another draft. */
async function hold(queries: Queries, id: string, base: number): Promise<Held> {
  const item = await maybeItemForUpdate(queries, id);
  if (!item) throw notFound('library item', id);
  const standing = (await manyDrafts(queries, [id])).get(id) ?? null;
  const version = standing?.version ?? 0;
  if (version === base) return { item, standing };
  const who = standing ? `${standing.draft.author} changed this draft in another window` : 'This draft is gone';
  throw new RequestProblem({
    code: 'conflict',
    message: `${who} since you opened it. Nothing of yours was lost or saved yet.`,
    version,
  });
}

/** Saves an item's draft; with base 0 the next revision is begun. */
export function saveDraft(
  database: Database,
  id: string,
  { by, base, name, note, content }: SaveDraft,
  when: string,
): Promise<LibraryEntry> {
  return database.inTransaction(async (queries) => {
    const { item, standing } = await hold(queries, id, base);
    if (item.kind !== content.kind)
      throw refuse(`“${id}” is a ${KIND_WORDS[item.kind]}, not a ${KIND_WORDS[content.kind]}.`);
    const draft = { name, note, author: by, when, inReview: standing?.draft.inReview ?? false, body: content.body };
    await putDraft(queries, id, draft as DraftRecord, base + 1);
    if (!standing) await noteChange(queries, [id], { by, when, what: `Began a draft of r${item.published + 1}` });
    return oneEntry(queries, id);
  });
}

/** Refuses a record that could not go into a pack: what is published must be sound, and so must all that it needs. */
async function refuseUnsound(queries: Queries, record: ItemRecord): Promise<void> {
  const parsed = itemRecordSchema.safeParse(record);
  if (!parsed.success) {
    const [{ message }] = dataProblems(parsed.error, 1);
    throw refuse(`It cannot be published yet. ${message}`);
  }
  const others = (await manyRecords(queries, null)).filter(({ id }) => id !== record.id);
  const [problem] = checkRecords([record], others);
  if (problem) throw refuse(`It cannot be published yet. ${describePackProblem(problem)}`);
}

async function publish(
  queries: Queries,
  { item, draft }: { item: ItemRow; draft: DraftRecord },
  { by, summary }: MoveDraft,
  when: string,
): Promise<void> {
  const [record] = await manyRecords(queries, [item.id]);
  const { inReview: _inReview, ...content } = draft;
  const revision = item.published + 1;
  const made = { ...content, revision, author: by, when, summary };
  const next = { ...record, revisions: [...record.revisions, made], draft: null } as ItemRecord;
  await refuseUnsound(queries, next);
  await addRevisions(queries, [next]);
  await setPublished(queries, item.id, revision);
  await dropDraft(queries, item.id);
  await noteChange(queries, [item.id], {
    by,
    when,
    what: `Published r${revision}${summary === '' ? '' : `: ${summary}`}`,
  });
}

/** Moves a draft on. Publishing checks it, gives it its number, and from then on it never changes. */
export function moveDraft(database: Database, id: string, move: MoveDraft, when: string): Promise<LibraryEntry> {
  return database.inTransaction(async (queries) => {
    const { item, standing } = await hold(queries, id, move.base);
    const draft = (standing as StandingDraft).draft;
    if (move.to === 'published') {
      await publish(queries, { item, draft }, move, when);
    } else {
      const inReview = move.to === 'in review';
      await putDraft(queries, id, { ...draft, inReview }, move.base + 1);
      const what = inReview ? `Sent r${item.published + 1} for review` : `Took r${item.published + 1} back from review`;
      await noteChange(queries, [id], { by: move.by, when, what });
    }
    return oneEntry(queries, id);
  });
}

/** Throws a draft away; an item of which nothing was published goes with it. */
export function discardDraft(
  database: Database,
  id: string,
  { by, base }: { readonly by: string; readonly base: number },
  when: string,
): Promise<void> {
  return database.inTransaction(async (queries) => {
    const { item } = await hold(queries, id, base);
    await dropDraft(queries, id);
    await noteChange(queries, [id], { by, when, what: `Discarded the draft of r${item.published + 1}` });
    if (item.published === 0) await dropItem(queries, id);
  });
}

function labelWords({ addTags = [], removeTags = [], collection, retired }: LabelItems): string {
  const words = [
    ...(addTags.length > 0 ? [`Tagged ${addTags.join(', ')}`] : []),
    ...(removeTags.length > 0 ? [`Took off the tags ${removeTags.join(', ')}`] : []),
    ...(collection === undefined
      ? []
      : [collection === null ? 'Taken out of its collection' : `Moved to “${collection}”`]),
    ...(retired === undefined ? [] : [retired ? 'Retired' : 'Brought back from retirement']),
  ];
  return words.join('; ') || 'Nothing changed';
}

function labelled(row: ItemRow, { addTags = [], removeTags = [], collection, retired }: LabelItems): ItemRow {
  const kept = row.tags.filter((tag) => !removeTags.includes(tag) && !addTags.includes(tag));
  return {
    ...row,
    tags: [...kept, ...addTags],
    collection: collection === undefined ? row.collection : collection,
    retired: retired ?? row.retired,
  };
}

/** Changes labels of several items, of all or of none. A draft of which nothing is published cannot retire. */
export function labelItems(database: Database, request: LabelItems, when: string): Promise<LibraryEntry[]> {
  return database.inTransaction(async (queries) => {
    const rows = await manyItems(queries, request.ids);
    const missing = request.ids.find((id) => !rows.some((row) => row.id === id));
    if (missing !== undefined) throw notFound('library item', missing);
    const drafts = request.retired === true ? rows.filter(({ published }) => published === 0) : [];
    if (drafts.length > 0) {
      throw refuse(`“${drafts[0].id}” was never published, so it cannot retire. Discard its draft instead.`);
    }
    for (const row of rows) await setLabels(queries, row.id, labelled(row, request));
    await noteChange(queries, request.ids, { by: request.by, when, what: labelWords(request) });
    return manyEntries(queries, request.ids);
  });
}
