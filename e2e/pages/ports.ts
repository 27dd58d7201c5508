/** The first port of the servers under test; each worker has one of its own, ten further on. */
const FIRST_PORT = Number(process.env['E2E_PORT'] ?? 4877);

/** The port of a worker's server. */
export function portOf(worker: number): number {
  return FIRST_PORT + 10 * worker;
}
