import type { ChannelId } from '../../basics/channel';
import { createProgress, reverseEasing, type Easing } from '../../basics/easing';
import {
  compileFormula,
  describeFormulaProblem,
  type CompiledFormula,
  type CurveProgress,
  type FormulaProblem,
  type Scope,
  type ValueType,
} from '../formula';
import { NO_LOOKUP, type Lookup } from './lookup';
import {
  givenChannel,
  movementChannels,
  movementEase,
  movementFormulas,
  movementLabel,
  movementNumberType,
  type Movement,
} from './movement';
import type { PresetEasing } from './easing';
import type { Cell, Parameter, Preset } from './preset';
import { cellScope, isNumberKind, momentScope, runScope, typeOfChannel, typeOfKind } from './scope';
import { readValue, type ParameterValue } from './value';

/** The part of a preset that a formula belongs to. */
export type FormulaPlace =
  | { readonly part: 'parameter'; readonly name: string; readonly field: 'default' | 'min' | 'max' }
  | { readonly part: 'moment'; readonly moment: string }
  | { readonly part: 'cell'; readonly channel: ChannelId; readonly moment: string }
  | { readonly part: 'movement'; readonly movement: string; readonly field: string };

/** A problem in one formula or value of a preset, and where it stands. */
export interface PresetProblem {
  readonly place: FormulaPlace;
  readonly where: string;
  readonly source: string;
  /** What is wrong and what to do, as a sentence. */
  readonly message: string;
  /** Set for a formula, with the place in its text. */
  readonly problem: FormulaProblem | null;
}

/** A parameter with its default and limits ready to run. */
export interface CompiledParameter {
  readonly parameter: Parameter;
  /** The default as it counts now: of a tied parameter what the house value is. */
  readonly text: string;
  /** Gives the default of a number; for other kinds `value` is it. */
  readonly standard: CompiledFormula;
  readonly value: ParameterValue | null;
  readonly min: CompiledFormula | null;
  readonly max: CompiledFormula | null;
}

/** An easing that is ready to be given to a key, or the curve parameter that says it. */
export type CompiledEase = Easing | Extract<PresetEasing, { type: 'parameter' }>;

/** A key of a row: its moment, its slot, its value and the easing to the next. */
export interface CompiledCell {
  readonly moment: number;
  readonly slot: string;
  readonly value: CompiledFormula;
  readonly ease: CompiledEase;
}

/** A row of a preset: one channel, its cells, and the switch that it hangs on. */
export interface CompiledRow {
  readonly channel: ChannelId;
  readonly when: string | null;
  readonly cells: readonly CompiledCell[];
}

/** A movement whose formulas are ready to run. */
export interface CompiledMovement {
  readonly movement: Movement;
  readonly channels: readonly ChannelId[];
  readonly when: string | null;
  /** The moments at which it sets out and ends, by their places; null where it ends by itself. */
  readonly from: number;
  readonly to: number | null;
  /** Its formulas by field. */
  readonly formulas: ReadonlyMap<string, CompiledFormula>;
  /** Fields that read what a channel rests at. */
  readonly ofChannel: ReadonlySet<string>;
  readonly ease: CompiledEase | null;
}

/** Curves that inputs of kind curve count; grows as new ones are set. */
export interface CurveTable {
  readonly easings: Easing[];
  readonly progress: CurveProgress[];
}

/** A library item that a preset took something from, and the revision that stood then. */
export interface UsedItem {
  readonly id: string;
  readonly revision: number;
}

/** A preset whose formulas are checked and ready to run. */
export interface CompiledPreset {
  readonly preset: Preset;
  readonly lookup: Lookup;
  readonly scope: Scope;
  readonly curves: CurveTable;
  readonly parameters: readonly CompiledParameter[];
  readonly moments: readonly CompiledFormula[];
  readonly rows: readonly CompiledRow[];
  readonly movements: readonly CompiledMovement[];
  readonly uses: readonly UsedItem[];
}

