import type { Edit } from '../edit';
import type { PresetItem, Shelf } from '../library';
import { compilePreset, type CompiledPreset, type CompilePreset, type Phase } from '../preset';
import { compileScene, restFrame } from '../sample';
import type { RunRecord, Scene } from '../scene';
import { frameTicks, secondsFromTicks, type Ticks } from '../time';
import { findMeetings, findOffGrid, findOutsideLayer, findOutsideScene } from './checks';
import { severityOf, type Finding } from './finding';
import { maximum, placesOf, type Staging } from './order';
import { hasKeysOn, planLayer, type Batch, type LayerPlan, type Outcome } from './plan-layer';
import type { PresetOperation, Recipe } from './recipe';
import { sentenceOf } from './sentence';
import { takePart } from './take-part';
import { createTiming, readTime } from './timing';
import { compileVariation } from './vary';

/** Who applies a run and when; passed in, so that planning stays pure. */
export interface RunContext {
  readonly runId: string;
  readonly by: string;
  /** ISO 8601 date and time. */
  readonly when: string;
}

export interface PlanCounts {
  readonly layers: number;
  readonly added: number;
  readonly removed: number;
}

/** The plan of a run: edits that are not yet applied, and what the checks found. */
export interface Plan {
  readonly edits: readonly Edit[];
  readonly findings: readonly Finding[];
  readonly layers: readonly LayerPlan[];
  readonly counts: PlanCounts;
  readonly run: RunRecord | null;
}

const PHASE_OF: Readonly<Record<PresetOperation, Phase>> = {
  'bring-in': 'entrance',
  'send-out': 'exit',
  accent: 'accent',
  'carry-through': 'through',
};

/** The operation that a preset of a phase is made for. */
export function operationFor(phase: Phase): PresetOperation {
  return (Object.keys(PHASE_OF) as PresetOperation[]).find((operation) => PHASE_OF[operation] === phase) ?? 'bring-in';
}

function refused(findings: readonly Finding[]): Plan {
  return { edits: [], findings, layers: [], counts: { layers: 0, added: 0, removed: 0 }, run: null };
}

/** Layers by what was noted for them, each note with all its layers. */
function groupNotes(
  outcomes: readonly Outcome[],
  notesOf: (outcome: Outcome) => readonly string[],
): [string, string[]][] {
  const groups = new Map<string, string[]>();
  for (const outcome of outcomes) {
    for (const note of notesOf(outcome)) {
      const layers = groups.get(note) ?? [];
      layers.push(outcome.plan.layer);
      groups.set(note, layers);
    }
  }
  return [...groups];
}

function findingsOf(scene: Scene, recipe: Recipe, outcomes: readonly Outcome[], runId: string): Finding[] {
  const subjects = outcomes.map(({ subject }) => subject);
  const short = outcomes.filter(({ isTooShort }) => isTooShort);
  return [
    ...findOutsideScene(scene, subjects),
    ...findOutsideLayer(subjects),
    ...findMeetings(scene, subjects, recipe.operation),
    ...(short.length === 0
      ? []
      : [{ code: 'too-short' as const, layers: short.map(({ plan }) => plan.layer), at: short[0].plan.starts }]),
    ...groupNotes(outcomes, ({ limited }) => limited).map(([parameter, layers]): Finding => ({
      code: 'limited',
      parameter,
      layers,
    })),
    ...groupNotes(outcomes, ({ broken }) => broken).map(([slot, layers]): Finding => ({
      code: 'not-finite',
      slot,
      layers,
    })),
    ...findOffGrid(scene, subjects, runId),
  ];
}

interface FoundPreset {
  readonly item: PresetItem;
  readonly compiled: CompiledPreset;
}

function findPreset(shelf: Shelf, recipe: Recipe, compile: CompilePreset): FoundPreset | Finding {
  const item = shelf.preset(recipe.preset.id);
  if (!item) return { code: 'unknown-preset', id: recipe.preset.id };
  if (item.body.phase !== PHASE_OF[recipe.operation]) {
    return { code: 'wrong-phase', preset: item.name, phase: item.body.phase, operation: recipe.operation };
  }
  const result = compile(item.body, shelf);
  if (!result.ok) return { code: 'preset-broken', preset: item.name, problem: result.problems[0] };
  return { item, compiled: result.compiled };
}

