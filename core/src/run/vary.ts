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
import type { Finding } from './finding';
import type { Variation } from './recipe';

/** Who a layer is, for a parameter that varies. */
export interface Turn {
  readonly place: number;
  /** 0…1 along the order. */
  readonly share: number;
  readonly layer: string;
}

/** Value of a parameter for one layer; `inputs` are those of the preset's formulas. */
export type ParameterSource = (inputs: Float64Array, turn: Turn) => ParameterValue;

export interface CompiledVariation {
  readonly source: ParameterSource;
  readonly problem: Finding | null;
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
  }
}

function sourceOf(variation: Variation, formulas: readonly CompiledFormula[]): ParameterSource {
  const mix = (inputs: Float64Array, u: number): number => {
    const [from, to] = formulas.map((formula) => formula.evaluate(inputs));
    return from + (to - from) * u;
  };
  switch (variation.by) {
    case 'fixed':
      return (inputs) => formulas[0].evaluate(inputs);
    case 'cycle':
      return (inputs, { place }) => formulas[place % formulas.length].evaluate(inputs);
    case 'ramp':
      return (inputs, { share }) => mix(inputs, share);
    case 'random': {
      const { seed } = variation;
      return (inputs, { layer }) => mix(inputs, randomAt(seed, seedFromText(layer)));
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
  if (variation.by === 'ramp') return (_, { share }) => ({ colour: mixColours(from, to, share) });
  const { seed } = variation;
  return (_, { layer }) => ({ colour: mixColours(from, to, randomAt(seed, seedFromText(layer))) });
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
  if (!isNumberKind(kind)) return compileValues(entry, variation, lookup);
  const formulas: CompiledFormula[] = [];
  for (const text of textsOf(variation)) {
    const result = compileFormula(text, scope, typeOfKind(kind));
    if (!result.ok) return refuse(entry, text, describeFormulaProblem(result.problems[0]));
    formulas.push(result.compiled);
  }
  return { source: sourceOf(variation, formulas), problem: null };
}