/** A compiled preset, or everything that is wrong with it and what is left without that. */
export type CompilePresetResult =
  | { readonly ok: true; readonly compiled: CompiledPreset }
  /** `rest` is the preset without what is wrong in it, so that it can be shown while it is being mended. */
  | { readonly ok: false; readonly problems: readonly PresetProblem[]; readonly rest: CompiledPreset };

const NEVER: CompiledFormula = {
  source: '0',
  evaluate: () => 0,
  run: (_columns, _from, count, out) => void out.fill(0, 0, count),
  reads: new Set(),
  inputs: new Set(),
  createRow: () => () => 0,
};

interface Place {
  readonly place: FormulaPlace;
  readonly where: string;
}

/** Compiles formulas one after the other and gathers what is wrong with them, and what they took from the library. */
function createGatherer(lookup: Lookup) {
  const problems: PresetProblem[] = [];
  const uses = new Map<string, UsedItem>();
  const maybeFormula = (source: string, scope: Scope, type: ValueType, at: Place): CompiledFormula | null => {
    const result = compileFormula(source, scope, type);
    if (result.ok) return result.compiled;
    for (const problem of result.problems) {
      problems.push({ ...at, source, message: describeFormulaProblem(problem), problem });
    }
    return null;
  };
  const use = (id: string, revision: number): void => void uses.set(id, { id, revision });
  return { problems, uses, maybeFormula, use, lookup };
}

type Gatherer = ReturnType<typeof createGatherer>;

function tiedText({ house, default: own }: Parameter, { lookup, use }: Gatherer): string {
  const found = house === undefined ? null : lookup.houseText(house);
  if (!found || house === undefined) return own;
  use(house, found.revision);
  return found.text;
}

function compileParameter(parameter: Parameter, gatherer: Gatherer): CompiledParameter {
  const { kind, name } = parameter;
  const text = tiedText(parameter, gatherer);
  const place = (field: 'default' | 'min' | 'max', words: string): Place => ({
    place: { part: 'parameter', name, field },
    where: `the ${words} of @${name}`,
  });
  if (!isNumberKind(kind)) {
    const read = readValue(parameter, text, gatherer.lookup);
    const at = place('default', 'default');
    if (!read.ok) gatherer.problems.push({ ...at, source: text, message: read.message, problem: null });
    return { parameter, text, standard: NEVER, value: read.ok ? read.value : null, min: null, max: null };
  }
  const scope = runScope();
  const formula = (source: string | undefined, at: Place): CompiledFormula | null =>
    source === undefined ? null : gatherer.maybeFormula(source, scope, typeOfKind(kind), at);
  return {
    parameter,
    text,
    standard: formula(text, place('default', 'default')) ?? NEVER,
    value: null,
    min: formula(parameter.min, place('min', 'least value')),
    max: formula(parameter.max, place('max', 'greatest value')),
  };
}

function compileEase(ease: PresetEasing, { lookup, use }: Gatherer): CompiledEase {
  if (ease.type !== 'curve') return ease;
  const found = lookup.curve(ease.id);
  use(ease.id, found?.revision ?? ease.revision);
  const easing = found?.easing ?? ease.is;
  return ease.reversed === true ? reverseEasing(easing) : easing;
}

function compileCell(
  { moment, value, ease }: Cell,
  channel: ChannelId,
  preset: Preset,
  scope: Scope,
  gatherer: Gatherer,
): CompiledCell[] {
  const index = preset.moments.findIndex(({ id }) => id === moment);
  const at: Place = {
    place: { part: 'cell', channel, moment },
    where: `${channel} at ${preset.moments[index].name}`,
  };
  const compiled = gatherer.maybeFormula(value, scope, typeOfChannel(channel), at);
  if (!compiled) return [];
  return [{ moment: index, slot: `${channel}/${moment}`, value: compiled, ease: compileEase(ease, gatherer) }];
}

