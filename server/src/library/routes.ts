import { Router } from 'express';
import type { Database } from '../database';
import { notFound } from '../http';
import { manyItems, manyRevisions } from './library-table';

/** Routes under /api/library. */
export function libraryRoutes(database: Database): Router {
  const router = Router();
  router.get('/', async (_request, response) => {
    response.json(await manyItems(database));
  });
  router.get('/:id/revisions', async (request, response) => {
    const revisions = await manyRevisions(database, request.params.id);
    if (revisions.length === 0) throw notFound('library item', request.params.id);
    response.json(revisions);
  });
  return router;
}
