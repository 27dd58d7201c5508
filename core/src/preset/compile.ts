import type { ChannelId } from '../channel';
import type { Easing } from '../easing';
import {
  compileFormula,
  describeFormulaProblem,
  type CompiledFormula,
  type FormulaProblem,
  type Scope,
  type ValueType,
} from '../formula';
import type { Parameter, Preset } from './preset';
import { cellScope, momentScope, runScope, typeOfChannel, typeOfKind } from './scope';

/** A problem in one formula of a preset, and which formula it is. */
export interface PresetProblem {
  readonly where: string;
  readonly source: string;
  readonly problem: FormulaProblem;
}

export interface CompiledParameter {
  readonly parameter: Parameter;
  readonly standard: CompiledFormula;
  readonly min: CompiledFormula | null;
  readonly max: CompiledFormula | null;
}

export interface CompiledCell {
  readonly moment: number;
  readonly slot: string;
  readonly value: CompiledFormula;
  readonly ease: Easing;
}

export interface CompiledRow {
  readonly channel: ChannelId;
  readonly when: string | null;
  readonly cells: readonly CompiledCell[];
}

/** A preset whose formulas are checked and ready to run. */
export interface CompiledPreset {
  readonly preset: Preset;
  readonly scope: Scope;
  readonly parameters: readonly CompiledParameter[];
  readonly moments: readonly CompiledFormula[];
  readonly rows: readonly CompiledRow[];
}

export type CompilePresetResult =
  | { readonly ok: true; readonly compiled: CompiledPreset }
  | { readonly ok: false; readonly problems: readonly PresetProblem[] };

const NEVER: CompiledFormula = { source: '0', evaluate: () => 0, reads: new Set() };

/** Compiles formulas one after the other and gathers what is wrong with them. */
function createGatherer() {
  const problems: PresetProblem[] = [];
  const gather = (source: string, scope: Scope, type: ValueType, where: string): CompiledFormula => {
    const result = compileFormula(source, scope, type);
    if (result.ok) return result.compiled;
    problems.push(...result.problems.map((problem) => ({ where, source, problem })));
    return NEVER;
  };
  return { problems, gather };
}

type Gather = ReturnType<typeof createGatherer>['gather'];

function compileParameter(parameter: Parameter, gather: Gather): CompiledParameter {
  const type = typeOfKind(parameter.kind);
  const scope = runScope();
  const limit = (source: string | undefined, what: string): CompiledFormula | null =>
    source === undefined ? null : gather(source, scope, type, `${what} of @${parameter.name}`);
  return {
    parameter,
    standard: gather(parameter.default, scope, type, `default of @${parameter.name}`),
    min: limit(parameter.min, 'least value'),
    max: limit(parameter.max, 'greatest value'),
  };
}

/** Checks and compiles every formula of a preset. Fails with all problems at once, each with its place. */
export function compilePreset(preset: Preset): CompilePresetResult {
  const { problems, gather } = createGatherer();
  const times = momentScope(preset);
  const parameters = preset.parameters.map((parameter) => compileParameter(parameter, gather));
  const timeType = typeOfKind('time');
  const moments = preset.moments.map(({ name, at }) => gather(at, times, timeType, `time of moment ${name}`));
  const rows = preset.rows.map(({ channel, when, cells }): CompiledRow => {
    const scope = cellScope(preset, channel);
    const compiled = cells.map(({ moment, value, ease }) => {
      const index = preset.moments.findIndex(({ id }) => id === moment);
      const where = `${channel} at ${preset.moments[index].name}`;
      const slot = `${channel}/${moment}`;
      return { moment: index, slot, value: gather(value, scope, typeOfChannel(channel), where), ease };
    });
    return { channel, when: when ?? null, cells: compiled };
  });
  if (problems.length > 0) return { ok: false, problems };
  return { ok: true, compiled: { preset, scope: times, parameters, moments, rows } };
}

/** A preset's problem as a sentence with its place. */
export function describePresetProblem({ where, source, problem }: PresetProblem): string {
  return `In the ${where}, “${source}”: ${describeFormulaProblem(problem)}`;
}

/** A way to compile presets. */
export type CompilePreset = (preset: Preset) => CompilePresetResult;

/** Compiles each preset once and keeps the result as long as the preset itself is kept. */
export function createPresetCompiler(): CompilePreset {
  const known = new WeakMap<Preset, CompilePresetResult>();
  return (preset) => {
    const before = known.get(preset);
    if (before) return before;
    const result = compilePreset(preset);
    known.set(preset, result);
    return result;
  };
}
