import { createProgress, stepProgress, type Easing } from '../../basics/easing';

/** Progress of a segment after so many ticks of its length, both integers. */
export type Progress = (elapsed: number, length: number) => number;

/** Progresses by their numbers. */
export interface ProgressPool {
  readonly list: readonly Progress[];
  /** The number of an easing that is no curve; it is prepared when it is first asked for. */
  readonly indexOf: (easing: Easing) => number;
}

function progressOf(easing: Easing): Progress {
  // Steps are counted in ticks, so that they fall on them.
  if (easing.type === 'steps') return (elapsed, length) => stepProgress(easing.count, easing.jump, elapsed, length);
  const progress = createProgress(easing as Exclude<Easing, { type: 'handles' }>);
  return (elapsed, length) => progress(elapsed / length);
}

/** Prepares equal easings once. */
export function createProgressPool(): ProgressPool {
  const known = new Map<string, number>();
  const list: Progress[] = [];
  const indexOf = (easing: Easing): number => {
    const name = JSON.stringify(easing);
    const before = known.get(name);
    if (before !== undefined) return before;
    known.set(name, list.length);
    return list.push(progressOf(easing)) - 1;
  };
  return { list, indexOf };
}