function prepareBatch(
  scene: Scene,
  recipe: Recipe,
  { item, compiled }: FoundPreset,
  count: number,
  places: readonly number[],
  runId: string,
  staging: Staging,
): { batch: Batch; problems: Finding[] } {
  const lastPlace = maximum(places);
  const { timing, problems } = createTiming(recipe, item.body.hang, lastPlace + 1, scene.rate);
  const length = recipe.length.by === 'fixed' ? readTime(recipe.length.length, scene.rate, 'Length') : null;
  const variations = compiled.parameters.map((entry) =>
    compileVariation(entry, recipe.parameters[entry.parameter.name], compiled.lookup),
  );
  const known = new Set(item.body.parameters.map(({ name }) => name));
  const unknown = Object.keys(recipe.parameters).filter((name) => !known.has(name));
  const found: (Finding | null | undefined)[] = [
    ...problems,
    length?.problem,
    tooShortLength(length?.ticks ?? null, scene),
    ...variations.map(({ problem }) => problem),
    ...unknown.map((name): Finding => ({ code: 'unknown-parameter', preset: item.name, name })),
  ];
  const sources = variations.map(({ source }) => source);
  const fixed = length?.ticks ?? null;
  const batch = { staging, recipe, compiled, timing, sources, runId, count, lastPlace, fixed };
  return { batch, problems: found.filter((problem) => problem !== null && problem !== undefined) };
}

function tooShortLength(fixed: Ticks | null, scene: Scene): Finding | null {
  if (fixed === null || fixed >= frameTicks(scene.rate)) return null;
  const text = `${Number(secondsFromTicks(fixed).toFixed(3))}s`;
  return { code: 'bad-field', field: 'Length', text, message: 'It must be at least one frame.' };
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
  const found = findPreset(shelf, recipe, compile);
  if ('code' in found) return refused([found]);
  const chosen = takePart(scene, recipe);
  if (chosen.indices.length === 0) return refused(chosen.findings);
  const free = (index: number): boolean =>
    recipe.existing !== 'leave' || !hasKeysOn(scene.layers[index], found.compiled);
  const indices = chosen.indices.filter(free);
  const alone = chosen.indices.filter((index) => !free(index)).map((index) => scene.layers[index].id);
  const leftAlone: Finding[] = alone.length > 0 ? [{ code: 'left-alone', layers: alone }] : [];
  const compiledScene = compileScene(scene);
  const staging = { scene, compiled: compiledScene, rest: restFrame(compiledScene) };
  const places = placesOf(staging, indices, recipe.order);
  const { batch, problems } = prepareBatch(scene, recipe, found, indices.length, places, context.runId, staging);
  if (problems.some((problem) => severityOf(problem) === 'error')) return refused(problems);
  const outcomes = indices.map((index, i) => planLayer(batch, index, places[i]));
  const findings = [
    ...unpublished(found.item),
    ...findingsOf(scene, recipe, outcomes, context.runId),
    ...chosen.findings,
    ...leftAlone,
  ];
  return assemble(scene, shelf, recipe, found, context, outcomes, findings);
}

function unpublished({ name, state }: PresetItem): Finding[] {
  return state === 'draft' || state === 'in review' ? [{ code: 'draft-preset', preset: name }] : [];
}

function assemble(
  scene: Scene,
  shelf: Shelf,
  recipe: Recipe,
  { item, compiled }: FoundPreset,
  { runId, by, when }: RunContext,
  outcomes: readonly Outcome[],
  findings: readonly Finding[],
): Plan {
  const layers = outcomes.map((outcome) => outcome.plan);
  const replaced = outcomes.flatMap((outcome) => outcome.replaced);
  const run: RunRecord = {
    id: runId,
    sentence: sentenceOf(recipe, { scene, shelf, count: layers.length }),
    recipe,
    preset: { id: item.id, revision: item.revision },
    uses: [...compiled.uses],
    by,
    when,
    layers: layers.map(({ layer }) => layer),
    replaced,
    moved: outcomes.flatMap((outcome) => outcome.moved),
  };
  const counts = {
    layers: layers.length,
    added: outcomes.reduce((sum, { added }) => sum + added, 0),
    removed: replaced.reduce((sum, { keys }) => sum + keys.length, 0),
  };
  if (layers.length === 0) return { edits: [], findings, layers, counts, run: null };
  const edits = [...outcomes.flatMap((outcome) => outcome.edits)];
  return { edits: [...edits, { type: 'add-run', index: scene.runs.length, run }], findings, layers, counts, run };
}
