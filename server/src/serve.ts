import { mkdtempSync, rmSync } from 'node:fs';
import type { Server } from 'node:http';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { Worker } from 'node:worker_threads';
import { pino } from 'pino';
import type { ApiData, ApiMessage } from './api.worker';
import { FolderInUse, lockFolder } from './database';
import { createFront } from './front';

/**
 * Milliseconds that an idle connection is kept. With the five seconds that are usual, a request can meet a connection at
 * the moment in which it is closed, and is lost.
 */
const KEPT_OPEN = 75_000;

const HOST = '127.0.0.1';
const DEFAULT_PORT = 4870;

const root = resolve(import.meta.dirname, '../..');
const logLevel = process.env['WEXIKINE_LOG'] ?? 'warn';
const log = pino({ level: logLevel });

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

function listen(app: ReturnType<typeof createFront>, port: number): Promise<Server> {
  return new Promise((done, failed) => {
    const server = app.listen(port, HOST);
    server.keepAliveTimeout = KEPT_OPEN;
    server.once('listening', () => done(server));
    server.once('error', failed);
  });
}

/** Starts the API's thread, and waits until it is ready. */
function startApi(data: ApiData): Promise<{ readonly api: Worker; readonly isNew: boolean }> {
  const api = new Worker(new URL('./api.worker.js', import.meta.url), { workerData: data });
  return new Promise((done, failed) => {
    api.once('error', failed);
    api.once('message', (message: ApiMessage) => {
      if (message.type === 'ready') done({ api, isNew: message.isNew });
      else failed(new Error(message.type === 'failed' ? message.message : 'It closed while it started.'));
    });
  });
}

/** Closes what is open, once; `server` gives what serves by then. */
function closing(api: Worker, server: () => Server | null): () => Promise<void> {
  let isClosing = false;
  const close = (): Promise<void> =>
    new Promise((done) => {
      isClosing = true;
      server()?.close();
      server()?.closeAllConnections();
      api.on('message', ({ type }: ApiMessage) => type === 'closed' && done());
      api.postMessage('close');
    });
  const end = (): void => {
    if (isClosing) return;
    void close().then(() => {
      say('Wexikine has closed.');
      process.exit(0);
    });
  };
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const) process.on(signal, end);
  api.once('exit', () => {
    if (!isClosing) fail('The part that keeps the data has ended. Start Wexikine again; what was saved is there.');
  });
  return close;
}

async function start(page: Promise<unknown>): Promise<void> {
  const folder = resolve(process.env['WEXIKINE_DATA'] ?? join(root, 'data'));
  const port = readPort();
  const unlock = lockFolder(folder);
  // A folder that only this user can enter: nobody else reaches the API past the server in front of it.
  const socketFolder = mkdtempSync(join(tmpdir(), 'wexikine-'));
  process.on('exit', () => {
    rmSync(socketFolder, { recursive: true, force: true });
    unlock();
  });
  const socketPath = join(socketFolder, 'api.sock');
  const { api, isNew } = await startApi({ folder, migrations: join(root, 'server/migrations'), socketPath, logLevel });
  if (isNew) say('A new data folder was filled with the starter library and the demo scenes.');
  let server: Server | null = null;
  const close = closing(api, () => server);
  try {
    await page;
  } catch (error) {
    await close();
    throw error;
  }
  server = await listen(createFront({ socketPath, webFolder: join(root, 'web/dist/browser'), log }), port);
  const address = server.address();
  const bound = typeof address === 'object' && address ? address.port : port;
  say(`Wexikine is ready at http://${HOST}:${bound}/`);
}

/**
 * Opens the data folder, which takes its time the first time, and serves as soon as the page is built, too. What cannot be
 * is said, and ends the process.
 */
export async function serve(page: Promise<unknown> = Promise.resolve()): Promise<void> {
  // Until it is waited for, somebody has to hear of a build that fails.
  page.catch(() => undefined);
  await start(page).catch((error: NodeJS.ErrnoException) => {
    if (error instanceof FolderInUse) fail(error.message);
    if (error.code === 'EADDRINUSE') fail(`Port ${readPort()} is in use. Choose another one, such as PORT=4871.`);
    if (error.code === 'ENOSPC') fail('The disk is full, so the data folder cannot be opened. Make room on it first.');
    fail(`Wexikine could not start: ${error.message}`);
  });
}