function compileMovement(movement: Movement, preset: Preset, scope: Scope, gatherer: Gatherer): CompiledMovement {
  const channel = givenChannel(movement);
  const own = channel === null ? scope : cellScope(preset, channel, scope.curves ?? []);
  const placeOf = (id: string): number => preset.moments.findIndex((moment) => moment.id === id);
  const ofChannel = new Set<string>();
  const formulas = movementFormulas(movement).map(({ field, text, number }) => {
    const at: Place = {
      place: { part: 'movement', movement: movement.id, field },
      where: `${movementLabel(movement)}, ${number.label}`,
    };
    const isOfChannel = typeof number.type === 'string';
    if (isOfChannel) ofChannel.add(field);
    const type = movementNumberType(movement, number);
    return [field, gatherer.maybeFormula(text, isOfChannel ? own : scope, type, at) ?? NEVER] as const;
  });
  const ease = movementEase(movement);
  return {
    movement,
    channels: movementChannels(movement),
    when: movement.when ?? null,
    from: placeOf(movement.from),
    to: 'to' in movement ? placeOf(movement.to) : null,
    formulas: new Map(formulas),
    ofChannel,
    ease: ease && compileEase(ease, gatherer),
  };
}

/**
 * Checks and compiles every formula of a preset, with house values and curves from `lookup`. Fails with all problems
 * at once, each with its place. The preset's structure must be sound (`draftPresetSchema`).
 */
export function compilePreset(preset: Preset, lookup: Lookup = NO_LOOKUP): CompilePresetResult {
  const gatherer = createGatherer(lookup);
  const curves: CurveTable = { easings: [], progress: [] };
  const scope = momentScope(preset, curves.progress);
  const parameters = preset.parameters.map((parameter) => compileParameter(parameter, gatherer));
  const moments = preset.moments.map(({ id, name, at }) => {
    const place: Place = { place: { part: 'moment', moment: id }, where: `the time of moment ${name}` };
    return gatherer.maybeFormula(at, scope, typeOfKind('time'), place) ?? NEVER;
  });
  const rows = preset.rows.map(({ channel, when, cells }): CompiledRow => {
    const own = cellScope(preset, channel, curves.progress);
    return {
      channel,
      when: when ?? null,
      cells: cells.flatMap((cell) => compileCell(cell, channel, preset, own, gatherer)),
    };
  });
  const movements = (preset.movements ?? []).map((movement) => compileMovement(movement, preset, scope, gatherer));
  const { problems, uses } = gatherer;
  const compiled = { preset, lookup, scope, curves, parameters, moments, rows, movements, uses: [...uses.values()] };
  return problems.length > 0 ? { ok: false, problems, rest: compiled } : { ok: true, compiled };
}

/** A preset's problem as a sentence with its place. */
export function describePresetProblem({ where, source, message }: PresetProblem): string {
  return `In ${where}, “${source}”: ${message}`;
}

/** A way to compile presets. */
export type CompilePreset = (preset: Preset, lookup: Lookup) => CompilePresetResult;

/** Compiles each preset once for a lookup and keeps the result as long as both are kept. */
export function createPresetCompiler(): CompilePreset {
  const known = new WeakMap<Lookup, WeakMap<Preset, CompilePresetResult>>();
  return (preset, lookup) => {
    const ofLookup = known.get(lookup) ?? new WeakMap<Preset, CompilePresetResult>();
    known.set(lookup, ofLookup);
    const before = ofLookup.get(preset);
    if (before) return before;
    const result = compilePreset(preset, lookup);
    ofLookup.set(preset, result);
    return result;
  };
}

/** Place of a curve among those that inputs count; a new one is added. */
export function curveIndex({ easings, progress }: CurveTable, easing: Easing): number {
  const before = easings.indexOf(easing);
  if (before >= 0) return before;
  easings.push(easing);
  progress.push(easing.type === 'handles' ? (u) => u : createProgress(easing));
  return easings.length - 1;
}
