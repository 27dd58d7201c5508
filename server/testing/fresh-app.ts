import { PGlite } from '@electric-sql/pglite';
import { afterAll } from '@jest/globals';
import type { Express } from 'express';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { pino } from 'pino';
import { createApp } from '../src/app';
import { createInlineChecker } from '../src/checking';
import { openDatabase, type Database } from '../src/database';
import { UPGRADES } from '../src/scenes';

export interface FreshApp {
  readonly app: Express;
  readonly database: Database;
  readonly close: () => Promise<void>;
}

let opened: Promise<Database> | null = null;

/** What stays open keeps the process of the tests from ending. */
afterAll(async () => (await opened)?.close());

async function openMigrated(): Promise<Database> {
  const dump = readFileSync(process.env['WEXIKINE_MIGRATED'] ?? '');
  const pglite = new PGlite({ loadDataDir: new Blob([dump]) });
  return openDatabase(pglite, join(__dirname, '../migrations'), UPGRADES);
}

/** Empties every table. Published revisions are kept from that by a trigger, which is set aside for a moment. */
async function empty(database: Database): Promise<void> {
  const tables = await database.many<{ name: string }>(
    `select tablename as name from pg_tables where schemaname = 'public' and tablename <> 'migrations'`,
  );
  await database.run('alter table revisions disable trigger user');
  await database.run(`truncate ${tables.map(({ name }) => name).join(', ')} restart identity`);
  await database.run('alter table revisions enable trigger user');
}

/**
 * The application over a migrated, empty database; ids and times count up. Tests of one file share a database, which is
 * emptied for each: opening one takes a second.
 */
export async function freshApp(): Promise<FreshApp> {
  const database = await (opened ??= openMigrated());
  await empty(database);
  return appOver(database, () => Promise.resolve());
}

/** The same over a database of its own, for tests of what goes from one to another. */
export async function otherApp(): Promise<FreshApp> {
  const database = await openMigrated();
  return appOver(database, () => database.close());
}

function appOver(database: Database, close: () => Promise<void>): FreshApp {
  let count = 0;
  const newId = (): string => `id-${++count}`;
  const now = (): string => new Date(Date.UTC(2026, 0, 1, 12, 0, ++count)).toISOString();
  const app = createApp({ database, log: pino({ level: 'silent' }), newId, now, checker: createInlineChecker() });
  return { app, database, close };
}
