import {
  apply,
  checkScene,
  findInMotion,
  plan,
  replan,
  solvedIn,
  type CompilePreset,
  type Finding,
  type Plan,
  type Scene,
  type Shelf,
} from '@wexikine/core';
import type { FromPlanner, PlanTask } from './messages';

/** Plans a task: a new run, or one that is there once more. */
export function planTask(scene: Scene, shelf: Shelf, { recipe, context, run }: PlanTask, compile: CompilePreset): Plan {
  return run === null
    ? plan(scene, shelf, recipe, context, compile)
    : replan(scene, shelf, run, recipe, context, compile);
}

/** What looking at the scene in motion finds: all of it as it stands, or only what a dry run moves. */
export function checkTask(
  scene: Scene,
  shelf: Shelf,
  task: PlanTask | null,
  compile: CompilePreset,
): readonly Finding[] {
  if (!task) return checkScene(scene, shelf);
  const planned = planTask(scene, shelf, task, compile);
  const applied = apply(scene, planned.edits);
  if (!applied.ok || planned.layers.length === 0) return [];
  const { start, finish } = solvedIn(planned.layers);
  const layers = new Set(planned.layers.map(({ layer }) => layer));
  return findInMotion(applied.scene, layers, start ?? 0, finish ?? scene.length);
}

/** Layers in one part of a plan. */
const PART = 1_000;

/** A plan as messages: whole where it is small, else in parts, each with all that is of its layers. */
export function planMessages(ticket: number, whole: Plan): FromPlanner[] {
  const { layers, edits, run } = whole;
  if (layers.length <= PART) return [{ type: 'plan', ticket, plan: whole, parts: 0 }];
  const steps = run?.steps ?? [];
  const parts = Math.ceil(layers.length / PART);
  const isOfRun = ({ type }: (typeof edits)[number]): boolean => type === 'add-run' || type === 'set-run';
  const layerEdits = edits.filter((edit) => !isOfRun(edit));
  const places = new Map(layers.map(({ layer }, i) => [layer, Math.floor(i / PART)]));
  const slices = <T>(list: readonly T[], layerOf: (item: T) => string): T[][] => {
    const found = Array.from({ length: parts }, (): T[] => []);
    for (const item of list) found[places.get(layerOf(item)) ?? parts - 1].push(item);
    return found;
  };
  const [ownEdits, ownSteps] = [
    slices(layerEdits, (edit) => ('layer' in edit && typeof edit.layer === 'string' ? edit.layer : '')),
    slices(steps, ({ layer }) => layer),
  ];
  return [
    { type: 'plan', ticket, parts, plan: { ...whole, layers: [], edits: [], run: run && { ...run, steps: [] } } },
    ...Array.from({ length: parts }, (_, part): FromPlanner => ({
      type: 'part',
      ticket,
      layers: layers.slice(part * PART, (part + 1) * PART),
      edits: ownEdits[part],
      steps: ownSteps[part],
    })),
  ];
}

/** A plan put together from its parts. */
export function assemblePlan(
  plan: Plan,
  parts: readonly Extract<FromPlanner, { type: 'part' }>[],
  isNew: boolean,
  runs: number,
): Plan {
  if (parts.length === 0) return plan;
  const run = plan.run && { ...plan.run, steps: parts.flatMap(({ steps }) => steps) };
  const edits = parts.flatMap((part) => part.edits);
  const record = run
    ? [isNew ? { type: 'add-run' as const, index: runs, run } : { type: 'set-run' as const, run }]
    : [];
  return {
    ...plan,
    run,
    layers: parts.flatMap(({ layers }) => layers),
    edits: edits.length === 0 && !isNew ? [] : [...edits, ...record],
  };
}
