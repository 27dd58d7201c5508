import {
  apply,
  dryRun,
  lookInMotion,
  lookOver,
  plan,
  replan,
  solvedIn,
  type CompilePreset,
  type Finding,
  type Steps,
  type Plan,
  type RunHead,
  type RunRecord,
  type Scene,
  type Shelf,
} from '@wexikine/core';
import type { FromPlanner, PlanTask } from './messages';
import { unpackRun, type PackedRun } from './packed';
import { inParts } from './parts';
import { changesBetween, coming, comingBetween, drawRun, valuesOf, type PlannedRun } from './planned-run';

/** Plans a task with all that applying it takes: a new run, or one that is there once more. */
export function planTask(scene: Scene, shelf: Shelf, { recipe, context, run }: PlanTask, compile: CompilePreset): Plan {
  return run === null
    ? plan(scene, shelf, recipe, context, compile)
    : replan(scene, shelf, run, recipe, context, compile);
}

function headOf({ id, recipe, preset, rig, uses, by, when, layers }: RunRecord): RunHead {
  return {
    id,
    recipe,
    ...(preset ? { preset } : {}),
    ...(rig ? { rig } : {}),
    ...(uses ? { uses } : {}),
    by,
    when,
    layers,
  };
}

/** Plans a task as far as it is shown. */
export function showTask(scene: Scene, shelf: Shelf, task: PlanTask, compile: CompilePreset): PlannedRun {
  if (task.run === null) {
    const { findings, counts, run, layers, added, removed } = dryRun(scene, shelf, task.recipe, task.context, compile);
    const changes = changesBetween(
      scene,
      layers.map(({ after }) => after),
    );
    const hasEdits = layers.length > 0;
    return { findings, counts, run, layers: layers.map(valuesOf), changes, hasEdits, ...coming({ added, removed }) };
  }
  const { findings, counts, run, layers, edits } = planTask(scene, shelf, task, compile);
  const applied = apply(scene, edits);
  const changes = applied.ok ? changesBetween(scene, applied.scene.layers) : [];
  const { added, removed } = applied.ok ? comingBetween(scene, applied.scene) : {};
  return {
    findings,
    counts,
    run: run && headOf(run),
    layers: layers.map(valuesOf),
    changes,
    hasEdits: edits.length > 0,
    ...coming({ added, removed }),
  };
}

/** What looking at the scene in motion finds, in steps: all of it as it stands, or only what a dry run moves. */
export function* checkTask(scene: Scene, shelf: Shelf, packed: PackedRun | null): Steps<readonly Finding[]> {
  if (!packed) return yield* lookOver(scene, shelf);
  const run = unpackRun(packed);
  yield;
  const { layers } = run;
  if (layers.length === 0) return [];
  const drawn = drawRun(scene, run);
  yield;
  const { start, finish } = solvedIn(layers);
  const moved = new Set(layers.map(({ layer }) => layer));
  return yield* lookInMotion(drawn, moved, start ?? 0, finish ?? scene.length);
}

/** A plan as messages, without its layers, which applying it does not need: whole where it is small, else in parts. */
export function planMessages(ticket: number, whole: Plan): FromPlanner[] {
  const parts = inParts(whole.edits);
  if (parts.length <= 1) return [{ type: 'plan', ticket, plan: { ...whole, layers: [] }, parts: 0 }];
  return [
    { type: 'plan', ticket, parts: parts.length, plan: { ...whole, layers: [], edits: [] } },
    ...parts.map((edits): FromPlanner => ({ type: 'plan-part', ticket, edits })),
  ];
}

/** A plan put together from its parts. */
export function assemblePlan(plan: Plan, parts: readonly Extract<FromPlanner, { type: 'plan-part' }>[]): Plan {
  return parts.length === 0 ? plan : { ...plan, edits: parts.flatMap(({ edits }) => edits) };
}
