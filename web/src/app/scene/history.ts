import { apply, layersOfEdits, type Edit, type EditProblem, type Scene } from '@wexikine/core';

/** A named step that can be undone. */
export interface Step {
  readonly label: string;
  readonly edits: readonly Edit[];
  readonly inverse: readonly Edit[];
  /** Steps with the same word that follow each other are one: a dial that is dragged. */
  readonly merge?: string;
}

/** A scene with the steps that led to it and those that were undone, the next to redo last. */
export interface History {
  readonly scene: Scene;
  readonly done: readonly Step[];
  readonly undone: readonly Step[];
}

/** What came of a step; `edits` are those that led on from the scene before, if any. */
export type HistoryResult =
  | { readonly ok: true; readonly history: History; readonly edits?: readonly Edit[] }
  | { readonly ok: false; readonly problem: EditProblem };

/** A scene without any steps. */
export function startHistory(scene: Scene): History {
  return { scene, done: [], undone: [] };
}

/**
 * The history over a scene that somebody else has changed meanwhile: the steps stay where none of them touches a layer
 * that was changed, else they begin anew, since taking them back would take back what others did.
 */
export function overOthers({ done, undone }: History, scene: Scene, changed: ReadonlySet<string>): History {
  const isFree = [...done, ...undone].every(({ edits }) => layersOfEdits(edits).every((id) => !changed.has(id)));
  return isFree ? { scene, done, undone } : startHistory(scene);
}

/** Does a step; what was undone before is forgotten. */
export function doStep(history: History, label: string, edits: readonly Edit[], merge?: string): HistoryResult {
  const result = apply(history.scene, edits);
  if (!result.ok) return result;
  const last = history.done.at(-1);
  const isJoined = last !== undefined && merge !== undefined && last.merge === merge && history.undone.length === 0;
  const step: Step = isJoined
    ? { label, edits: joined(last.edits, edits), inverse: joined(result.inverse, last.inverse), merge }
    : { label, edits, inverse: result.inverse, ...(merge === undefined ? {} : { merge }) };
  const done = isJoined ? history.done.slice(0, -1) : history.done;
  return { ok: true, history: { scene: result.scene, done: [...done, step], undone: [] }, edits };
}

/** Two lists of edits as one; where both only set the same runs, the later ones say all. */
function joined(first: readonly Edit[], second: readonly Edit[]): Edit[] {
  const runsOf = (edits: readonly Edit[]): string | null =>
    edits.every(({ type }) => type === 'set-run')
      ? edits.map((edit) => 'run' in edit && typeof edit.run === 'object' && edit.run.id).join()
      : null;
  const runs = runsOf(second);
  return runs !== null && runs === runsOf(first) ? [...second] : [...first, ...second];
}

/** Takes the last step back; the same history where there is none. */
export function undoStep(history: History): HistoryResult {
  const step = history.done.at(-1);
  if (!step) return { ok: true, history };
  const result = apply(history.scene, step.inverse);
  if (!result.ok) return result;
  const done = history.done.slice(0, -1);
  const next = { scene: result.scene, done, undone: [...history.undone, step] };
  return { ok: true, history: next, edits: step.inverse };
}

/** Does the last undone step again; the same history where there is none. */
export function redoStep(history: History): HistoryResult {
  const step = history.undone.at(-1);
  if (!step) return { ok: true, history };
  const result = apply(history.scene, step.edits);
  if (!result.ok) return result;
  const undone = history.undone.slice(0, -1);
  const next = { scene: result.scene, done: [...history.done, step], undone };
  return { ok: true, history: next, edits: step.edits };
}
