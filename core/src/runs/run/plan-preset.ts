import { matchingExit } from '../../library/authoring';
import { severityOf, type Finding } from '../finding';
import { keepUsed, presetAsUsed, shelfAsUsed, type PresetItem, type Shelf } from '../../library/library';
import { createStaging, findOnePlace, maximum, placesOf, problemsOf, readTime } from '../order';
import { operationPhase, refuse, type Operated, type RunContext, type Surroundings } from '../operation';
import { movementLabel, presetChannels, type CompiledPreset, type Phase, type Preset } from '../../formulas/preset';
import { movementTroubles } from '../movement';
import { PRESET_OPERATIONS, type PresetOperation, type PresetRecipe } from '../../scene/recipe';
import type { RunRecord, Scene } from '../../scene/scene';
import { frameTicks, type Ticks } from '../../basics/time';
import {
  findMeetings,
  findOffGrid,
  findOutsideLayer,
  findOutsideScene,
  findUntouched,
  findTwice,
  sidesOfRuns,
} from '../check';
import { createMarker, type Batch } from './batch';
import { groupNotes, limitedFindings } from './notes';
import { readOverrides } from './overrides';
import { hasKeysOn, madeOf, planLayers, type Outcome } from './plan-layers';
import { prepareLayers } from './prepare';
import { createSchedule, createTiming, isStaggered, type Schedule, type Timing } from './schedule';
import { compileVariation, type CompiledVariation } from './vary';

/** The operation that a preset of a phase is made for. */
export function operationFor(phase: Phase): PresetOperation {
  return PRESET_OPERATIONS.find((operation) => operationPhase(operation) === phase) ?? 'bring-in';
}

function findingsOf(scene: Scene, recipe: PresetRecipe, outcomes: readonly Outcome[], runId: string): Finding[] {
  const short = outcomes.filter(({ isTooShort }) => isTooShort);
  const layerOf = (row: number): string => outcomes[row].plan.layer;
  return [
    ...findOutsideScene(scene, outcomes),
    ...findOutsideLayer(outcomes),
    ...findMeetings(scene, outcomes, recipe.operation),
    ...findTwice(
      scene,
      outcomes.map(({ layer }) => layer),
      recipe.operation,
      runId,
    ),
    ...(short.length === 0
      ? []
      : [{ code: 'too-short' as const, layers: short.map(({ plan }) => plan.layer), at: short[0].plan.starts }]),
    ...limitedFindings(
      outcomes.map(({ limited }) => limited),
      layerOf,
    ),
    ...groupNotes(
      outcomes.map(({ broken }) => broken),
      layerOf,
    ).map(([slot, layers]): Finding => ({ code: 'not-finite', slot, layers })),
    ...findOffGrid(scene, outcomes, runId),
  ];
}

/** The preset of a recipe, of the revision and the way round that it asks for. */
interface FoundPreset {
  readonly name: string;
  readonly used: NonNullable<RunRecord['preset']>;
  readonly body: Preset;
  readonly state: PresetItem['state'];
  readonly compiled: CompiledPreset;
  /** What it takes its curves and house values from. */
  readonly shelf: Shelf;
  /** What a run that is planned again kept of these; null for one that takes them from the library. */
  readonly kept: RunRecord['uses'] | null;
}

type Sourced = Pick<FoundPreset, 'used' | 'body' | 'state' | 'shelf' | 'kept'>;

/**
 * A preset from the library; or as the run that is planned again used it, with the curves and house values of then, where
 * it keeps to that revision or the library does not have the preset.
 */
function sourcePreset({ shelf, context }: Surroundings, { preset }: PresetRecipe): Sourced | Finding {
  const item = shelf.preset(preset.id);
  const { revision } = preset;
  const known = revision !== undefined || !item ? knownPreset(context, shelf, preset.id, revision) : null;
  if (known) return known;
  if (!item) return { code: 'unknown-preset', id: preset.id };
  const { id, name, state, body } = item;
  if (revision !== undefined && revision !== item.revision) return { code: 'revision-missing', preset: name, revision };
  return { used: { id, revision: item.revision, name, body: { ...body } }, body, state, shelf, kept: null };
}

