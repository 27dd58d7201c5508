import express, { type NextFunction, type Request, type Response } from 'express';
import { MOST_FILE_BYTES, type ErrorAnswer } from '@wexikine/core';
import type { ZodType } from 'zod';
import { checkBody, type Checker, type LargeBody } from '../checking';
import { invalid, RequestProblem } from './problem';

const KILOBYTE = 1024;
const MEGABYTE = 1024 * KILOBYTE;

/** Largest body of each kind of request, in bytes: what such a request can need. */
export const BODY_LIMITS = {
  small: 64 * KILOBYTE,
  /** Ids of all items there can be. */
  ids: 2 * MEGABYTE,
  item: 4 * MEGABYTE,
  tokens: 5 * MEGABYTE,
  pack: 45 * MEGABYTE,
  scene: 64 * MEGABYTE,
  file: MOST_FILE_BYTES,
} as const;

/** From this size on only one body is taken in at a time; the others wait unread, so that memory stays bounded. */
const LARGE_BYTES = MEGABYTE;
const MOST_WAITING = 8;

/** Lets one through at a time; the others wait in order. */
function createGate(): (work: (leave: () => void) => void) => boolean {
  const waiting: ((leave: () => void) => void)[] = [];
  let isTaken = false;
  const leave = (): void => {
    const next = waiting.shift();
    if (next) once(next);
    else isTaken = false;
  };
  const once = (work: (leave: () => void) => void): void => {
    let isDone = false;
    work(() => {
      if (isDone) return;
      isDone = true;
      leave();
    });
  };
  return (work) => {
    if (!isTaken) {
      isTaken = true;
      once(work);
      return true;
    }
    if (waiting.length >= MOST_WAITING) return false;
    waiting.push(work);
    return true;
  };
}

const enter = createGate();

function isLarge(request: Request): boolean {
  const length = Number(request.headers['content-length']);
  return !(length <= LARGE_BYTES) || request.headers['content-encoding'] !== undefined;
}

/** JSON is text in UTF-8; a request that says otherwise is refused before it is read. */
function refuseOtherText(request: Request): void {
  const charset = /charset\s*=\s*"?([^";\s]+)/i.exec(request.headers['content-type'] ?? '')?.[1];
  if (charset !== undefined && !/^utf-?8$/i.test(charset)) {
    throw invalid(`The data is written in “${charset.slice(0, 40)}”. Send it in UTF-8.`);
  }
}

/** Takes in a request's body as bytes, up to a limit. */
export function takeBody(limit: number): <P>(request: Request<P>, response: Response, next: NextFunction) => void {
  const read = express.raw({ type: () => true, limit });
  return (given, response, next) => {
    const request = given as unknown as Request;
    refuseOtherText(request);
    const length = Number(request.headers['content-length']);
    if (length > limit) throw tooLarge(limit);
    const hasBody =
      request.headers['content-length'] !== undefined || request.headers['transfer-encoding'] !== undefined;
    if (!hasBody || !isLarge(request)) return read(request, response, next);
    const isIn = enter((leave) => {
      if (request.destroyed) return leave();
      response.once('close', leave);
      read(request, response, next);
    });
    if (!isIn)
      throw new RequestProblem({
        code: 'busy',
        message: 'The server is busy with other large data. Try again in a moment.',
      });
  };
}

/** A body that is larger than its route takes. */
export function tooLarge(limit: number): RequestProblem {
  const most = limit >= MEGABYTE ? `${Math.round(limit / MEGABYTE)} MB` : `${Math.round(limit / KILOBYTE)} kB`;
  return new RequestProblem({
    code: 'too-large',
    message: `The data is larger than ${most}. Split it into smaller parts.`,
  });
}

/** The bytes of a body that was taken in. */
export function bytesOf({ body }: Pick<Request, 'body'>): Uint8Array {
  return body instanceof Uint8Array ? body : new Uint8Array();
}

/** Reads a small body and checks it against a schema; throws a problem that names each wrong field. */
export function readBody<T>(schema: ZodType<T>, request: Pick<Request, 'body'>): T {
  const result = checkBody(schema, bytesOf(request));
  if (result.ok) return result.data;
  throw refusal(result);
}

function refusal({ message, problems }: Pick<ErrorAnswer, 'message' | 'problems'>): RequestProblem {
  return new RequestProblem({ code: 'invalid', message, ...(problems && problems.length > 0 ? { problems } : {}) });
}

/** Reads a body that may be large, in the checker's thread. The type is that of the schema of that name. */
export async function readLargeBody<T>(checker: Checker, name: LargeBody, request: Pick<Request, 'body'>): Promise<T> {
  const result = await checker.body(name, bytesOf(request));
  if (result.ok) return result.data as T;
  throw refusal(result);
}
