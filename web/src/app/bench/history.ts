/** One step that was done, with what stood before it. */
export interface Step<T> {
  readonly label: string;
  readonly before: T;
  /** Steps with the same key that follow each other soon are one step: typing, dragging. */
  readonly merge: string | null;
  readonly when: number;
}

/** A value with the steps that led to it, and the values that were undone, the next to redo last. */
export interface BenchHistory<T> {
  readonly now: T;
  readonly done: readonly Step<T>[];
  readonly undone: readonly { readonly label: string; readonly after: T }[];
}

/** Milliseconds within which steps of the same key become one. */
const SOON = 1_500;
const MOST_STEPS = 500;

/** A draft without any steps. */
export function startBench<T>(now: T): BenchHistory<T> {
  return { now, done: [], undone: [] };
}

/** Does a step at a time in milliseconds; what was undone before is forgotten. */
export function doBench<T>(
  history: BenchHistory<T>,
  after: T,
  { label, merge, when }: Omit<Step<T>, 'before'>,
): BenchHistory<T> {
  const last = history.done.at(-1);
  const joins = merge !== null && last?.merge === merge && when - last.when < SOON && history.undone.length === 0;
  const step: Step<T> = joins ? { ...last, when } : { label, merge, when, before: history.now };
  const before = joins ? history.done.slice(0, -1) : history.done;
  return { now: after, done: [...before, step].slice(-MOST_STEPS), undone: [] };
}

/** Takes the last step back. */
export function undoBench<T>(history: BenchHistory<T>): BenchHistory<T> {
  const step = history.done.at(-1);
  if (!step) return history;
  const undone = [...history.undone, { label: step.label, after: history.now }];
  return { now: step.before, done: history.done.slice(0, -1), undone };
}

/** Does the last undone step again. */
export function redoBench<T>(history: BenchHistory<T>): BenchHistory<T> {
  const step = history.undone.at(-1);
  if (!step) return history;
  const again: Step<T> = { label: step.label, merge: null, when: 0, before: history.now };
  return { now: step.after, done: [...history.done, again], undone: history.undone.slice(0, -1) };
}
