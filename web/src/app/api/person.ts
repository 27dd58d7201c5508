const STORED = 'wexikine.person';

/** The name under which this browser's changes are recorded. */
export function personName(): string {
  return localStorage.getItem(STORED)?.trim() || 'You';
}
