import { PGlite } from '@electric-sql/pglite';
import type { Express } from 'express';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { pino } from 'pino';
import { createApp } from '../src/app';
import { createInlineChecker } from '../src/checking';
import { openDatabase, type Database } from '../src/database';

export interface FreshApp {
  readonly app: Express;
  readonly database: Database;
  readonly close: () => Promise<void>;
}

/** The application over a migrated, empty database of its own; ids and times count up. */
export async function freshApp(): Promise<FreshApp> {
  const dump = readFileSync(process.env['WEXIKINE_MIGRATED'] ?? '');
  const pglite = new PGlite({ loadDataDir: new Blob([dump]) });
  const database = await openDatabase(pglite, join(__dirname, '../migrations'));
  let count = 0;
  const newId = (): string => `id-${++count}`;
  const now = (): string => new Date(Date.UTC(2026, 0, 1, 12, 0, ++count)).toISOString();
  const app = createApp({ database, log: pino({ level: 'silent' }), newId, now, checker: createInlineChecker() });
  return { app, database, close: () => database.close() };
}
