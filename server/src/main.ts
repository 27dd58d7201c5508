import { PGlite } from '@electric-sql/pglite';
import { nanoid } from 'nanoid';
import { mkdirSync } from 'node:fs';
import type { Server } from 'node:http';
import { join, resolve } from 'node:path';
import { pino } from 'pino';
import { createApp } from './app';
import { FolderInUse, lockFolder, openDatabase, type Database } from './database';
import { seed } from './seed';

const HOST = '127.0.0.1';
const DEFAULT_PORT = 4870;

const root = resolve(import.meta.dirname, '../..');
const log = pino({ level: process.env['WEXIKINE_LOG'] ?? 'warn' });

function say(line: string): void {
  process.stdout.write(`${line}\n`);
}

function fail(line: string): never {
  process.stderr.write(`${line}\n`);
  process.exit(1);
}

function readPort(): number {
  const port = Number(process.env['PORT'] ?? DEFAULT_PORT);
  if (Number.isInteger(port) && port >= 0 && port <= 65_535) return port;
  return fail(`PORT is “${process.env['PORT'] ?? ''}”, which is not a port. Give a whole number from 1 to 65535.`);
}

function listen(app: ReturnType<typeof createApp>, port: number): Promise<Server> {
  return new Promise((done, failed) => {
    const server = app.listen(port, HOST);
    server.once('listening', () => done(server));
    server.once('error', failed);
  });
}

function closeOnSignal(server: Server, database: Database, unlock: () => void): void {
  let isClosing = false;
  const close = async (): Promise<void> => {
    if (isClosing) return;
    isClosing = true;
    server.close();
    server.closeAllConnections();
    await database.close();
    unlock();
    say('Wexikine has closed.');
    process.exit(0);
  };
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const) {
    process.on(signal, () => void close());
  }
}

async function start(): Promise<void> {
  const folder = resolve(process.env['WEXIKINE_DATA'] ?? join(root, 'data'));
  const port = readPort();
  const unlock = lockFolder(folder);
  process.on('exit', (code) => code !== 0 && unlock());
  const databaseFolder = join(folder, 'database');
  mkdirSync(databaseFolder, { recursive: true });
  const database = await openDatabase(new PGlite(databaseFolder), join(root, 'server/migrations'));
  const now = (): string => new Date().toISOString();
  if (await seed(database, now())) say('A new data folder was filled with the starter library and the demo scenes.');
  const newId = (): string => nanoid(12);
  const app = createApp({ database, log, newId, now, webFolder: join(root, 'web/dist/browser') });
  const server = await listen(app, port);
  closeOnSignal(server, database, unlock);
  const address = server.address();
  const bound = typeof address === 'object' && address ? address.port : port;
  say(`Wexikine is ready at http://${HOST}:${bound}/`);
}

start().catch((error: NodeJS.ErrnoException) => {
  if (error instanceof FolderInUse) fail(error.message);
  if (error.code === 'EADDRINUSE') fail(`Port ${readPort()} is in use. Choose another one, such as PORT=4871.`);
  log.error(error);
  fail(`Wexikine could not start: ${error.message}`);
});
