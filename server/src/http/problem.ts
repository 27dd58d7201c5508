import type { ErrorAnswer } from '@wexikine/core';

/** An expected failure of a request: what the caller is told, and the status that goes with it. */
export class RequestProblem extends Error {
  constructor(readonly answer: ErrorAnswer) {
    super(answer.message);
  }

  get status(): number {
    switch (this.answer.code) {
      case 'invalid':
        return 400;
      case 'forbidden':
        return 403;
      case 'not-found':
        return 404;
      case 'conflict':
        return 409;
      case 'too-large':
        return 413;
      case 'broken':
        return 500;
    }
  }
}

export function notFound(what: string, id: string): RequestProblem {
  return new RequestProblem({ code: 'not-found', message: `There is no ${what} “${id}”. It may have been deleted.` });
}
