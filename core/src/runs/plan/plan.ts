import { findUnheld } from '../check';
import type { Edit } from '../../scene/edit';
import { severityOf, type Finding } from '../finding';
import { keyCount, type Layer } from '../../scene/layer';
import type { Shelf } from '../../library/library';
import {
  NO_COUNTS,
  refuse,
  type LayerPlan,
  type Operated,
  type PlanCounts,
  type RunContext,
  type Surroundings,
} from '../operation';
import { planRecipe, sentenceOf } from '../operations';
import { takePart } from '../pick';
import { compilePreset, type CompilePreset } from '../../formulas/preset';
import type { Recipe } from '../../scene/recipe';
import { packMade, type RunRecord, type Scene } from '../../scene/scene';
import { entryOn, openScene, restack } from '../stack';

/** What is known of a run before it is applied. */
export type RunHead = Pick<RunRecord, 'id' | 'recipe' | 'preset' | 'rig' | 'uses' | 'by' | 'when' | 'layers'>;

/** What a run would do, as it is shown: to each layer, and what the checks found. */
export interface DryRun {
  readonly findings: readonly Finding[];
  readonly layers: readonly LayerPlan[];
  readonly counts: PlanCounts;
  readonly run: RunHead | null;
  /** Layers that come with the run, as they are then, in front of all others. */
  readonly added?: readonly Layer[];
  /** Layers that go with it. */
  readonly removed?: readonly string[];
}

/** The plan of a run: a dry run with the edits that apply it. */
export interface Plan extends DryRun {
  readonly edits: readonly Edit[];
  readonly run: RunRecord | null;
}

/** The plan of what cannot be done. */
export function refusedPlan(findings: readonly Finding[]): Plan {
  return { edits: [], findings, layers: [], counts: NO_COUNTS, run: null };
}

/** Works out what a recipe does to each layer, with what there is to say about who takes part. */
export function operate(surroundings: Omit<Surroundings, 'indices'>, recipe: Recipe): Operated {
  const { indices, findings } = takePart(surroundings.scene, recipe.pick);
  if (indices.length === 0) return refuse(findings);
  const operated = planRecipe(recipe, { ...surroundings, indices });
  if (operated.findings.some((finding) => severityOf(finding) === 'error')) return operated;
  const unheld = findUnheld(operated.layers.map(({ after }) => after));
  if (unheld) return refuse([unheld]);
  return { ...operated, findings: [...operated.findings, ...findings] };
}

function headOf(
  recipe: Recipe,
  { layers, preset, rig, adjust, uses }: Operated,
  { runId, by, when }: RunContext,
): RunHead {
  return {
    id: runId,
    recipe,
    ...(preset ? { preset } : {}),
    ...(rig ? { rig } : {}),
    ...(adjust ? { adjust } : {}),
    ...(uses ? { uses } : {}),
    by,
    when,
    layers: layers.map(({ layer }) => layer),
  };
}

/** The record of a run as it would be applied. */
export function recordOf(
  { scene, shelf, context }: Pick<Surroundings, 'scene' | 'shelf' | 'context'>,
  recipe: Recipe,
  operated: Operated,
): RunRecord {
  const { layers } = operated;
  const used = operated.preset ?? operated.rig;
  const facts = { scene, shelf, count: layers.length, ...(used ? { presetName: used.name } : {}) };
  const made = operated.made();
  return {
    ...headOf(recipe, operated, context),
    sentence: sentenceOf(recipe, facts),
    layers: made.map(({ layer }) => layer),
    made: packMade(made),
  };
}

/** Counts with the old keys that stay. */
export function countsWith({ counts, layers }: Operated, standing: ReadonlyMap<string, Layer>): PlanCounts {
  const old = layers.reduce((sum, { layer }) => sum + keyCount(standing.get(layer) as Layer), 0);
  return { ...counts, kept: Math.max(0, old - counts.replaced - counts.removed) };
}

