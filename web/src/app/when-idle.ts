/**
 * Does some work when the page is idle; with `patience`, in milliseconds, at the latest then. The result takes it back. A
 * browser that does not tell when it is idle does it in the next turn, and says that no time is left.
 */
export function whenIdle(work: (deadline: Pick<IdleDeadline, 'timeRemaining'>) => void, patience?: number): () => void {
  if ('requestIdleCallback' in globalThis) {
    const request = requestIdleCallback(work, patience === undefined ? undefined : { timeout: patience });
    return () => cancelIdleCallback(request);
  }
  const timer = setTimeout(() => work({ timeRemaining: () => 0 }));
  return () => clearTimeout(timer);
}
