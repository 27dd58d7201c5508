import { compileFormula, describeFormulaProblem, type CompiledFormula, type Scope } from '../formula';
import type { Oklab } from '../colour';
import {
  isNumberKind,
  readValue,
  runScope,
  typeOfKind,
  type CompiledParameter,
  type Lookup,
  type ParameterValue,
} from '../preset';
import { randomAt, seedFromText } from '../random';
import { progressOf } from '../easing';
import type { Finding } from '../finding';
import type { Variation } from '../recipe';
import type { Layer } from '../scene';

/** Who a layer is, for a parameter that varies. */
export interface Turn {
  readonly place: number;
  /** 0…1 along the order. */
  readonly share: number;
  readonly layer: Layer;
}

/** Value of a parameter for one layer; `inputs` are those of the preset's formulas. */
export type ParameterSource = (inputs: Float64Array, turn: Turn) => ParameterValue;

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

function sourceOf(variation: Variation, formulas: readonly CompiledFormula[]): ParameterSource {
  const mix = (inputs: Float64Array, u: number): number => {
    const [from, to] = formulas.map((formula) => formula.evaluate(inputs));
    return from + (to - from) * u;
  };
  switch (variation.by) {
    case 'fixed':
    case 'data':
      return (inputs) => formulas[0].evaluate(inputs);
    case 'cycle':
      return (inputs, { place }) => formulas[place % formulas.length].evaluate(inputs);
    case 'ramp':
    case 'random': {
      const share = shareOf(variation);
      return (inputs, turn) => mix(inputs, share(turn));
    }
  }
}

function mixColours(from: Oklab, to: Oklab, u: number): Oklab {
  const mix = (a: number, b: number): number => a + (b - a) * u;
  return { l: mix(from.l, to.l), a: mix(from.a, to.a), b: mix(from.b, to.b), alpha: mix(from.alpha, to.alpha) };
}

/** How a parameter that is no number varies: fixed, by turns, and colours also along the order and at random. */
function sourceOfValues(variation: Variation, values: readonly ParameterValue[]): ParameterSource | null {
  if (variation.by === 'fixed') return () => values[0];
  if (variation.by === 'cycle') return (_, { place }) => values[place % values.length];
  const [from, to] = values.map((value) => (typeof value === 'object' && 'colour' in value ? value.colour : null));
  if (!from || !to) return null;
  if (variation.by === 'data') return null;
  const share = shareOf(variation);
  return (_, turn) => ({ colour: mixColours(from, to, share(turn)) });
}

function standardSource({ standard, value }: CompiledParameter): ParameterSource {
  return value === null ? (inputs) => standard.evaluate(inputs) : () => value;
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
    source: (inputs, turn) => (read(turn.layer)?.source ?? standard)(inputs, turn),
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
