import {
  canonicalJson,
  discardDraftSchema,
  idSchema,
  labelItemsSchema,
  moveDraftSchema,
  packRequestSchema,
  withNeeds,
  writePack,
  type CreateItem,
  type ImportRequest,
  type SaveDraft,
  type TokensRequest,
} from '@wexikine/core';
import { Router } from 'express';
import type { Database } from '../database';
import type { Hub } from '../events';
import type { Checker } from '../checking';
import { BODY_LIMITS, idParameter, readBody, readLargeBody, takeBody, type Surroundings } from '../http';
import { importPack, importTokens } from './import';
import { createItem, discardDraft, labelItems, moveDraft, readDetail, saveDraft } from './library';
import { manyEntries, manyRecords } from './records';

/** Ids of an address, with commas between; what cannot be one is left out. */
function idsIn(text: string): string[] {
  return text.split(',').filter((id) => idSchema.safeParse(id).success);
}

/** Routes under /api/library. Every change is told to all open windows. */
export function libraryRoutes(database: Database, hub: Hub, checker: Checker, { newId, now }: Surroundings): Router {
  const router = Router();
  router.param('id', idParameter('library item'));
  const small = takeBody(BODY_LIMITS.small);
  const ids = takeBody(BODY_LIMITS.ids);
  const item = takeBody(BODY_LIMITS.item);
  const tell = (...ids: readonly string[]): void => hub.tell({ topic: 'library', ids });
  router.get('/', async (request, response) => {
    const { ids: wanted } = request.query;
    response.json(await manyEntries(database, typeof wanted === 'string' ? idsIn(wanted) : null));
  });
  router.post('/', item, async (request, response) => {
    const body = await readLargeBody<CreateItem>(checker, 'createItem', request);
    const entry = await createItem(database, newId(), body, now());
    tell(entry.item.id);
    response.status(201).json(entry);
  });
  router.patch('/', ids, async (request, response) => {
    const body = readBody(labelItemsSchema, request);
    const entries = await labelItems(database, body, now());
    tell(...body.ids);
    response.json(entries);
  });
  router.get('/canonical', async (_request, response) => {
    const text = canonicalJson({ format: 'wexikine-library-1', items: await manyRecords(database, null) }, 1);
    response.type('application/json').send(`${text}\n`);
  });
  router.post('/pack', ids, async (request, response) => {
    const { ids: asked } = readBody(packRequestSchema, request);
    const records = await manyRecords(database, null);
    const wanted = new Set(withNeeds(records, asked.length === 0 ? records.map(({ id }) => id) : asked));
    const bytes = writePack(records.filter(({ id }) => wanted.has(id)));
    response.type('application/zip').send(Buffer.from(bytes));
  });
  router.post('/import', takeBody(BODY_LIMITS.pack), async (request, response) => {
    const body = await readLargeBody<ImportRequest>(checker, 'importPack', request);
    const { ids: written, ...answer } = await importPack(database, checker, body, now(), newId);
    if (written.length > 0) tell(...written);
    response.json(answer);
  });
  router.post('/tokens', takeBody(BODY_LIMITS.tokens), async (request, response) => {
    const body = await readLargeBody<TokensRequest>(checker, 'importTokens', request);
    const { ids: written, ...answer } = await importTokens(database, checker, body, now());
    if (written.length > 0) tell(...written);
    response.json(answer);
  });
  router.get('/:id', async (request, response) => {
    response.json(await readDetail(database, request.params.id));
  });
  router.put('/:id/draft', item, async (request, response) => {
    const body = await readLargeBody<SaveDraft>(checker, 'saveDraft', request);
    const entry = await saveDraft(database, request.params.id, body, now());
    tell(entry.item.id);
    response.json(entry);
  });
  router.post('/:id/draft/move', small, async (request, response) => {
    const body = readBody(moveDraftSchema, request);
    const entry = await moveDraft(database, request.params.id, body, now());
    tell(entry.item.id);
    response.json(entry);
  });
  router.post('/:id/draft/discard', small, async (request, response) => {
    const body = readBody(discardDraftSchema, request);
    await discardDraft(database, request.params.id, body, now());
    tell(request.params.id);
    response.status(204).end();
  });
  return router;
}
