import { compileFormula, describeFormulaProblem, type CompiledFormula, type Scope } from '../formula';
import { runScope, typeOfKind, type CompiledParameter } from '../preset';
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

/** Value of a parameter for one layer, in base units; `inputs` are those of the preset's formulas. */
export type ParameterSource = (inputs: Float64Array, turn: Turn) => number;

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

/**
 * Prepares how a parameter varies over the layers of a run. Random values follow the layer's id, so that a layer that
 * joins later leaves the others as they were. A text that does not work gives the parameter's default and a finding.
 */
export function compileVariation(
  { parameter, standard }: CompiledParameter,
  variation: Variation | undefined,
  scope: Scope = runScope(),
): CompiledVariation {
  if (!variation) return { source: (inputs) => standard.evaluate(inputs), problem: null };
  const formulas: CompiledFormula[] = [];
  for (const text of textsOf(variation)) {
    const result = compileFormula(text, scope, typeOfKind(parameter.kind));
    if (!result.ok) {
      const message = describeFormulaProblem(result.problems[0]);
      const problem: Finding = { code: 'bad-field', field: parameter.label, text, message };
      return { source: (inputs) => standard.evaluate(inputs), problem };
    }
    formulas.push(result.compiled);
  }
  return { source: sourceOf(variation, formulas), problem: null };
}