function knownPreset({ known }: RunContext, shelf: Shelf, id: string, revision: number | undefined): Sourced | null {
  const used = known?.preset;
  if (used?.id !== id || (revision !== undefined && used.revision !== revision)) return null;
  const body = presetAsUsed(used.body);
  return body
    ? { used, body, state: 'published', shelf: shelfAsUsed(shelf, known?.uses), kept: known?.uses ?? [] }
    : null;
}

function findPreset(surroundings: Surroundings, recipe: PresetRecipe): FoundPreset | Finding {
  const sourced = sourcePreset(surroundings, recipe);
  if ('code' in sourced) return sourced;
  const { used, state, shelf, kept } = sourced;
  const isMirrored = recipe.preset.mirrored === true && sourced.body.phase === 'entrance';
  const body = isMirrored ? mirrored(sourced.body, used.id) : sourced.body;
  if (body.phase !== operationPhase(recipe.operation)) {
    return { code: 'wrong-phase', preset: used.name, phase: body.phase, operation: recipe.operation };
  }
  const result = surroundings.compile(body, shelf);
  if (!result.ok) return { code: 'preset-broken', preset: used.name, problem: result.problems[0] };
  return { name: used.name, used, body, state, shelf, kept, compiled: result.compiled };
}

const mirrors = new WeakMap<Preset, Preset>();

/** The same mirror image for the same preset, so that it is compiled once. */
function mirrored(entrance: Preset, id: string): Preset {
  const known = mirrors.get(entrance) ?? matchingExit(entrance, id);
  mirrors.set(entrance, known);
  return known;
}

function readLengths(
  recipe: PresetRecipe,
  scene: Scene,
): { lengths: readonly [Ticks, Ticks] | null; problems: Finding[] } {
  const { length } = recipe;
  if (length.by !== 'fixed' && length.by !== 'random') return { lengths: null, problems: [] };
  const texts = length.by === 'fixed' ? [length.length, length.length] : [length.from, length.to];
  const [from, to] = texts.map((text) => readTime(text, scene.rate, 'Length'));
  const problems = problemsOf([from, ...(length.by === 'fixed' ? [] : [to])]);
  const short = [from, to].findIndex(({ ticks }) => ticks < frameTicks(scene.rate));
  if (problems.length === 0 && short >= 0) {
    problems.push({
      code: 'bad-field',
      field: 'Length',
      text: texts[short],
      message: 'It must be at least one frame.',
    });
  }
  return { lengths: [from.ticks, to.ticks], problems };
}

interface Prepared {
  readonly batch: Batch;
  readonly timing: Timing;
  readonly variations: readonly CompiledVariation[];
  readonly problems: readonly Finding[];
}

function prepareBatch(
  { scene, context }: Surroundings,
  recipe: PresetRecipe,
  { name, body, compiled }: FoundPreset,
  { indices, places, staging }: Pick<Batch, 'indices' | 'places' | 'staging'>,
): Prepared {
  const { timing, problems } = createTiming(recipe, body.hang, scene, body.grid === 'frames');
  const { lengths, problems: badLengths } = readLengths(recipe, scene);
  const { overrides, problems: badOverrides } = readOverrides(recipe, compiled, scene);
  const variations = compiled.parameters.map((entry) =>
    compileVariation(entry, recipe.parameters[entry.parameter.name], compiled.lookup),
  );
  const known = new Set(body.parameters.map((parameter) => parameter.name));
  const unknown = Object.keys(recipe.parameters).filter((parameter) => !known.has(parameter));
  const batch: Batch = {
    staging,
    recipe,
    compiled,
    sources: variations.map(({ source }) => source),
    overrides,
    mark: createMarker(context.runId),
    isGone: goneRuns(scene, recipe),
    indices,
    places,
    lastPlace: maximum(places),
    lengths,
  };
  const found = [
    ...problems,
    ...badLengths,
    ...variations.flatMap(({ problem }) => (problem ? [problem] : [])),
    ...badOverrides,
    ...unknown.map((parameter): Finding => ({ code: 'unknown-parameter', preset: name, name: parameter })),
  ];
  return { batch, timing, variations, problems: found };
}

/** Which runs' keys give way to the recipe's; null where none do. */
function goneRuns(scene: Scene, { existing, operation }: PresetRecipe): Batch['isGone'] {
  if (existing !== 'take-place') return null;
  const sides = sidesOfRuns(scene);
  return [...sides.values()].includes(operation as 'bring-in') ? (run) => sides.get(run) === operation : null;
}

