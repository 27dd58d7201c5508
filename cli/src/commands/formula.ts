import {
  checkFormula,
  compileChecked,
  compileFormula,
  createScope,
  describeFormulaProblem,
  DIMENSIONS,
  frameTicks,
  nameOfDimension,
  numberOf,
  parseFormula,
  RUN_NAMES,
  SWITCH,
  TICKS_PER_SECOND,
  UNITS,
  type FormulaProblem,
  type ValueType,
} from '@wexikine/core';
import { Failure } from '../failure';
import { readRate } from './time-and-curve';

interface Given {
  readonly name: string;
  readonly type: ValueType;
  readonly value: number;
}

/** Reads "name=value" where the value is a literal such as 20%, 8f or on. */
function readGiven(text: string, frameSeconds: number): Given {
  const [, name, literal] = /^@?([A-Za-z][\w.]*)\s*=\s*(.+)$/.exec(text) ?? [];
  if (name === undefined) throw new Failure(`--with “${text}”: Write name=value, such as over=20%.`);
  if (literal === 'on' || literal === 'off') return { name, type: SWITCH, value: literal === 'on' ? 1 : 0 };
  const parsed = parseFormula(literal);
  const problem = (message: string): Failure => new Failure(`--with “${text}”: ${message}`);
  if (!parsed.ok) throw problem(describeFormulaProblem(parsed.problems[0]));
  const unit = /[a-zA-Z%°]+$/.exec(literal)?.[0] ?? '';
  const dimension = (Object.hasOwn(UNITS, unit) ? UNITS[unit] : UNITS['']).dimension;
  const type = numberOf(dimension, unit === 'f');
  const result = compileFormula(literal, createScope({}), type);
  if (!result.ok) throw problem(describeFormulaProblem(result.problems[0]));
  return { name, type, value: result.compiled.evaluate(Float64Array.of(frameSeconds)) };
}

function unitOf(type: ValueType): string {
  if (type.kind !== 'number') return 'yes or no';
  const base = Object.entries({ 'px ': DIMENSIONS.LENGTH, 's ': DIMENSIONS.TIME, 'deg ': DIMENSIONS.ANGLE }).find(
    ([, dimension]) => dimension.every((exponent, i) => exponent === type.dimension[i]),
  );
  return base ? base[0].trim() : nameOfDimension(type.dimension);
}

/** The result has whatever unit the formula gives, so each kind is tried and the first that fits is taken. */
function compileAny(text: string, names: Record<string, ValueType>, parameters: Record<string, ValueType>) {
  const scope = createScope(names, parameters);
  const parsed = parseFormula(text);
  if (!parsed.ok) throw describeAt(text, parsed.problems[0]);
  const free = checkFormula(parsed.formula, scope, numberOf(DIMENSIONS.PLAIN));
  if (free.ok) return { scope, checked: free.checked };
  const found = free.problems[0];
  if (found.code === 'result-unit') {
    const again = checkFormula(parsed.formula, scope, numberOf(found.found, true));
    if (again.ok) return { scope, checked: again.checked };
  }
  const asSwitch = checkFormula(parsed.formula, scope, SWITCH);
  if (asSwitch.ok) return { scope, checked: asSwitch.checked };
  throw describeAt(text, found);
}

function describeAt(text: string, problem: FormulaProblem): Failure {
  const { from, to } = problem.span;
  const line = text.replace(/\n/g, ' ');
  const mark = ' '.repeat(from) + '^'.repeat(Math.max(1, to - from));
  return new Failure(`${describeFormulaProblem(problem)}\n  ${line}\n  ${mark}`);
}

/** `wexikine formula`: the value of a formula; --with gives parameters (@name) and names alike. */
export function formulaCommand(text: string, given: readonly string[], rateText: string): string {
  const frameSeconds = frameTicks(readRate(rateText)) / TICKS_PER_SECOND;
  const values = given.map((entry) => readGiven(entry, frameSeconds));
  const parameters = Object.fromEntries(values.map(({ name, type }) => [name, type]));
  const names: Record<string, ValueType> = { ...RUN_NAMES, ...parameters };
  const { scope, checked } = compileAny(text, names, parameters);
  const inputs = new Float64Array(scope.size);
  inputs[0] = frameSeconds;
  for (const { name, value } of values) {
    inputs[scope.places.get(name) as number] = value;
    inputs[scope.places.get(`@${name}`) as number] = value;
  }
  const value = compileChecked(checked).evaluate(inputs);
  if (!Number.isFinite(value)) throw new Failure(`The value is not finite (${value}). Look for a division by zero.`);
  if (checked.type.kind === 'switch') return `${value === 0 ? 'no' : 'yes'}\n`;
  const unit = unitOf(checked.type);
  return `${Number(value.toPrecision(12))}${unit === 'a plain number' ? '' : ` ${unit}`}\n`;
}
