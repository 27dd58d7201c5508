import { PGlite } from '@electric-sql/pglite';
import {
  planImport,
  readPack,
  recordOf,
  STARTER_LIBRARY,
  writePack,
  type ItemRecord,
  type LibraryEntry,
} from '@wexikine/core';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openDatabase } from '../../server/src/database';
import { writeRecords } from '../../server/src/library';
import { manyEntries } from '../../server/src/library/records';
import { countFacets, narrow, NO_FACETS } from '../../web/src/app/library/facets';
import { rowsOf, sortRows } from '../../web/src/app/library/rows';
import { createSearch } from '../../web/src/app/library/search';
import { median, report } from './measure';

const WHEN = '2026-01-01T00:00:00.000Z';
const NOBODY = { favourites: [], recent: [] };
const ITEMS = 2_000;
const FEW = 200;

/** Copies of the starter library under other ids and names, referring to the first ones' curves and house values. */
function manyRecords(count: number): ItemRecord[] {
  const starter = STARTER_LIBRARY.map(recordOf);
  return Array.from({ length: count }, (_, i) => {
    if (i < starter.length) return starter[i];
    const source = starter[i % starter.length];
    const revisions = source.revisions.map((revision) => ({ ...revision, name: `${revision.name} ${i}` }));
    return { ...source, id: `${source.id}-${i}`, tags: [...source.tags, `set ${i % 9}`], revisions } as ItemRecord;
  });
}

/** A library of many items, from the database to what the page shows; parsing its JSON is what any page must do. */
export async function benchLibrary(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'wexikine-bench-'));
  const database = await openDatabase(
    new PGlite(join(folder, 'database')),
    join(process.cwd(), 'server/migrations'),
    {},
  );
  const records = manyRecords(ITEMS);
  await database.inTransaction((queries) => writeRecords(queries, records.slice(0, FEW), WHEN));
  const few = await median(() => manyEntries(database, null), 9);
  await database.inTransaction((queries) => writeRecords(queries, records.slice(FEW), WHEN));
  const many = await median(() => manyEntries(database, null), 9);
  const entries = await manyEntries(database, null);
  await database.close();
  rmSync(folder, { recursive: true, force: true });
  report(
    `listing ${ITEMS} items from the database (${FEW}: ${few.toFixed(0)} ms)`,
    `${many.toFixed(0)} ms`,
    'under 1,000 ms',
    many < 1_000,
  );
  await benchPage(entries);
  await benchPack(records);
}

async function benchPage(entries: readonly LibraryEntry[]): Promise<void> {
  const text = JSON.stringify(entries);
  const parse = await median(() => JSON.parse(text) as unknown, 9);
  const rows = rowsOf(entries);
  const sorted = sortRows(rows, 'use');
  const items = rows.map(({ item }) => item);
  const search = createSearch(items);
  const ratio = (name: string, time: number, most: number): void =>
    report(
      `  ${name}`,
      `${time.toFixed(1)} ms, ${(time / parse).toFixed(2)}×`,
      `at most ${most}× parsing`,
      time <= most * parse,
    );
  report(`parsing the JSON of ${ITEMS} items, the reference`, `${parse.toFixed(0)} ms`, 'any', true);
  ratio('preparing and sorting them', await median(() => sortRows(rowsOf(entries), 'use'), 9), 1);
  ratio(
    'counting and narrowing by a facet',
    await median(() => {
      countFacets(sorted, { ...NO_FACETS, phase: 'exit' }, NOBODY);
      return narrow(sorted, { ...NO_FACETS, phase: 'exit' }, NOBODY);
    }, 9),
    1,
  );
  ratio('making the search index, once', await median(() => createSearch(items), 5), 8);
  for (const query of ['s', 'settle', 'setle edge', 'nothing lik it']) {
    ratio(`searching “${query}”`, await median(() => search(query), 9), 1);
  }
}

async function benchPack(records: readonly ItemRecord[]): Promise<void> {
  const bytes = writePack(records);
  const write = await median(() => writePack(records), 3, 1);
  const read = await median(() => readPack(bytes), 3, 1);
  const plan = await median(() => planImport([], records), 3, 1);
  const size = `${(bytes.length / 1024).toFixed(0)} kB`;
  report(`packing ${ITEMS} items (${size})`, `${write.toFixed(0)} ms`, 'under 5,000 ms', write < 5_000);
  report('  reading the pack', `${read.toFixed(0)} ms`, 'under 5,000 ms', read < 5_000);
  report('  checking all of it against a library', `${plan.toFixed(0)} ms`, 'under 10,000 ms', plan < 10_000);
}
