import { PGlite } from '@electric-sql/pglite';
import { nanoid } from 'nanoid';
import { join } from 'node:path';
import { parentPort, workerData } from 'node:worker_threads';
import { pino } from 'pino';
import { createApp } from './app';
import { createChecker } from './checking';
import { makeEmptyDatabase, openDatabase } from './database';
import { forLog } from './http';
import { purgeDeleted, UPGRADES } from './scenes';
import { seed } from './seed';

/** What the thread is started with. */
export interface ApiData {
  readonly folder: string;
  readonly migrations: string;
  readonly socketPath: string;
  readonly logLevel: string;
}

/** What the thread says. */
export type ApiMessage =
  | { readonly type: 'ready'; readonly isNew: boolean }
  | { readonly type: 'closed' }
  | { readonly type: 'failed'; readonly message: string };

const DAY_MS = 24 * 60 * 60 * 1000;

function tell(message: ApiMessage): void {
  parentPort?.postMessage(message);
}

/** The API and its database in a thread of their own, so that the server in front of them always answers. */
async function start({ folder, migrations, socketPath, logLevel }: ApiData): Promise<void> {
  const log = pino({ level: logLevel });
  const databaseFolder = join(folder, 'database');
  await makeEmptyDatabase(databaseFolder);
  const database = await openDatabase(new PGlite(databaseFolder), migrations, UPGRADES);
  const now = (): string => new Date().toISOString();
  const isNew = await seed(database, now());
  const purge = (): Promise<void> =>
    purgeDeleted(database, now()).catch((error: unknown) => log.error({ error: forLog(error) }, 'purging failed'));
  await purge();
  const purging = setInterval(() => void purge(), DAY_MS);
  const checker = createChecker(new URL('./check.worker.js', import.meta.url));
  const app = createApp({ database, log, newId: () => nanoid(12), now, checker });
  const server = app.listen(socketPath, () => tell({ type: 'ready', isNew }));
  parentPort?.once('message', () => {
    clearInterval(purging);
    server.close();
    server.closeAllConnections();
    void checker
      .close()
      .then(() => database.close())
      .then(() => tell({ type: 'closed' }));
  });
}

start(workerData as ApiData).catch((error: Error) => tell({ type: 'failed', message: error.message }));
