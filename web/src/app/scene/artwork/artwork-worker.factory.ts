/** Starts the worker that reads files; alone in its file so that unit tests can put something else in its place. */
export function createArtworkWorker(): Worker {
  return new Worker(new URL('./artwork.worker', import.meta.url), { type: 'module' });
}
