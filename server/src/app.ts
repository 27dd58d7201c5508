import compression from 'compression';
import type { Checker } from './checking';
import express, { type Express } from 'express';
import helmet from 'helmet';
import type { Logger } from 'pino';
import type { Database } from './database';
import { createHub, eventRoutes } from './events';
import { answerErrors, HEADERS, loopbackOnly, notFound, type Surroundings } from './http';
import { fileRoutes } from './files';
import { libraryRoutes } from './library';
import { sceneRoutes } from './scenes';

/** What the API is made of. */
export interface AppOptions extends Surroundings {
  readonly database: Database;
  readonly log: Logger;
  readonly checker: Checker;
}

/** The API under /api. It may be busy for a while; what must always be answered is answered in front of it (`front`). */
export function createApp({ database, log, checker, ...surroundings }: AppOptions): Express {
  const app = express();
  const hub = createHub();
  app.disable('x-powered-by');
  app.use(helmet(HEADERS));
  // Packing hard costs more than it saves on the way from this machine to itself.
  app.use(loopbackOnly, compression({ level: 1 }));
  app.get('/api/health', (_request, response) => void response.json({ ok: true }));
  app.use('/api/scenes', sceneRoutes(database, hub, checker, surroundings));
  app.use('/api/library', libraryRoutes(database, hub, checker, surroundings));
  app.use('/api/files', fileRoutes(database, surroundings));
  app.use('/api/events', eventRoutes(hub));
  app.use('/api', (request) => {
    throw notFound('address', request.originalUrl);
  });
  app.use(answerErrors(log));
  return app;
}
