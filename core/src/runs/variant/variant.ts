import { compileFormula } from '../../formulas/formula';
import { isNumberKind, runScope, typeOfKind, type Parameter } from '../../formulas/preset';
import { randomAt, seedFromText } from '../../basics/random';
import type { PresetRecipe, Variation } from '../../scene/recipe';

/** Something of a recipe that versions of it can differ in. */
export interface Knob {
  readonly id: 'order' | 'length' | 'preset' | `parameter:${string}`;
  readonly label: string;
  /** A seed is rolled; a value is drawn between the soft limits of its parameter. */
  readonly kind: 'seed' | 'value';
}

/** How versions of a recipe are made. */
export interface VariantWishes {
  readonly count: number;
  readonly seed: number;
  /** Knobs that keep what they have. */
  readonly locked: ReadonlySet<string>;
  /** Name of a parameter that goes evenly from its lower to its upper soft limit instead. */
  readonly sweep: string | null;
}

const MOST_SEED = 10_000;
const FRAMES_A_SECOND = 25;
/** Unit of a kind, how many of it make one base unit, and to how many places it is said. */
const UNITS: Readonly<Partial<Record<Parameter['kind'], readonly [unit: string, factor: number, places: number]>>> = {
  time: ['f', FRAMES_A_SECOND, 0],
  percent: ['%', 100, 0],
  length: ['px', 1, 0],
  angle: ['deg', 1, 1],
  frequency: ['Hz', 1, 2],
  number: ['', 1, 2],
};

/** The soft limits of a number as numbers in base units; null without them. Frames count as at 25 a second, and are said as frames again. */
function softLimits({ kind, from, to }: Parameter): readonly [number, number] | null {
  if (!isNumberKind(kind) || from === undefined || to === undefined || UNITS[kind] === undefined) return null;
  const numbers = [from, to].map((text) => {
    const compiled = compileFormula(text, runScope(), typeOfKind(kind));
    if (!compiled.ok) return NaN;
    const inputs = new Float64Array(runScope().size);
    inputs[0] = 1 / FRAMES_A_SECOND;
    return compiled.compiled.evaluate(inputs);
  });
  return numbers.every(Number.isFinite) && numbers[0] !== numbers[1] ? [numbers[0], numbers[1]] : null;
}

function valueText({ kind }: Parameter, value: number): string {
  const [unit, factor, places] = UNITS[kind] ?? ['', 1, 2];
  return `${Number((value * factor).toFixed(places))}${unit}`;
}

/** What versions of a recipe can differ in: its seeds, and the parameters that have soft limits. */
export function knobsOf(recipe: PresetRecipe, parameters: readonly Parameter[]): Knob[] {
  const knobs: Knob[] = [];
  if (recipe.order.by === 'shuffled') knobs.push({ id: 'order', label: 'the order', kind: 'seed' });
  if (recipe.length.by === 'random') knobs.push({ id: 'length', label: 'the lengths', kind: 'seed' });
  for (const parameter of parameters) {
    const id = `parameter:${parameter.name}` as const;
    const isRandom = recipe.parameters[parameter.name]?.by === 'random';
    if (isRandom) knobs.push({ id, label: parameter.label, kind: 'seed' });
    else if (softLimits(parameter)) knobs.push({ id, label: parameter.label, kind: 'value' });
  }
  return [...knobs, { id: 'preset', label: 'the preset’s own seed', kind: 'seed' }];
}

function draw(seed: number, version: number, id: string): number {
  return randomAt(seed, seedFromText(`${version}/${id}`));
}

function rolledSeed(seed: number, version: number, id: string): number {
  return 1 + Math.floor(draw(seed, version, id) * MOST_SEED);
}

function withVariation(recipe: PresetRecipe, name: string, variation: Variation): PresetRecipe {
  return { ...recipe, parameters: { ...recipe.parameters, [name]: variation } };
}

function turn(
  recipe: PresetRecipe,
  knob: Knob,
  parameters: readonly Parameter[],
  seed: number,
  version: number,
): PresetRecipe {
  const { id } = knob;
  const rolled = rolledSeed(seed, version, id);
  switch (id) {
    case 'order':
      return recipe.order.by === 'shuffled' ? { ...recipe, order: { ...recipe.order, seed: rolled } } : recipe;
    case 'length':
      return recipe.length.by === 'random' ? { ...recipe, length: { ...recipe.length, seed: rolled } } : recipe;
    case 'preset':
      return { ...recipe, seed: rolled };
    default: {
      const name = id.slice('parameter:'.length);
      const standing = recipe.parameters[name];
      if (standing?.by === 'random') return withVariation(recipe, name, { ...standing, seed: rolled });
      const parameter = parameters.find((entry) => entry.name === name);
      const limits = parameter && softLimits(parameter);
      if (!parameter || !limits) return recipe;
      const value = limits[0] + (limits[1] - limits[0]) * draw(seed, version, id);
      return withVariation(recipe, name, { by: 'fixed', value: valueText(parameter, value) });
    }
  }
}

function swept(recipe: PresetRecipe, parameter: Parameter, share: number): PresetRecipe {
  const limits = softLimits(parameter);
  if (!limits) return recipe;
  const value = limits[0] + (limits[1] - limits[0]) * share;
  return withVariation(recipe, parameter.name, { by: 'fixed', value: valueText(parameter, value) });
}

/** Versions of a recipe: rolled by seed in every knob that is not locked, or one parameter swept. The same for the same seed. */
export function rollVariants(
  recipe: PresetRecipe,
  parameters: readonly Parameter[],
  wishes: VariantWishes,
): PresetRecipe[] {
  const { count, seed, locked, sweep } = wishes;
  const parameter = parameters.find(({ name }) => name === sweep);
  const knobs = knobsOf(recipe, parameters).filter(({ id }) => !locked.has(id));
  return Array.from({ length: count }, (_, version) =>
    parameter
      ? swept(recipe, parameter, count === 1 ? 0 : version / (count - 1))
      : knobs.reduce((turned, knob) => turn(turned, knob, parameters, seed, version), recipe),
  );
}

/** Parameters that can be swept: numbers with soft limits. */
export function sweepable(parameters: readonly Parameter[]): Parameter[] {
  return parameters.filter((parameter) => softLimits(parameter) !== null);
}
