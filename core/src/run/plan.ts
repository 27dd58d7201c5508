import { channelOf, clampToChannel, type ChannelId } from '../channel';
import type { Edit } from '../edit';
import {
  compilePreset,
  createInputs,
  limitParameter,
  makeRows,
  momentSeconds,
  momentTicks,
  setParameter,
  type CompiledPreset,
  type CompilePreset,
  type LibraryItem,
  type MadeRow,
  type Phase,
  type Shelf,
} from '../preset';
import { boundsAt, compileScene, restFrame, sampleTrack } from '../sample';
import { restValue, tracksOf, type Key, type Layer, type RunRecord, type Scene } from '../scene';
import { frameTicks, secondsFromTicks, TICKS_PER_SECOND, type Ticks } from '../time';
import { findMeetings, findOffGrid, findOutsideLayer, findOutsideScene, type Subject } from './checks';
import { mergeKeys } from './existing';
import { severityOf, type Finding } from './finding';
import { maximum, placesOf, type Staging } from './order';
import { takePart } from './take-part';
import type { PresetOperation, Recipe } from './recipe';
import { sentenceOf } from './sentence';
import { createTiming, readTime, startOf, type Timing } from './timing';
import { compileVariation, type ParameterSource } from './vary';

/** Who applies a run and when; passed in, so that planning stays pure. */
export interface RunContext {
  readonly runId: string;
  readonly by: string;
  /** ISO 8601 date and time. */
  readonly when: string;
}

