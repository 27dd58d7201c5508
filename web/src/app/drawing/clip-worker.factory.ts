/** Starts the worker that decodes moving pictures; alone in its file so that unit tests can put something else in its place. */
export function createClipWorker(): Worker {
  return new Worker(new URL('./clip.worker', import.meta.url), { type: 'module' });
}