const known = new WeakMap<readonly Layer[], ReadonlyMap<string, Layer>>();

/** Layers of a scene by their ids; made once, as a scene is planned over and over while a recipe is looked for. */
export function layersById({ layers }: Pick<Scene, 'layers'>): ReadonlyMap<string, Layer> {
  const before = known.get(layers);
  if (before) return before;
  const byId = new Map(layers.map((layer) => [layer.id, layer]));
  known.set(layers, byId);
  return byId;
}

/** What an operation does, and how it is shown. */
interface Shown {
  /** The scene with the layers that the operation adds, as they are without it. */
  readonly scene: Scene;
  readonly operated: Operated;
  readonly shown: DryRun;
}

function show(surroundings: Omit<Surroundings, 'indices'>, recipe: Recipe): Shown {
  const operated = operate(surroundings, recipe);
  const { layers, findings } = operated;
  const scene = withAdded(surroundings.scene, operated);
  if (layers.length === 0) return { scene, operated, shown: refusedPlan(findings) };
  const counts = countsWith(operated, layersById(scene));
  const run = headOf(recipe, operated, surroundings.context);
  return { scene, operated, shown: { findings, layers, counts, run, ...comings(operated) } };
}

/** A scene with the layers that an operation adds, as they are without it, and without those that it takes away. */
export function withAdded(scene: Scene, { added = [], removed = [] }: Operated): Scene {
  if (added.length === 0 && removed.length === 0) return scene;
  const gone = new Set(removed);
  const kept = scene.layers.filter(({ id }) => !gone.has(id));
  return { ...scene, layers: [...kept, ...added.map(({ layer }) => layer)] };
}

/** Layers that come with an operation, as they are then, and those that go. */
export function comings({ added = [], removed = [], layers }: Operated): Pick<DryRun, 'added' | 'removed'> {
  if (added.length === 0 && removed.length === 0) return {};
  const after = new Map(layers.map((entry) => [entry.layer, entry.after]));
  return {
    ...(added.length > 0 ? { added: added.map(({ layer }) => after.get(layer.id) ?? layer) } : {}),
    ...(removed.length > 0 ? { removed } : {}),
  };
}

/** The edits that take layers away and add others, which come before all else. */
export function comingEdits(scene: Scene, { added = [], removed = [] }: Operated): Edit[] {
  const length = scene.layers.length - removed.length;
  return [
    ...[...removed].reverse().map((layer): Edit => ({ type: 'remove-layer', layer })),
    ...added.map(({ layer }, i): Edit => ({ type: 'add-layer', index: length + i, layer })),
  ];
}

/** A run as it would be shown, without the edits that apply it; costs less than `plan` and says the same. */
export function dryRun(
  scene: Scene,
  shelf: Shelf,
  recipe: Recipe,
  context: RunContext,
  compile: CompilePreset = compilePreset,
): DryRun {
  return show({ scene, shelf, context, compile }, recipe).shown;
}

/**
 * Plans a run: what it would change on each layer and what the checks found. Pure; changes nothing.
 * `compile` may keep presets that it compiled before (`createPresetCompiler`).
 * With a finding of severity "error" there are no edits.
 */
export function plan(
  scene: Scene,
  shelf: Shelf,
  recipe: Recipe,
  context: RunContext,
  compile: CompilePreset = compilePreset,
): Plan {
  const surroundings = { scene, shelf, context, compile };
  const { scene: whole, operated, shown } = show(surroundings, recipe);
  if (!shown.run) return refusedPlan(shown.findings);
  const run = recordOf(surroundings, recipe, operated);
  const opened = openScene(whole, scene.runs.length, run.layers);
  const { edits } = restack(opened, [...scene.runs, run], ({ standing, base, levels }) => {
    const entry = entryOn(run, standing.id);
    return { base, entries: [...levels.map((level) => level.entry), ...(entry ? [entry] : [])] };
  });
  return { ...shown, run, edits: [...comingEdits(scene, operated), ...edits] };
}
