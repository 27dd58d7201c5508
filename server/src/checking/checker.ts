import { Worker } from 'node:worker_threads';
import type { ImportPlan } from '@wexikine/core';
import { RequestProblem } from '../http/problem';
import { doTask, readLarge, type BodyResult, type CheckTask, type LargeBody, type TokensResult } from './tasks';

/** Reads and checks what was sent, where it may take long in a thread of its own. */
export interface Checker {
  readonly body: <N extends LargeBody>(name: N, bytes: Uint8Array) => Promise<BodyResult>;
  readonly pack: (task: Omit<Extract<CheckTask, { type: 'pack' }>, 'type'>) => Promise<ImportPlan>;
  readonly tokens: (task: Omit<Extract<CheckTask, { type: 'tokens' }>, 'type'>) => Promise<TokensResult>;
  readonly close: () => Promise<void>;
}

/** A body up to this size is checked at once: handing it to another thread would cost more. */
const SMALL_BYTES = 64 * 1024;
/** A task may take so long, so much memory, and so many may wait. */
const MOST_MS = 30_000;
const MOST_MEMORY_MB = 1_200;
const MOST_WAITING = 8;

function checkerOver(run: (task: CheckTask) => Promise<unknown>, close: () => Promise<void>): Checker {
  return {
    body: async (name, bytes) =>
      bytes.length <= SMALL_BYTES ? readLarge(name, bytes) : ((await run({ type: 'body', name, bytes })) as BodyResult),
    pack: async (task) => (await run({ type: 'pack', ...task })) as ImportPlan,
    tokens: async (task) => (await run({ type: 'tokens', ...task })) as TokensResult,
    close,
  };
}

/** A checker without a thread of its own, for tests and tools. */
export function createInlineChecker(): Checker {
  return checkerOver(
    (task) => Promise.resolve(doTask(task)),
    () => Promise.resolve(),
  );
}

const TOO_LONG = 'This takes longer to check than 30 seconds. Send it in smaller parts.';
const TOO_MUCH = 'This takes more memory to check than there is for it. Send it in smaller parts.';
const BUSY = 'The server is busy with other large data. Nothing was changed; try again in a moment.';

/**
 * A checker with one thread, which does one task after the other. A task that takes too long or too much memory is
 * ended with its thread and refused with a sentence; the next one gets a new thread.
 */
export function createChecker(script: URL): Checker {
  let worker: Worker | null = null;
  let waiting = 0;
  let last: Promise<unknown> = Promise.resolve();

  const start = (): Worker => {
    const made = new Worker(script, { resourceLimits: { maxOldGenerationSizeMb: MOST_MEMORY_MB } });
    // Without a task nobody waits for it, and it keeps no process open.
    made.unref();
    made.on('error', () => undefined);
    made.on('exit', () => {
      if (worker === made) worker = null;
    });
    return made;
  };

  const runNow = (task: CheckTask): Promise<unknown> =>
    new Promise((done, failed) => {
      const used = (worker ??= start());
      const end = (): void => {
        clearTimeout(timer);
        used.off('message', hear);
        used.off('error', fall);
        used.off('exit', gone);
      };
      const refuse = (message: string): void => {
        end();
        if (worker === used) worker = null;
        void used.terminate();
        failed(new RequestProblem({ code: 'too-large', message }));
      };
      const timer = setTimeout(() => refuse(TOO_LONG), MOST_MS);
      const hear = (result: unknown): void => {
        end();
        done(result);
      };
      const fall = (error: Error): void => {
        if ((error as NodeJS.ErrnoException).code === 'ERR_WORKER_OUT_OF_MEMORY') return refuse(TOO_MUCH);
        end();
        if (worker === used) worker = null;
        failed(error);
      };
      const gone = (): void => refuse(TOO_MUCH);
      used.on('message', hear);
      used.on('error', fall);
      used.on('exit', gone);
      used.postMessage(task);
    });

  const run = async (task: CheckTask): Promise<unknown> => {
    if (waiting >= MOST_WAITING) throw new RequestProblem({ code: 'busy', message: BUSY });
    waiting++;
    const result = last.then(
      () => runNow(task),
      () => runNow(task),
    );
    last = result.catch(() => undefined);
    try {
      return await result;
    } finally {
      waiting--;
    }
  };

  return checkerOver(run, async () => void (await worker?.terminate()));
}
