/** Starts the worker that cuts pictures out; alone in its file so that unit tests can put something else in its place. */
export function createCutOutWorker(): Worker {
  return new Worker(new URL('./cut-out.worker', import.meta.url), { type: 'module' });
}
