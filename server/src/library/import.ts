import {
  dataProblems,
  itemRecordSchema,
  type ImportAnswer,
  type ImportRequest,
  type ItemRecord,
  type TokensAnswer,
  type TokensRequest,
} from '@wexikine/core';
import type { Database, Queries } from '../database';
import type { Checker } from '../checking';
import { invalid, RequestProblem } from '../http';
import { lastChange, noteChange } from './changes-table';
import { putDrafts, manyDrafts } from './drafts-table';
import { putItems } from './items-table';
import { manyRecords } from './records';
import { addRevisions } from './revisions-table';

/** Writes items as they shall be: labels, revisions that are not there yet, and drafts where none stands. */
export async function writeRecords(queries: Queries, records: readonly ItemRecord[], when: string): Promise<void> {
  await putItems(queries, records, when);
  await addRevisions(queries, records);
  const ids = records.map(({ id }) => id);
  const standing = await manyDrafts(queries, ids);
  await putDrafts(
    queries,
    records.flatMap(({ id, draft }) => (draft && !standing.has(id) ? [{ item: id, draft }] : [])),
  );
}

interface Written {
  readonly ids: readonly string[];
}

const TRIES = 5;

/**
 * Plans a change of the library without holding it, since planning may take long, and writes what was planned in one
 * transaction where the library still stands as it did; else it is planned anew.
 */
async function planThenWrite<P, R>(
  database: Database,
  plan: (here: readonly ItemRecord[]) => Promise<P>,
  write: (queries: Queries, planned: P) => Promise<R>,
): Promise<R> {
  for (let round = 0; round < TRIES; round++) {
    const mark = await lastChange(database);
    const planned = await plan(await manyRecords(database, null));
    const done = await database.inTransaction(async (queries) =>
      (await lastChange(queries)) === mark ? { result: await write(queries, planned) } : null,
    );
    if (done) return done.result;
  }
  throw new RequestProblem({
    code: 'busy',
    message: 'The library is being changed by others all the time. Nothing was changed; try again in a moment.',
  });
}

/** Reports what a pack would bring, and unless it is a dry run brings all of it or nothing. */
export async function importPack(
  database: Database,
  checker: Checker,
  { zip, dry, choices, by }: ImportRequest,
  when: string,
  newId: () => string,
): Promise<ImportAnswer & Written> {
  const copies = Object.values(choices).filter((choice) => choice === 'both');
  const ids = copies.map(() => newId());
  return planThenWrite(
    database,
    (here) => checker.pack({ zip, choices, here, ids }),
    async (queries, { report, writes }) => {
      if (dry || writes.length === 0) return { ...report, written: 0, ids: [] };
      const written = writes.map(({ id }) => id);
      await writeRecords(queries, writes, when);
      await noteChange(queries, written, { by, when, what: 'Imported from a pack' });
      return { ...report, written: written.length, ids: written };
    },
  );
}

/** Reports what a design tokens file would change in the house values, and unless it is a dry run changes it. */
export async function importTokens(
  database: Database,
  checker: Checker,
  { text, file, dry, by }: TokensRequest,
  when: string,
): Promise<TokensAnswer & Written> {
  return planThenWrite(
    database,
    (here) => checker.tokens({ text, here, context: { by, when, file } }),
    async (queries, read) => {
      if (!read.ok) throw invalid(read.message);
      const { plan } = read;
      for (const record of plan.writes) refuseUnwritable(record);
      const skipped = [...read.skipped, ...plan.refused];
      if (dry || plan.writes.length === 0) return { changes: plan.changes, skipped, written: 0, ids: [] };
      const ids = plan.writes.map(({ id }) => id);
      await writeRecords(queries, plan.writes, when);
      await noteChange(queries, ids, { by, when, what: `Read from ${file}` });
      return { changes: plan.changes, skipped, written: ids.length, ids };
    },
  );
}

function refuseUnwritable(record: ItemRecord): void {
  const parsed = itemRecordSchema.safeParse(record);
  if (parsed.success) return;
  const [{ message }] = dataProblems(parsed.error, 1);
  const name = record.revisions.at(-1)?.name ?? record.id;
  throw invalid(`The token “${name}” cannot be read. ${message}`);
}