function isStopped(problems: readonly Finding[]): boolean {
  return problems.some((problem) => severityOf(problem) === 'error');
}

/** Starts that were set by hand stand over those that the schedule gives. */
function withHandStarts({ slots }: Schedule, batch: Batch, layers: readonly string[]): Schedule['slots'] {
  if (batch.overrides.size === 0) return slots;
  return slots.map((slot, i) => {
    const start = batch.overrides.get(layers[i])?.start ?? null;
    if (start === null) return slot;
    return { ...slot, start, moved: batch.recipe.moves === 'layers' ? slot.moved + start - slot.start : 0 };
  });
}

function dataFindings(
  { scene, indices }: Surroundings,
  recipe: PresetRecipe,
  { batch, variations }: Prepared,
): Finding[] {
  return variations.flatMap(({ lacks }, i): Finding[] => {
    const variation = recipe.parameters[batch.compiled.parameters[i].parameter.name];
    if (!lacks || variation?.by !== 'data') return [];
    const layers = indices.map((index) => scene.layers[index]).filter(lacks);
    return layers.length > 0 ? [{ code: 'no-data', column: variation.column, layers: layers.map(({ id }) => id) }] : [];
  });
}

function unpublished({ name, state }: FoundPreset): Finding[] {
  return state === 'draft' || state === 'in review' ? [{ code: 'draft-preset', preset: name }] : [];
}

/** Works out a recipe that puts a preset on layers. */
export function planPreset(surroundings: Surroundings, recipe: PresetRecipe): Operated {
  const { scene, context } = surroundings;
  const found = findPreset(surroundings, recipe);
  if ('code' in found) return refuse([found]);
  const free = (index: number): boolean =>
    recipe.existing !== 'leave' || !hasKeysOn(scene.layers[index], found.compiled);
  const indices = surroundings.indices.filter(free);
  const alone = surroundings.indices.filter((index) => !free(index)).map((index) => scene.layers[index].id);
  const leftAlone: Finding[] = alone.length > 0 ? [{ code: 'left-alone', layers: alone }] : [];
  const staging = createStaging(scene);
  const places = placesOf(staging, indices, recipe.order);
  const prepared = prepareBatch(surroundings, recipe, found, { indices, places, staging });
  if (isStopped(prepared.problems)) return refuse(prepared.problems);
  if (indices.length === 0) return refuse(leftAlone);
  const { batch, timing } = prepared;
  const layers = prepareLayers(batch);
  const entrants = indices.map((index, row) => ({
    layer: scene.layers[index],
    place: places[row],
    lasts: layers.moments.lasts[row],
  }));
  const troubles = movementTroubles(found.compiled, layers.columns).map(({ why, entry, rows }): Finding => ({
    code: 'movement-trouble',
    movement: movementLabel(entry.movement),
    why,
    layers: rows.map((row) => entrants[row].layer.id),
  }));
  if (troubles.length > 0) return refuse(troubles);
  const schedule = createSchedule(timing, entrants);
  if (isStopped(schedule.problems)) return refuse(schedule.problems);
  const ids = entrants.map(({ layer }) => layer.id);
  const slots = withHandStarts(schedule, batch, ids);
  const outcomes = planLayers(batch, layers, slots);
  const still = [...layers.still].map((row) => ids[row]);
  // Layers of one place can start apart all the same: by in points of their own, or by hand.
  const startTogether = slots.every(({ start }) => start === slots[0].start);
  const findings: Finding[] = [
    ...unpublished(found),
    ...schedule.problems,
    ...(isStaggered(timing) && startTogether ? findOnePlace(ids, places, recipe.order, 'starts') : []),
    ...findingsOf(scene, recipe, outcomes.layers, context.runId),
    ...dataFindings({ ...surroundings, indices }, recipe, prepared),
    ...(still.length > 0 ? [{ code: 'no-distance' as const, layers: still }] : []),
    ...findUntouched(
      presetChannels(found.body),
      entrants.map(({ layer }) => layer),
    ),
    ...leftAlone,
  ];
  return {
    layers: outcomes.layers.map(({ plan }) => plan),
    made: () => madeOf(batch, outcomes, slots),
    findings,
    counts: { layers: outcomes.layers.length, ...outcomes.counts },
    preset: found.used,
    uses: found.kept ? [...found.kept] : keepUsed(found.shelf, found.compiled.uses),
  };
}
