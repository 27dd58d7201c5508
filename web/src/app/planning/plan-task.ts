import {
  apply,
  checkScene,
  dryRun,
  findInMotion,
  plan,
  replan,
  solvedIn,
  type CompilePreset,
  type Edit,
  type Finding,
  type Plan,
  type RunHead,
  type RunRecord,
  type Scene,
  type Shelf,
} from '@wexikine/core';
import type { FromPlanner, PlanTask } from './messages';
import { changesBetween, drawRun, valuesOf, type PlannedRun } from './planned-run';

/** Plans a task with all that applying it takes: a new run, or one that is there once more. */
export function planTask(scene: Scene, shelf: Shelf, { recipe, context, run }: PlanTask, compile: CompilePreset): Plan {
  return run === null
    ? plan(scene, shelf, recipe, context, compile)
    : replan(scene, shelf, run, recipe, context, compile);
}

function headOf({ steps: _steps, ...head }: RunRecord): RunHead {
  return head;
}

/** Plans a task as far as it is shown. */
export function showTask(scene: Scene, shelf: Shelf, task: PlanTask, compile: CompilePreset): PlannedRun {
  if (task.run === null) {
    const { findings, counts, run, layers } = dryRun(scene, shelf, task.recipe, task.context, compile);
    const changes = changesBetween(
      scene,
      layers.map(({ after }) => after),
    );
    return { findings, counts, run, layers: layers.map(valuesOf), changes, hasEdits: layers.length > 0 };
  }
  const { findings, counts, run, layers, edits } = planTask(scene, shelf, task, compile);
  const applied = apply(scene, edits);
  const changes = applied.ok ? changesBetween(scene, applied.scene.layers) : [];
  return {
    findings,
    counts,
    run: run && headOf(run),
    layers: layers.map(valuesOf),
    changes,
    hasEdits: edits.length > 0,
  };
}

/** What looking at the scene in motion finds: all of it as it stands, or only what a dry run moves. */
export function checkTask(
  scene: Scene,
  shelf: Shelf,
  task: PlanTask | null,
  compile: CompilePreset,
): readonly Finding[] {
  if (!task) return checkScene(scene, shelf);
  const { layers, changes } = showTask(scene, shelf, task, compile);
  if (layers.length === 0) return [];
  const { start, finish } = solvedIn(layers);
  const moved = new Set(layers.map(({ layer }) => layer));
  return findInMotion(drawRun(scene, changes), moved, start ?? 0, finish ?? scene.length);
}

/** Layers in one part of an answer. */
const PART = 1_000;

function slices<T>(list: readonly T[], size: number, count: number): readonly (readonly T[])[] {
  return Array.from({ length: count }, (_, i) => list.slice(i * size, (i + 1) * size));
}

function isOfRun({ type }: Edit): boolean {
  return type === 'add-run' || type === 'set-run';
}

/** A plan as messages, without its layers, which applying it does not need: whole where it is small, else in parts. */
export function planMessages(ticket: number, whole: Plan): FromPlanner[] {
  const steps = whole.run?.steps ?? [];
  const parts = steps.length <= PART ? 0 : Math.ceil(steps.length / PART);
  if (parts === 0) return [{ type: 'plan', ticket, plan: { ...whole, layers: [] }, parts }];
  const places = new Map(steps.map(({ layer }, i) => [layer, Math.floor(i / PART)]));
  const edits = Array.from({ length: parts }, (): Edit[] => []);
  for (const edit of whole.edits) {
    if (isOfRun(edit)) continue;
    const layer = 'layer' in edit && typeof edit.layer === 'string' ? edit.layer : '';
    edits[places.get(layer) ?? parts - 1].push(edit);
  }
  const head = whole.run && { ...whole.run, steps: [] };
  return [
    { type: 'plan', ticket, parts, plan: { ...whole, layers: [], run: head, edits: otherRuns(whole) } },
    ...slices(steps, PART, parts).map((own, i): FromPlanner => ({
      type: 'plan-part',
      ticket,
      edits: edits[i],
      steps: own,
    })),
  ];
}

/** What a plan does to the records of other runs. */
function otherRuns({ edits, run }: Plan): Edit[] {
  return edits.filter((edit) => edit.type === 'set-run' && edit.run.id !== run?.id);
}

/** A plan put together from its parts. */
export function assemblePlan(
  plan: Plan,
  parts: readonly Extract<FromPlanner, { type: 'plan-part' }>[],
  isNew: boolean,
  runs: number,
): Plan {
  if (parts.length === 0) return plan;
  const run = plan.run && { ...plan.run, steps: parts.flatMap(({ steps }) => steps) };
  const edits = [...parts.flatMap((part) => part.edits), ...plan.edits];
  const record = run
    ? [isNew ? { type: 'add-run' as const, index: runs, run } : { type: 'set-run' as const, run }]
    : [];
  return { ...plan, run, edits: edits.length === 0 && !isNew ? [] : [...edits, ...record] };
}
