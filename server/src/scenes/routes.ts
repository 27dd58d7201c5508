import { byWhomSchema, createSceneSchema, renameSceneSchema, saveRequestSchema } from '@wexikine/core';
import { Router } from 'express';
import type { Database } from '../database';
import type { Hub } from '../events';
import { readBody, type Surroundings } from '../http';
import { copyScene, createScene, deleteScene, readScene, renameScene, saveScene } from './scenes';
import { manySummaries } from './scenes-table';

/** Routes under /api/scenes. */
export function sceneRoutes(database: Database, hub: Hub, { newId, now }: Surroundings): Router {
  const router = Router();
  const tell = (id: string, version: number, by: string, what: string): void =>
    hub.tell({ topic: 'scene', id, version, by, what });
  router.get('/', async (_request, response) => {
    response.json(await manySummaries(database));
  });
  router.post('/', async (request, response) => {
    const body = readBody(createSceneSchema, request.body);
    response.status(201).json(await createScene(database, newId(), body, now()));
  });
  router.get('/:id', async (request, response) => {
    response.json(await readScene(database, request.params.id));
  });
  router.put('/:id', async (request, response) => {
    const body = readBody(saveRequestSchema, request.body);
    const { id } = request.params;
    const version = await saveScene(database, id, body, now());
    tell(id, version, body.by, body.what);
    response.json({ version });
  });
  router.patch('/:id', async (request, response) => {
    const { name, by } = readBody(renameSceneSchema, request.body);
    const { id } = request.params;
    const version = await renameScene(database, id, name, by, now());
    tell(id, version, by, `Rename to “${name}”`);
    response.json({ version });
  });
  router.post('/:id/copy', async (request, response) => {
    readBody(byWhomSchema, request.body);
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
