import {
  dataProblems,
  describePackProblem,
  itemRecordSchema,
  planImport,
  planTokens,
  readPack,
  readTokens,
  type ImportAnswer,
  type ImportRequest,
  type ItemRecord,
  type TokensAnswer,
  type TokensRequest,
} from '@wexikine/core';
import type { Database, Queries } from '../database';
import { RequestProblem } from '../http';
import { noteChange } from './changes-table';
import { putDraft, manyDrafts } from './drafts-table';
import { putItems } from './items-table';
import { manyRecords } from './records';
import { addRevisions } from './revisions-table';

/** Writes items as they shall be: labels, revisions that are not there yet, and drafts where none stands. */
export async function writeRecords(queries: Queries, records: readonly ItemRecord[], when: string): Promise<void> {
  await putItems(queries, records, when);
  await addRevisions(queries, records);
  const ids = records.map(({ id }) => id);
  const standing = await manyDrafts(queries, ids);
  for (const { id, draft } of records) if (draft && !standing.has(id)) await putDraft(queries, id, draft, 1);
}

interface Written {
  readonly ids: readonly string[];
}

/** Reports what a pack would bring, and unless it is a dry run brings all of it or nothing. */
export async function importPack(
  database: Database,
  { zip, dry, choices, by }: ImportRequest,
  when: string,
  newId: () => string,
): Promise<ImportAnswer & Written> {
  const read = readPack(new Uint8Array(Buffer.from(zip, 'base64')));
  if (!read.ok) return { entries: [], problems: read.problems.map(describePackProblem), written: 0, ids: [] };
  return database.inTransaction(async (queries) => {
    const plan = planImport(await manyRecords(queries, null), read.records, choices, newId);
    if (dry || plan.writes.length === 0) return { ...plan.report, written: 0, ids: [] };
    const ids = plan.writes.map(({ id }) => id);
    await writeRecords(queries, plan.writes, when);
    await noteChange(queries, ids, { by, when, what: 'Imported from a pack' });
    return { ...plan.report, written: ids.length, ids };
  });
}

/** Reports what a design tokens file would change in the house values, and unless it is a dry run changes it. */
export async function importTokens(
  database: Database,
  { text, file, dry, by }: TokensRequest,
  when: string,
): Promise<TokensAnswer & Written> {
  const read = readTokens(text);
  if (!read.ok) throw new RequestProblem({ code: 'invalid', message: read.message });
  return database.inTransaction(async (queries) => {
    const plan = planTokens(read.tokens, await manyRecords(queries, null), { by, when, file });
    for (const record of plan.writes) refuseUnwritable(record);
    const skipped = [...read.skipped, ...plan.refused];
    if (dry || plan.writes.length === 0) return { changes: plan.changes, skipped, written: 0, ids: [] };
    const ids = plan.writes.map(({ id }) => id);
    await writeRecords(queries, plan.writes, when);
    await noteChange(queries, ids, { by, when, what: `Read from ${file}` });
    return { changes: plan.changes, skipped, written: ids.length, ids };
  });
}

function refuseUnwritable(record: ItemRecord): void {
  const parsed = itemRecordSchema.safeParse(record);
  if (parsed.success) return;
  const [{ message }] = dataProblems(parsed.error, 1);
  const name = record.revisions.at(-1)?.name ?? record.id;
  throw new RequestProblem({ code: 'invalid', message: `The token “${name}” cannot be read. ${message}` });
}
