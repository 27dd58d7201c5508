import compression from 'compression';
import express, { type Express } from 'express';
import helmet from 'helmet';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import type { Logger } from 'pino';
import type { Database } from './database';
import { createHub, eventRoutes } from './events';
import { answerErrors, loopbackOnly, notFound, type Surroundings } from './http';
import { libraryRoutes } from './library';
import { sceneRoutes } from './scenes';

const BODY_LIMIT = '64mb';

const CONTENT_POLICY = {
  defaultSrc: ["'self'"],
  scriptSrc: ["'self'"],
  styleSrc: ["'self'", "'unsafe-inline'"],
  imgSrc: ["'self'", 'data:', 'blob:'],
  connectSrc: ["'self'", 'data:', 'blob:'],
  workerSrc: ["'self'", 'blob:'],
  fontSrc: ["'self'", 'data:'],
  upgradeInsecureRequests: null,
};

export interface AppOptions extends Surroundings {
  readonly database: Database;
  readonly log: Logger;
  /** Folder of the built web application; without it only the API is served. */
  readonly webFolder: string | null;
}

/** Serves the application's files; every other address gets the page, which then shows its own screen. */
function serveWeb(app: Express, folder: string): void {
  app.use(express.static(folder, { index: false, maxAge: '1h', immutable: false }));
  app.get('/{*splat}', (_request, response) => {
    response.set('Cache-Control', 'no-cache').sendFile(join(folder, 'index.html'));
  });
}

/** The HTTP application: the API under /api, and the web application. */
export function createApp({ database, log, webFolder, ...surroundings }: AppOptions): Express {
  const app = express();
  const hub = createHub();
  app.disable('x-powered-by');
  app.use(helmet({ contentSecurityPolicy: { directives: CONTENT_POLICY }, strictTransportSecurity: false }));
  // Packing hard costs more than it saves on the way from this machine to itself.
  app.use(loopbackOnly, compression({ level: 1 }));
  app.use('/api', express.json({ limit: BODY_LIMIT }));
  app.get('/api/health', (_request, response) => void response.json({ ok: true }));
  app.use('/api/scenes', sceneRoutes(database, hub, surroundings));
  app.use('/api/library', libraryRoutes(database, hub, surroundings));
  app.use('/api/events', eventRoutes(hub));
  app.use('/api', (request) => {
    throw notFound('address', request.originalUrl);
  });
  if (webFolder !== null && existsSync(webFolder)) serveWeb(app, webFolder);
  app.use(answerErrors(log));
  return app;
}
