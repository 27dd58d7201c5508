import {
  compileFormula,
  describeFormulaProblem,
  type Columns,
  type CompiledFormula,
  type Scope,
} from '../../formulas/formula';
import type { Oklab } from '../../basics/colour';
import {
  isNumberKind,
  readValue,
  runScope,
  typeOfKind,
  type CompiledParameter,
  type Lookup,
  type ParameterValue,
} from '../../formulas/preset';
import { randomAt, seedFromText } from '../../basics/random';
import { progressOf } from '../../basics/easing';
import type { Finding } from '../finding';
import type { Variation } from '../../scene/recipe';
import type { Layer } from '../../scene/layer';

/** Who a layer is, for a parameter that varies. */
export interface Turn {
  readonly place: number;
  /** 0…1 along the order. */
  readonly share: number;
  readonly layer: Layer;
}

/** Values of a parameter for layers: `columns` are the inputs of the preset's formulas, their rows in the order of the turns. */
export interface ParameterSource {
  /** Of a number, for all layers at once. */
  readonly numbers: ((columns: Columns, turns: readonly Turn[], out: Float64Array) => void) | null;
  /** Of a number or anything else, for one layer. */
  readonly value: (columns: Columns, row: number, turn: Turn) => ParameterValue;
}

/** How a parameter varies, ready to run, with what is wrong with it. */
export interface CompiledVariation {
  readonly source: ParameterSource;
  readonly problem: Finding | null;
  /** Whether a layer lacks the data that its value is read from; the default stands in. */
  readonly lacks?: (layer: Layer) => boolean;
}

/** Variation texts in the order in which the compiled ones are used. */
function textsOf(variation: Variation): readonly string[] {
  switch (variation.by) {
    case 'fixed':
      return [variation.value];
    case 'cycle':
      return variation.values;
    case 'ramp':
    case 'random':
      return [variation.from, variation.to];
    case 'data':
      return [];
  }
}

type Mixed = Extract<Variation, { by: 'ramp' | 'random' }>;

/** Deviations from the middle to each limit of a normal spread. */
const DEVIATIONS = 3;

/** Standard normal number from two even ones. Source: G. E. P. Box and M. E. Muller, 1958. */
function normalOf(u: number, v: number): number {
  return Math.sqrt(-2 * Math.log(1 - u)) * Math.cos(2 * Math.PI * v);
}

/** Share of the way for a layer in [0, 1]: along the order, or drawn by seed from the layer's id. */
function shareOf(variation: Mixed): (turn: Turn) => number {
  if (variation.by === 'ramp') {
    const { curve } = variation;
    const progress = progressOf(curve);
    return ({ share }) => progress(share);
  }
  const { seed, spread } = variation;
  if (spread !== 'normal') return ({ layer }) => randomAt(seed, seedFromText(layer.id));
  return ({ layer }) => {
    const index = seedFromText(layer.id);
    const normal = normalOf(randomAt(seed, index), randomAt(seed + 1, index));
    return Math.min(1, Math.max(0, 0.5 + normal / (2 * DEVIATIONS)));
  };
}

/** The value of a formula for one row. */
function one(formula: CompiledFormula, columns: Columns, row: number): number {
  const out = new Float64Array(1);
  formula.run(columns, row, 1, out);
  return out[0];
}

/** A source of numbers from formulas: how the formula's values, each for all layers, give one value a layer. */
function numbersOf(
  formulas: readonly CompiledFormula[],
  choose: (values: readonly ArrayLike<number>[], row: number, turn: Turn) => number,
): ParameterSource {
  return {
    numbers: (columns, turns, out) => {
      const values = formulas.map((formula) => {
        const column = new Float64Array(turns.length);
        formula.run(columns, 0, turns.length, column);
        return column;
      });
      for (let row = 0; row < turns.length; row++) out[row] = choose(values, row, turns[row]);
    },
    value: (columns, row, turn) =>
      choose(
        formulas.map((formula) => [one(formula, columns, row)]),
        0,
        turn,
      ),
  };
}

/** One formula for all. */
function fixedSource(formula: CompiledFormula): ParameterSource {
  return {
    numbers: (columns, turns, out) => formula.run(columns, 0, turns.length, out),
    value: (columns, row) => one(formula, columns, row),
  };
}

/** Anything that is no number. */
function valueSource(value: (turn: Turn) => ParameterValue): ParameterSource {
  return { numbers: null, value: (_columns, _row, turn) => value(turn) };
}

