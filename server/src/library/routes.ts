import {
  canonicalJson,
  createItemSchema,
  discardDraftSchema,
  importRequestSchema,
  labelItemsSchema,
  moveDraftSchema,
  packRequestSchema,
  saveDraftSchema,
  tokensRequestSchema,
  withNeeds,
  writePack,
} from '@wexikine/core';
import { Router } from 'express';
import type { Database } from '../database';
import type { Hub } from '../events';
import { readBody, type Surroundings } from '../http';
import { importPack, importTokens } from './import';
import { createItem, discardDraft, labelItems, moveDraft, readDetail, saveDraft } from './library';
import { manyEntries, manyRecords } from './records';

/** Routes under /api/library. Every change is told to all open windows. */
export function libraryRoutes(database: Database, hub: Hub, { newId, now }: Surroundings): Router {
  const router = Router();
  const tell = (...ids: readonly string[]): void => hub.tell({ topic: 'library', ids });
  router.get('/', async (request, response) => {
    const { ids } = request.query;
    response.json(await manyEntries(database, typeof ids === 'string' ? ids.split(',') : null));
  });
  router.post('/', async (request, response) => {
    const entry = await createItem(database, newId(), readBody(createItemSchema, request.body), now());
    tell(entry.item.id);
    response.status(201).json(entry);
  });
  router.patch('/', async (request, response) => {
    const body = readBody(labelItemsSchema, request.body);
    const entries = await labelItems(database, body, now());
    tell(...body.ids);
    response.json(entries);
  });
  router.get('/canonical', async (_request, response) => {
    const text = canonicalJson({ format: 'wexikine-library-1', items: await manyRecords(database, null) }, 1);
    response.type('application/json').send(`${text}\n`);
  });
  router.post('/pack', async (request, response) => {
    const { ids } = readBody(packRequestSchema, request.body);
    const records = await manyRecords(database, null);
    const wanted = new Set(withNeeds(records, ids.length === 0 ? records.map(({ id }) => id) : ids));
    const bytes = writePack(records.filter(({ id }) => wanted.has(id)));
    response.type('application/zip').send(Buffer.from(bytes));
  });
  router.post('/import', async (request, response) => {
    const body = readBody(importRequestSchema, request.body);
    const { ids, ...answer } = await importPack(database, body, now(), newId);
    if (ids.length > 0) tell(...ids);
    response.json(answer);
  });
  router.post('/tokens', async (request, response) => {
    const body = readBody(tokensRequestSchema, request.body);
    const { ids, ...answer } = await importTokens(database, body, now());
    if (ids.length > 0) tell(...ids);
    response.json(answer);
  });
  router.get('/:id', async (request, response) => {
    response.json(await readDetail(database, request.params.id));
  });
  router.put('/:id/draft', async (request, response) => {
    const body = readBody(saveDraftSchema, request.body);
    const entry = await saveDraft(database, request.params.id, body, now());
    tell(entry.item.id);
    response.json(entry);
  });
  router.post('/:id/draft/move', async (request, response) => {
    const body = readBody(moveDraftSchema, request.body);
    const entry = await moveDraft(database, request.params.id, body, now());
    tell(entry.item.id);
    response.json(entry);
  });
  router.post('/:id/draft/discard', async (request, response) => {
    const body = readBody(discardDraftSchema, request.body);
    await discardDraft(database, request.params.id, body, now());
    tell(request.params.id);
    response.status(204).end();
  });
  return router;
}
