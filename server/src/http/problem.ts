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
      case 'busy':
        return 503;
      case 'full':
        return 507;
    }
  }
}

const MOST_SHOWN = 80;

/** Something that is not there, by what it is and its name. */
export function notFound(what: string, id: string): RequestProblem {
  const shown = id.length > MOST_SHOWN ? `${id.slice(0, MOST_SHOWN)}…` : id;
  return new RequestProblem({
    code: 'not-found',
    message: `There is no ${what} “${shown}”. It may have been deleted.`,
  });
}

/** A request that says something wrong. */
export function invalid(message: string): RequestProblem {
  return new RequestProblem({ code: 'invalid', message });
}