function sourceOf(variation: Variation, formulas: readonly CompiledFormula[]): ParameterSource {
  switch (variation.by) {
    case 'fixed':
    case 'data':
      return fixedSource(formulas[0]);
    case 'cycle':
      return numbersOf(formulas, (values, row, { place }) => values[place % values.length][row]);
    case 'ramp':
    case 'random': {
      const share = shareOf(variation);
      return numbersOf(formulas, ([from, to], row, turn) => from[row] + (to[row] - from[row]) * share(turn));
    }
  }
}

function mixColours(from: Oklab, to: Oklab, u: number): Oklab {
  const mix = (a: number, b: number): number => a + (b - a) * u;
  return { l: mix(from.l, to.l), a: mix(from.a, to.a), b: mix(from.b, to.b), alpha: mix(from.alpha, to.alpha) };
}

/** How a parameter that is no number varies: fixed, by turns, and colours also along the order and at random. */
function sourceOfValues(variation: Variation, values: readonly ParameterValue[]): ParameterSource | null {
  if (variation.by === 'fixed') return valueSource(() => values[0]);
  if (variation.by === 'cycle') return valueSource(({ place }) => values[place % values.length]);
  const [from, to] = values.map((value) => (typeof value === 'object' && 'colour' in value ? value.colour : null));
  if (!from || !to) return null;
  if (variation.by === 'data') return null;
  const share = shareOf(variation);
  return valueSource((turn) => ({ colour: mixColours(from, to, share(turn)) }));
}

function standardSource({ standard, value }: CompiledParameter): ParameterSource {
  return value === null ? fixedSource(standard) : valueSource(() => value);
}

function refuse(entry: CompiledParameter, text: string, message: string): CompiledVariation {
  const problem: Finding = { code: 'bad-field', field: entry.parameter.label, text, message };
  return { source: standardSource(entry), problem };
}

function compileValues(entry: CompiledParameter, variation: Variation, lookup: Lookup): CompiledVariation {
  const values: ParameterValue[] = [];
  for (const text of textsOf(variation)) {
    const read = readValue(entry.parameter, text, lookup);
    if (!read.ok) return refuse(entry, text, read.message);
    values.push(read.value);
  }
  const source = sourceOfValues(variation, values);
  if (source) return { source, problem: null };
  const { kind } = entry.parameter;
  return refuse(entry, variation.by, `A ${kind} has nothing in between. Choose one for all, or some by turns.`);
}

/** Text of a data cell as a literal of the parameter's kind: a plain number takes the kind's usual unit. */
function cellText(value: string | number | undefined): string {
  return String(value ?? '').trim();
}

const PLAIN = /^[+-]?\d+(\.\d+)?$/;
const UNITS: Readonly<Partial<Record<string, string>>> = {
  time: 'f',
  percent: '%',
  length: 'px',
  angle: 'deg',
  frequency: 'Hz',
};

/** Values from a data column, each different text read once. */
function compileData(entry: CompiledParameter, column: string, lookup: Lookup, scope: Scope): CompiledVariation {
  const unit = UNITS[entry.parameter.kind] ?? '';
  const known = new Map<string, CompiledVariation>();
  const read = (layer: Layer): CompiledVariation | null => {
    const cell = cellText(layer.data[column]);
    if (cell === '') return null;
    const text = PLAIN.test(cell) ? cell + unit : cell;
    const before = known.get(text) ?? compileVariation(entry, { by: 'fixed', value: text }, lookup, scope);
    known.set(text, before);
    return before.problem ? null : before;
  };
  const standard = standardSource(entry);
  return {
    source: {
      numbers: null,
      value: (columns, row, turn) => (read(turn.layer)?.source ?? standard).value(columns, row, turn),
    },
    problem: null,
    lacks: (layer) => read(layer) === null,
  };
}

/**
 * Prepares how a parameter varies over the layers of a run. Random values follow the layer's id, so that a layer that
 * joins later leaves the others as they were. A text that does not work gives the parameter's default and a finding.
 */
export function compileVariation(
  entry: CompiledParameter,
  variation: Variation | undefined,
  lookup: Lookup,
  scope: Scope = runScope(),
): CompiledVariation {
  const { kind } = entry.parameter;
  if (!variation) return { source: standardSource(entry), problem: null };
  if (variation.by === 'data') return compileData(entry, variation.column, lookup, scope);
  if (!isNumberKind(kind)) return compileValues(entry, variation, lookup);
  const formulas: CompiledFormula[] = [];
  for (const text of textsOf(variation)) {
    const result = compileFormula(text, scope, typeOfKind(kind));
    if (!result.ok) return refuse(entry, text, describeFormulaProblem(result.problems[0]));
    formulas.push(result.compiled);
  }
  return { source: sourceOf(variation, formulas), problem: null };
}
