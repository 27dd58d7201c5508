import { byWhomSchema, renameSceneSchema, type CreateScene, type SaveRequest } from '@wexikine/core';
import { Router } from 'express';
import type { Database } from '../database';
import type { Hub } from '../events';
import { BODY_LIMITS, idParameter, readBody, readLargeBody, takeBody, type Surroundings } from '../http';
import type { Checker } from '../checking';
import { copyScene, createScene, deleteScene, readScene, renameScene, saveScene } from './scenes';
import { manySummaries } from './scenes-table';

/** Routes under /api/scenes. */
export function sceneRoutes(database: Database, hub: Hub, checker: Checker, { newId, now }: Surroundings): Router {
  const router = Router();
  router.param('id', idParameter('scene'));
  const [small, large] = [takeBody(BODY_LIMITS.small), takeBody(BODY_LIMITS.scene)];
  const tell = (id: string, version: number, by: string, what: string): void =>
    hub.tell({ topic: 'scene', id, version, by, what });
  router.get('/', async (_request, response) => {
    response.json(await manySummaries(database));
  });
  router.post('/', large, async (request, response) => {
    const body = await readLargeBody<CreateScene>(checker, 'createScene', request);
    response.status(201).json(await createScene(database, newId(), body, now()));
  });
  router.get('/:id', async (request, response) => {
    response.json(await readScene(database, request.params.id));
  });
  router.put('/:id', large, async (request, response) => {
    const body = await readLargeBody<SaveRequest>(checker, 'saveScene', request);
    const { id } = request.params;
    const version = await saveScene(database, id, body, now());
    tell(id, version, body.by, body.what);
    response.json({ version });
  });
  router.patch('/:id', small, async (request, response) => {
    const { name, by } = readBody(renameSceneSchema, request);
    const { id } = request.params;
    const version = await renameScene(database, id, name, by, now());
    tell(id, version, by, `Rename to “${name}”`);
    response.json({ version });
  });
  router.post('/:id/copy', small, async (request, response) => {
    readBody(byWhomSchema, request);
    response.status(201).json(await copyScene(database, request.params.id, newId(), now()));
  });
  router.delete('/:id', async (request, response) => {
    await deleteScene(database, request.params.id, now());
    response.status(204).end();
  });
  router.post('/:id/restore', async (request, response) => {
    await deleteScene(database, request.params.id, null);
    response.status(204).end();
  });
  return router;
}
