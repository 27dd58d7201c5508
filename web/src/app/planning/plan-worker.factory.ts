/** Starts the planning worker; alone in its file so that unit tests can put something else in its place. */
export function createPlanWorker(): Worker {
  return new Worker(new URL('./plan.worker', import.meta.url), { type: 'module' });
}
