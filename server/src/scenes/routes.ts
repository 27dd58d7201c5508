import { byWhomSchema, createSceneSchema, renameSceneSchema, saveRequestSchema } from '@wexikine/core';
import { Router } from 'express';
import type { Database } from '../database';
import { readBody, type Surroundings } from '../http';
import { copyScene, createScene, deleteScene, readScene, renameScene, saveScene } from './scenes';
import { manySummaries } from './scenes-table';

/** Routes under /api/scenes. */
export function sceneRoutes(database: Database, { newId, now }: Surroundings): Router {
  const router = Router();
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
    response.json({ version: await saveScene(database, request.params.id, body, now()) });
  });
  router.patch('/:id', async (request, response) => {
    const { name, by } = readBody(renameSceneSchema, request.body);
    response.json({ version: await renameScene(database, request.params.id, name, by, now()) });
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
