import express, { type Express } from 'express';
import helmet from 'helmet';
import { existsSync } from 'node:fs';
import { request as ask } from 'node:http';
import { join } from 'node:path';
import type { Logger } from 'pino';
import { answerErrors, HEADERS, loopbackOnly } from '../http';

/** What stands in front of the API. */
export interface FrontOptions {
  /** Socket that the API listens on. */
  readonly socketPath: string;
  /** Folder of the built web application; without it only the API is served. */
  readonly webFolder: string | null;
  readonly log: Logger;
}

/** Hands requests on to the API as they come, and its answers back, without keeping either in memory. */
function passOn(app: Express, socketPath: string): void {
  app.use('/api', (request, response, next) => {
    const { method, originalUrl: path, headers } = request;
    const asked = ask({ socketPath, method, path, headers }, (answer) => {
      response.writeHead(answer.statusCode ?? 502, answer.headers);
      answer.pipe(response);
      answer.on('error', () => response.destroy());
    });
    asked.on('error', (error) => (response.headersSent ? response.destroy() : next(error)));
    response.on('close', () => asked.destroy());
    request.pipe(asked);
  });
}

/** Serves the application's files; every other address gets the page, which then shows its own screen. */
function serveWeb(app: Express, folder: string): void {
  app.use(express.static(folder, { index: false, maxAge: '1h', immutable: false }));
  app.get('/{*splat}', (_request, response) => {
    response.set('Cache-Control', 'no-cache').sendFile(join(folder, 'index.html'));
  });
}

/**
 * What stands before the API: it says that the server is alive and serves the web application, whatever the API is
 * busy with in its own thread.
 */
export function createFront({ socketPath, webFolder, log }: FrontOptions): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(loopbackOnly);
  app.get('/api/health', helmet(HEADERS), (_request, response) => void response.json({ ok: true }));
  passOn(app, socketPath);
  app.use(helmet(HEADERS));
  if (webFolder !== null && existsSync(webFolder)) serveWeb(app, webFolder);
  app.use(answerErrors(log));
  return app;
}
