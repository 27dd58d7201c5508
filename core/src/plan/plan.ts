import { planArrange } from '../arrange';
import { findUnheld } from '../check';
import { planClear } from '../clear';
import { layerEdits, type Edit } from '../edit';
import { severityOf, type Finding } from '../finding';
import type { Shelf } from '../library';
import { planLineUp } from '../line-up';
import { takePart } from '../pick';
import { compilePreset, type CompilePreset } from '../preset';
import { isPresetRecipe, type Recipe } from '../recipe';
import { planPreset, type LayerPlan } from '../run';
import { tracksOf, type Layer, type RunRecord, type Scene } from '../scene';
import { NO_COUNTS, refuse, type Operated, type PlanCounts, type RunContext, type Surroundings } from '../operation';
import { sentenceOf } from './sentence';

/** A run's record without what it does to each layer. */
export type RunHead = Omit<RunRecord, 'steps'>;

/** What a run would do, as it is shown: to each layer, and what the checks found. */
export interface DryRun {
  readonly findings: readonly Finding[];
  readonly layers: readonly LayerPlan[];
  readonly counts: PlanCounts;
  readonly run: RunHead | null;
}

/** The plan of a run: a dry run with the edits that apply it. */
export interface Plan extends DryRun {
  readonly edits: readonly Edit[];
  readonly run: RunRecord | null;
}

export function refusedPlan(findings: readonly Finding[]): Plan {
  return { edits: [], findings, layers: [], counts: NO_COUNTS, run: null };
}

function operateOn(surroundings: Surroundings, recipe: Recipe): Operated {
  if (isPresetRecipe(recipe)) return planPreset(surroundings, recipe);
  switch (recipe.operation) {
    case 'line-up':
      return planLineUp(surroundings, recipe);
    case 'arrange':
      return planArrange(surroundings, recipe);
    case 'clear':
      return planClear(surroundings, recipe);
  }
}

/** Works out what a recipe does to each layer, with what there is to say about who takes part. */
export function operate(
  scene: Scene,
  shelf: Shelf,
  recipe: Recipe,
  context: RunContext,
  compile: CompilePreset,
): Operated {
  const { indices, findings } = takePart(scene, recipe.pick);
  if (indices.length === 0) return refuse(findings);
  const operated = operateOn({ scene, shelf, context, compile, indices }, recipe);
  if (operated.findings.some((finding) => severityOf(finding) === 'error')) return operated;
  const unheld = findUnheld(operated.layers.map(({ after }) => after));
  if (unheld) return refuse([unheld]);
  return { ...operated, findings: [...operated.findings, ...findings] };
}

function headOf(
  scene: Scene,
  shelf: Shelf,
  recipe: Recipe,
  { layers, preset, uses }: Operated,
  { runId, by, when }: RunContext,
): RunHead {
  const facts = { scene, shelf, count: layers.length, ...(preset ? { presetName: preset.name } : {}) };
  return {
    id: runId,
    sentence: sentenceOf(recipe, facts),
    recipe,
    ...(preset ? { preset } : {}),
    ...(uses ? { uses } : {}),
    by,
    when,
    layers: layers.map(({ layer }) => layer),
  };
}

/** The record of a run as it would be applied. */
export function recordOf(
  scene: Scene,
  shelf: Shelf,
  recipe: Recipe,
  operated: Operated,
  context: RunContext,
): RunRecord {
  return { ...headOf(scene, shelf, recipe, operated, context), steps: [...operated.steps()] };
}

function keyCount(layer: Layer): number {
  return tracksOf(layer).reduce((sum, [, keys]) => sum + keys.length, 0);
}

/** Counts with the old keys that stay. */
export function countsWith({ counts, layers }: Operated, standing: ReadonlyMap<string, Layer>): PlanCounts {
  const old = layers.reduce((sum, { layer }) => sum + keyCount(standing.get(layer) as Layer), 0);
  return { ...counts, kept: Math.max(0, old - counts.replaced - counts.removed) };
}

export function layersById({ layers }: Scene): Map<string, Layer> {
  return new Map(layers.map((layer) => [layer.id, layer]));
}

/** What an operation does, and how it is shown. */
interface Shown {
  readonly operated: Operated;
  readonly shown: DryRun;
}

function show(scene: Scene, shelf: Shelf, recipe: Recipe, context: RunContext, compile: CompilePreset): Shown {
  const operated = operate(scene, shelf, recipe, context, compile);
  const { layers, findings } = operated;
  if (layers.length === 0) return { operated, shown: refusedPlan(findings) };
  const counts = countsWith(operated, layersById(scene));
  return { operated, shown: { findings, layers, counts, run: headOf(scene, shelf, recipe, operated, context) } };
}

/** A run as it would be shown, without the edits that apply it; costs less than `plan` and says the same. */
export function dryRun(
  scene: Scene,
  shelf: Shelf,
  recipe: Recipe,
  context: RunContext,
  compile: CompilePreset = compilePreset,
): DryRun {
  return show(scene, shelf, recipe, context, compile).shown;
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
  const { operated, shown } = show(scene, shelf, recipe, context, compile);
  if (!shown.run) return refusedPlan(shown.findings);
  const run = { ...shown.run, steps: [...operated.steps()] };
  const standing = layersById(scene);
  const edits = shown.layers.flatMap(({ layer, after }) => layerEdits(standing.get(layer) as Layer, after));
  return { ...shown, run, edits: [...edits, { type: 'add-run', index: scene.runs.length, run }] };
}
