import { idSchema } from '@wexikine/core';
import type { ErrorRequestHandler, RequestHandler, RequestParamHandler } from 'express';
import type { Logger } from 'pino';
import { invalid, notFound, RequestProblem } from './problem';

const LOOPBACK = /^(127\.\d+\.\d+\.\d+|localhost|\[::1\])(:\d+)?$/;

/** Answers only requests that name this machine, so that no page elsewhere can reach the server by a name of its own. */
export const loopbackOnly: RequestHandler = (request, _response, next) => {
  const { host, origin } = request.headers;
  const isForeign = origin !== undefined && origin.replace(/^https?:\/\//, '') !== host;
  if (!host || !LOOPBACK.test(host) || isForeign) {
    throw new RequestProblem({
      code: 'forbidden',
      message: 'This server answers only pages that it served itself, on this machine. Open it at 127.0.0.1.',
    });
  }
  next();
};

/** Ids in an address: what cannot be one is not there. */
export function idParameter(what: string): RequestParamHandler {
  return (_request, _response, next, id: string) => {
    if (!idSchema.safeParse(id).success) throw notFound(what, id);
    next();
  };
}

/** What the parts that an error comes from say of it. */
interface Thrown {
  readonly name?: string;
  readonly message?: string;
  readonly code?: string;
  readonly errno?: number;
  /** Status that the reading of a request or of its address gives. */
  readonly status?: number;
  readonly type?: string;
  readonly stack?: string;
}

/** Codes for a full disk: of the system, and of the database (PostgreSQL, class 53). */
const FULL = ['ENOSPC', 'EDQUOT', '53100'];

function isDiskFull({ code, message }: Thrown): boolean {
  return (code !== undefined && FULL.includes(code)) || /no space left on device/i.test(message ?? '');
}

const SENTENCES: Readonly<Record<string, string>> = {
  'encoding.unsupported': 'The data is packed in a way that is not known here. Send it plain, or packed with gzip.',
  'request.aborted': 'The connection was closed before all of the data was here. Send it again.',
  'request.size.invalid': 'The data is not as long as the request says. Send it again.',
};

function problemOf(error: Thrown): RequestProblem | null {
  if (error instanceof RequestProblem) return error;
  if (isDiskFull(error)) {
    const message = 'The disk is full, so nothing was changed. Make room on it, and do it again.';
    return new RequestProblem({ code: 'full', message });
  }
  const { status, type } = error;
  if (type === 'entity.too.large') {
    return new RequestProblem({
      code: 'too-large',
      message: 'The data is larger than it may be. Split it into smaller parts.',
    });
  }
  if (status === undefined || status < 400 || status > 499) return null;
  const isPacked = error.code?.startsWith('Z_') === true;
  const fallback =
    type === undefined && !isPacked
      ? 'The address or the request is not written as it must be. Check it, and try again.'
      : 'The data cannot be read as it was sent. Check how it is packed and written, and send it again.';
  return invalid(SENTENCES[type ?? ''] ?? fallback);
}

const MOST_MESSAGE = 300;
const MOST_STACK = 2_000;

/** An error for the log: what and where, but nothing of the data that it came from. */
export function forLog(error: unknown): object {
  if (!(error instanceof Error)) return { message: String(error).slice(0, MOST_MESSAGE) };
  const { name, message, code, stack } = error as Thrown;
  const where = (stack ?? '').split('\n').filter((line) => line.trimStart().startsWith('at '));
  return {
    type: name,
    message: message?.slice(0, MOST_MESSAGE),
    ...(code === undefined ? {} : { code }),
    stack: where.join('\n').slice(0, MOST_STACK),
    ...(error.cause === undefined ? {} : { cause: forLog(error.cause) }),
  };
}

/** Turns every error into an answer; what was not expected is logged and told without its inner workings. */
export function answerErrors(log: Logger): ErrorRequestHandler {
  return (error: unknown, request, response, next) => {
    if (response.headersSent) return next(error);
    const problem = problemOf((error ?? {}) as Thrown);
    if (problem) return void response.status(problem.status).json(problem.answer);
    log.error(
      { error: forLog(error), method: request.method, path: request.path.slice(0, MOST_MESSAGE) },
      'request failed',
    );
    const message =
      'Something went wrong on the server. Nothing was changed; try again, and look at its log if it stays.';
    return void response.status(500).json({ code: 'broken', message });
  };
}
