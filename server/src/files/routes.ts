import { fileFactsSchema, fileNameSchema, fileType, readJson, type KeptFile } from '@wexikine/core';
import { Router, type Request, type Response } from 'express';
import { Readable } from 'node:stream';
import type { Database } from '../database';
import { BODY_LIMITS, bytesOf, invalid, notFound, takeBody, type Surroundings } from '../http';
import { keepFile, removeFile } from './files';
import { manyFiles, maybeSize, readPart } from './files-table';

/** Bytes that are read and sent at once. */
const PIECE = 1024 * 1024;

/** What a drawing may do when somebody opens it by itself: nothing. */
const HARMLESS = "default-src 'none'; style-src 'unsafe-inline'; img-src data:; sandbox";

async function* pieces(database: Database, name: string, from: number, to: number): AsyncGenerator<Uint8Array> {
  for (let at = from; at <= to; at += PIECE) yield await readPart(database, name, at, Math.min(PIECE, to - at + 1));
}

/** Sends a file, or the one part of it that was asked for. Source: RFC 9110, section 14. */
async function send(database: Database, name: string, request: Request, response: Response): Promise<void> {
  const size = await maybeSize(database, name);
  if (size === null) throw notFound('file', name);
  response.set({
    'Content-Type': fileType(name).media,
    'Cache-Control': 'public, max-age=31536000, immutable, no-transform',
    'Content-Security-Policy': HARMLESS,
    'Accept-Ranges': 'bytes',
    ETag: `"${name}"`,
  });
  if (request.fresh) return void response.status(304).end();
  const ranges = request.range(size);
  if (ranges === -1) return void response.status(416).set('Content-Range', `bytes */${size}`).end();
  const [one] = Array.isArray(ranges) && ranges.type === 'bytes' && ranges.length === 1 ? ranges : [];
  const [from, to] = one ? [one.start, one.end] : [0, size - 1];
  response.status(one ? 206 : 200).set('Content-Length', String(to - from + 1));
  if (one) response.set('Content-Range', `bytes ${from}-${to}/${size}`);
  if (request.method === 'HEAD') return void response.end();
  const body = Readable.from(pieces(database, name, from, to));
  body.on('error', () => response.destroy());
  response.on('close', () => body.destroy());
  body.pipe(response);
}

/** What the address says of a file: how it was called, and what is in it. */
function saidOf({ query }: Pick<Request, 'query'>): Pick<KeptFile, 'title' | 'facts'> {
  const text = (value: unknown): string => (typeof value === 'string' ? value : '');
  const read = readJson(text(query['facts']) || '{}');
  const facts = fileFactsSchema.safeParse(read.ok ? read.data : null);
  if (!facts.success) throw invalid('What is said about the file cannot be read. Send it as JSON.');
  return { title: text(query['title']), facts: facts.data };
}

/** Routes under /api/files: pictures and fonts, each kept once by its content. */
export function fileRoutes(database: Database, { now }: Surroundings): Router {
  const router = Router();
  router.param('name', (_request, _response, next, name: string) => {
    if (!fileNameSchema.safeParse(name).success) throw notFound('file', name);
    next();
  });
  router.get('/', async (_request, response) => {
    response.json(await manyFiles(database));
  });
  router.get('/:name', (request, response) => send(database, request.params.name, request, response));
  router.put('/:name', takeBody(BODY_LIMITS.file), async (request, response) => {
    const { name } = request.params;
    await keepFile(database, name, saidOf(request), bytesOf(request), now());
    response.status(204).end();
  });
  router.delete('/:name', async (request, response) => {
    await removeFile(database, request.params.name);
    response.status(204).end();
  });
  return router;
}
