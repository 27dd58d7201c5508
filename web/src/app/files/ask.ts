/** How long a file may take, in milliseconds: the largest that is kept, 40 MB, over a slow line. */
const ANSWER_MS = 60_000;

/** What the server answers about a file; throws with a part of a sentence where it does not answer, also not within a minute. */
export async function ask(address: string, init: RequestInit = {}): Promise<Response> {
  try {
    return await fetch(address, { ...init, signal: AbortSignal.timeout(ANSWER_MS) });
  } catch {
    throw new Error('the server does not answer');
  }
}
