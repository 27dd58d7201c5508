import { dataProblems } from '@wexikine/core';
import type { ErrorRequestHandler, RequestHandler } from 'express';
import type { Logger } from 'pino';
import type { ZodType } from 'zod';
import { RequestProblem } from './problem';

/** Checks a request's body against a schema; throws a problem that names each wrong field. */
export function readBody<T>(schema: ZodType<T>, body: unknown): T {
  const parsed = schema.safeParse(body);
  if (parsed.success) return parsed.data;
  const problems = dataProblems(parsed.error);
  const [{ path, message }] = problems;
  throw new RequestProblem({ code: 'invalid', message: `The data was refused. ${path}: ${message}`, problems });
}

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

interface BodyError {
  readonly type?: string;
}

function problemOf(error: unknown): RequestProblem | null {
  if (error instanceof RequestProblem) return error;
  switch ((error as BodyError).type) {
    case 'entity.too.large':
      return new RequestProblem({
        code: 'too-large',
        message: 'The data is larger than 64 MB. Split it into smaller parts.',
      });
    case 'entity.parse.failed':
      return new RequestProblem({ code: 'invalid', message: 'The data is not valid JSON. Check the file.' });
    default:
      return null;
  }
}

/** Turns every error into an answer; what was not expected is logged and told without its inner workings. */
export function answerErrors(log: Logger): ErrorRequestHandler {
  return (error, request, response, next) => {
    if (response.headersSent) return next(error);
    const problem = problemOf(error);
    if (problem) return void response.status(problem.status).json(problem.answer);
    log.error({ error, path: request.path }, 'request failed');
    const message =
      'Something went wrong on the server. Nothing was changed; try again, and look at its log if it stays.';
    return void response.status(500).json({ code: 'broken', message });
  };
}
