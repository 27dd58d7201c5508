import { byWhomSchema, countSchema, idSchema, renameSceneSchema, type CreateFromParts } from '@wexikine/core';
import { Router, type Response } from 'express';
import * as z from 'zod';
import type { Database } from '../database';
import type { Hub } from '../events';
import { BODY_LIMITS, idParameter, notFound, readBody, readLargeBody, takeBody, type Surroundings } from '../http';
import type { Checker, PreparedSave, PreparedScene } from '../checking';
import type { Prepared } from '../packing';
import {
  copyScene,
  createFromParts,
  createScene,
  deleteScene,
  keepPart,
  packedScene,
  plainScene,
  renameScene,
  saveScene,
  type SceneText,
} from './scenes';
import { manySummaries } from './scenes-table';

/** Answers with JSON piece by piece. */
function answer(response: Response, text: SceneText): void {
  response.type('application/json');
  for (const piece of text) response.write(piece);
  response.end();
}

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
    const scene = await readLargeBody<PreparedScene>(checker, 'createScene', request);
    const id = newId();
    await createScene(database, id, scene, now());
    answer(response.status(201), await plainScene(database, id));
  });
  router.post('/from-parts', large, async (request, response) => {
    const body = await readLargeBody<CreateFromParts>(checker, 'createFromParts', request);
    const id = newId();
    const version = await createFromParts(database, id, body, now());
    response.status(201).json({ id, version });
  });
  router.put('/uploads/:upload/:part', large, async (request, response) => {
    const { upload, part } = request.params;
    const place = countSchema.or(z.literal(0)).safeParse(Number(part));
    if (!idSchema.safeParse(upload).success || !place.success) throw notFound('address', request.originalUrl);
    await keepPart(database, upload, place.data, await readLargeBody<Prepared>(checker, 'uploadPart', request), now());
    response.status(204).end();
  });
  router.get('/:id', async (request, response) => {
    answer(response, await plainScene(database, request.params.id));
  });
  router.get('/:id/packed', async (request, response) => {
    answer(response, await packedScene(database, request.params.id));
  });
  router.put('/:id', large, async (request, response) => {
    const body = await readLargeBody<PreparedSave>(checker, 'saveScene', request);
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
    const id = newId();
    await copyScene(database, request.params.id, id, now());
    answer(response.status(201), await plainScene(database, id));
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