/** What a run gives to one layer. */
export interface LayerPlan {
  readonly layer: string;
  /** Place in the order, 0 first. */
  readonly place: number;
  readonly starts: Ticks;
  readonly lasts: Ticks;
  /** Each parameter's value in base units (px, seconds, degrees; a switch 0 or 1). */
  readonly values: Readonly<Record<string, number>>;
  /** The layer as it will be. */
  readonly after: Layer;
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

/** Everything of a run that is the same for all its layers. */
interface Batch {
  readonly staging: Staging;
  readonly recipe: Recipe;
  readonly compiled: CompiledPreset;
  readonly timing: Timing;
  readonly sources: readonly ParameterSource[];
  readonly runId: string;
  readonly count: number;
  readonly lastPlace: number;
  /** Fixed length in ticks, or null. */
  readonly fixed: Ticks | null;
}

interface Outcome {
  readonly plan: LayerPlan;
  readonly subject: Subject;
  readonly edits: readonly Edit[];
  readonly replaced: RunRecord['replaced'];
  readonly moved: RunRecord['moved'];
  readonly added: number;
  readonly limited: readonly string[];
  readonly broken: readonly string[];
  readonly isTooShort: boolean;
}

const WIDTH = channelOf('size.x').id;
const HEIGHT = channelOf('size.y').id;

function circumstances({ staging, recipe, count, lastPlace }: Batch, index: number, place: number) {
  const { scene, rest } = staging;
  const layer = scene.layers[index];
  const box = boundsAt(rest, index);
  return {
    rate: scene.rate,
    place,
    count,
    share: lastPlace === 0 ? 0 : place / lastPlace,
    seed: recipe.seed,
    layer: {
      width: restValue(layer, WIDTH) * Math.abs(restValue(layer, 'scale.x')),
      height: restValue(layer, HEIGHT) * Math.abs(restValue(layer, 'scale.y')),
      length: layer.span.out - layer.span.in,
      ...box,
    },
    frame: { width: scene.width, height: scene.height },
  };
}

interface Prepared {
  readonly inputs: Float64Array;
  readonly values: Record<string, number>;
  readonly limited: string[];
}

function prepareInputs(batch: Batch, index: number, place: number): Prepared {
  const { compiled, staging } = batch;
  const facts = circumstances(batch, index, place);
  const inputs = createInputs(compiled, facts);
  const turn = { place, share: facts.share, layer: staging.scene.layers[index].id };
  const values: Record<string, number> = {};
  const limited: string[] = [];
  compiled.parameters.forEach((entry, i) => {
    const { name } = entry.parameter;
    const wanted = batch.sources[i](inputs, turn);
    values[name] = limitParameter(entry, wanted, inputs);
    if (values[name] !== wanted) limited.push(name);
    setParameter(compiled, inputs, name, values[name]);
  });
  return { inputs, values, limited };
}

/** Moment times in ticks with the recipe's length. The length parameter is set first; the rest is stretched to fit. */
function timeMoments(batch: Batch, { inputs, values }: Prepared): Ticks[] {
  const { compiled, recipe, fixed, staging } = batch;
  const { lasts } = compiled.preset;
  const { rate } = staging.scene;
  const wanted = wantedSeconds(batch, maximum(momentSeconds(compiled, inputs)));
  if (wanted === null) return momentTicks(momentSeconds(compiled, inputs), 1, compiled, rate);
  if (lasts !== undefined && (fixed !== null || recipe.length.by === 'factor')) {
    values[lasts] = wanted;
    setParameter(compiled, inputs, lasts, wanted);
  }
  const seconds = momentSeconds(compiled, inputs);
  const natural = maximum(seconds);
  return momentTicks(seconds, natural > 0 ? wanted / natural : 1, compiled, rate);
}

/** Length that the recipe asks for, in seconds; null where the preset's own counts. */
function wantedSeconds({ recipe, fixed }: Batch, natural: number): number | null {
  if (fixed !== null) return fixed / TICKS_PER_SECOND;
  return recipe.length.by === 'factor' ? natural * recipe.length.factor : null;
}

function shiftKeys(layer: Layer, by: Ticks): Layer['tracks'] {
  return Object.fromEntries(
    tracksOf(layer).map(([id, keys]) => [id, keys.map((key) => ({ ...key, at: key.at + by }))]),
  );
}

function hasKeysOn(layer: Layer, compiled: CompiledPreset): boolean {
  return compiled.rows.some(({ channel }) => layer.tracks[channel] !== undefined);
}

function keysOf(row: MadeRow, start: Ticks, run: string): Key[] {
  return row.keys.map(({ after, value, ease, slot }) => ({
    at: start + after,
    value: clampToChannel(row.channel, value),
    ease,
    by: { run, slot },
  }));
}

/** Does one layer: its inputs, its times, its new keys over the old ones. */
function planLayer(batch: Batch, index: number, place: number): Outcome {
  const before = batch.staging.scene.layers[index];
  const prepared = prepareInputs(batch, index, place);
  const times = timeMoments(batch, prepared);
  const lasts = maximum(times);
  const { start, moved } = startOf(batch.timing, place, before, lasts);
  const span = { in: before.span.in + moved, out: before.span.out + moved };
  const standingTracks = moved === 0 ? before.tracks : shiftKeys(before, moved);
  const tracks = { ...standingTracks };
  const factsOf = (channel: ChannelId) => {
    const rest = restValue(before, channel);
    const standing = tracks[channel];
    return { rest, here: standing ? sampleTrack(standing, start) : rest };
  };
  const rows = makeRows(batch.compiled, prepared.inputs, times, factsOf);
  const replaced: RunRecord['replaced'] = [];
  let added = 0;
  for (const row of rows) {
    const made = keysOf(row, start, batch.runId);
    const { channel } = row;
    const merged = mergeKeys(tracks[channel], made, batch.recipe.existing, channel, restValue(before, channel));
    if (merged.removed.length > 0) replaced.push({ layer: before.id, channel, keys: [...merged.removed] });
    tracks[channel] = [...merged.keys];
    added += made.length;
  }
  const after: Layer = moved === 0 ? { ...before, tracks } : { ...before, span, tracks };
  return {
    plan: { layer: before.id, place, starts: start, lasts, values: prepared.values, after },
    subject: { layer: after, before: standingTracks, made: { from: start, to: start + lasts } },
    edits: editsBetween(before, after),
    replaced,
    moved: moved === 0 ? [] : [{ layer: before.id, ...before.span }],
    added,
    limited: prepared.limited,
    broken: rows.flatMap((row) => row.broken),
    isTooShort: rows.some((row) => row.merged.length > 0),
  };
}

function editsBetween(before: Layer, after: Layer): Edit[] {
  const edits: Edit[] = [];
  if (before.span !== after.span) edits.push({ type: 'set-layer', layer: before.id, fields: { span: after.span } });
  for (const [channel, keys] of tracksOf(after)) {
    if (keys === before.tracks[channel]) continue;
    edits.push({ type: 'set-track', layer: before.id, channel, keys: [...keys] });
  }
  return edits;
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
  readonly item: LibraryItem;
  readonly compiled: CompiledPreset;
}

function findPreset(shelf: Shelf, recipe: Recipe, compile: CompilePreset): FoundPreset | Finding {
  const item = shelf.get(recipe.preset.id);
  if (!item) return { code: 'unknown-preset', id: recipe.preset.id };
  if (item.body.phase !== PHASE_OF[recipe.operation]) {
    return { code: 'wrong-phase', preset: item.name, phase: item.body.phase, operation: recipe.operation };
  }
  const result = compile(item.body);
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
    compileVariation(entry, recipe.parameters[entry.parameter.name]),
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
  const findings = [...findingsOf(scene, recipe, outcomes, context.runId), ...chosen.findings, ...leftAlone];
  return assemble(scene, shelf, recipe, found.item, context, outcomes, findings);
}

function assemble(
  scene: Scene,
  shelf: Shelf,
  recipe: Recipe,
  item: LibraryItem,
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
