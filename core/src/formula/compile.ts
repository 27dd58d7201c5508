import type { BinaryOperator, Node } from './ast';
import { checkFormula, type Checked } from './check';
import { UNITS } from './dimension';
import { FUNCTIONS, modulo } from './functions';
import { parseFormula } from './parse';
import type { FormulaProblem } from './problem';
import { CONSTANTS, FRAME_PLACE, type Scope, type ValueType } from './scope';

/** Reads the inputs of a scope (see `Scope`) and gives the value in base units: px, seconds, degrees. */
export type Evaluate = (inputs: ArrayLike<number>) => number;

export interface CompiledFormula {
  readonly source: string;
  readonly evaluate: Evaluate;
  /** What it depends on: names and "@parameters". */
  readonly reads: ReadonlySet<string>;
}

export type CompileResult =
  | { readonly ok: true; readonly compiled: CompiledFormula }
  | { readonly ok: false; readonly problems: readonly FormulaProblem[] };

type Code = (inputs: ArrayLike<number>, locals: Float64Array) => number;

interface Target {
  readonly checked: Checked;
  readonly locals: ReadonlyMap<string, number>;
}

/** Never written to: a formula without `let` has no locals. */
const NO_LOCALS = new Float64Array(0);

const DEGREES = 180 / Math.PI;

const BINARY: Readonly<Record<BinaryOperator, (a: number, b: number) => number>> = {
  '+': (a, b) => a + b,
  '-': (a, b) => a - b,
  '×': (a, b) => a * b,
  '÷': (a, b) => a / b,
  '^': (a, b) => a ** b,
  mod: modulo,
  '<': (a, b) => Number(a < b),
  '>': (a, b) => Number(a > b),
  '≤': (a, b) => Number(a <= b),
  '≥': (a, b) => Number(a >= b),
  '=': (a, b) => Number(a === b),
  '≠': (a, b) => Number(a !== b),
  and: (a, b) => Number(a !== 0 && b !== 0),
  or: (a, b) => Number(a !== 0 || b !== 0),
};

function nameCode({ checked, locals }: Target, name: string): Code {
  const local = locals.get(name);
  if (local !== undefined) return (_inputs, values) => values[local];
  const place = checked.scope.places.get(name);
  if (place !== undefined) return (inputs) => inputs[place];
  const { value } = CONSTANTS[name];
  return () => value;
}

function quantityCode({ value, unit }: Extract<Node, { type: 'quantity' }>): Code {
  if (unit === 'f') return (inputs) => value * inputs[FRAME_PLACE];
  const size = value / UNITS[unit].per;
  return () => size;
}

function typeAt({ checked }: Target, node: Node): ValueType {
  return checked.types.get(node) as ValueType;
}

/** Angle functions take a plain number as radians, as mathematics does. */
function angleCode(target: Target, node: Node): Code {
  const type = typeAt(target, node);
  const code = generate(target, node);
  const isAngle = type.kind === 'number' && type.dimension[2] === 1;
  return isAngle ? code : (inputs, locals) => code(inputs, locals) * DEGREES;
}

/** Rounding a time that is given in frames rounds to whole frames. */
function roundingCode(compute: (args: readonly number[]) => number, arg: Code, type: ValueType): Code {
  const frames = type.kind === 'number' && type.frames === true;
  if (!frames) return (inputs, locals) => compute([arg(inputs, locals)]);
  return (inputs, locals) => compute([arg(inputs, locals) / inputs[FRAME_PLACE]]) * inputs[FRAME_PLACE];
}

const ROUNDING = ['round', 'floor', 'ceil'];

function easeCode(target: Target, [curve, share]: readonly Node[]): Code {
  const { scope } = target.checked;
  const place = scope.places.get(`@${(curve as Extract<Node, { type: 'parameter' }>).name}`) as number;
  const at = generate(target, share);
  return (inputs, locals) => {
    const u = at(inputs, locals);
    return scope.curves[inputs[place]]?.(u) ?? u;
  };
}

function callCode(target: Target, node: Extract<Node, { type: 'call' }>): Code {
  const { signature, compute } = FUNCTIONS[node.name];
  if (signature === 'ease') return easeCode(target, node.args);
  if (signature === 'from-angle') {
    const arg = angleCode(target, node.args[0]);
    return (inputs, locals) => compute([arg(inputs, locals)]);
  }
  const args = node.args.map((arg) => generate(target, arg));
  if (ROUNDING.includes(node.name)) return roundingCode(compute, args[0], typeAt(target, node.args[0]));
  return (inputs, locals) => compute(args.map((arg) => arg(inputs, locals)));
}

function plainCode(target: Target, node: Node): Code {
  switch (node.type) {
    case 'quantity':
      return quantityCode(node);
    case 'name':
      return nameCode(target, node.name);
    case 'parameter':
      return nameCode(target, `@${node.name}`);
    case 'unary': {
      const operand = generate(target, node.operand);
      if (node.operator === '-') return (inputs, locals) => -operand(inputs, locals);
      return (inputs, locals) => Number(operand(inputs, locals) === 0);
    }
    case 'binary': {
      const [left, right] = [generate(target, node.left), generate(target, node.right)];
      const compute = BINARY[node.operator];
      return (inputs, locals) => compute(left(inputs, locals), right(inputs, locals));
    }
    case 'if': {
      const [condition, then, otherwise] = [node.condition, node.then, node.otherwise].map((part) =>
        generate(target, part),
      );
      return (inputs, locals) => (condition(inputs, locals) !== 0 ? then : otherwise)(inputs, locals);
    }
    case 'call':
      return callCode(target, node);
  }
}

function generate(target: Target, node: Node): Code {
  const code = plainCode(target, node);
  if (target.checked.coercions.get(node) !== 'frames') return code;
  return (inputs, locals) => code(inputs, locals) * inputs[FRAME_PLACE];
}

/** Turns a checked formula into a function of the scope's inputs. It only reads; it never loops. */
export function compileChecked(checked: Checked): CompiledFormula {
  const { formula, reads } = checked;
  const locals = new Map<string, number>();
  const lines = formula.lets.map(({ name, value }) => {
    const code = generate({ checked, locals: new Map(locals) }, value);
    locals.set(name, locals.size);
    return code;
  });
  const value = generate({ checked, locals }, formula.value);
  if (lines.length === 0) return { source: formula.source, evaluate: (inputs) => value(inputs, NO_LOCALS), reads };
  const evaluate: Evaluate = (inputs) => {
    const values = new Float64Array(lines.length);
    lines.forEach((line, i) => (values[i] = line(inputs, values)));
    return value(inputs, values);
  };
  return { source: formula.source, evaluate, reads };
}

/** Reads, checks and compiles a formula for a place that needs a value of type `expected`. */
export function compileFormula(source: string, scope: Scope, expected: ValueType): CompileResult {
  const parsed = parseFormula(source);
  if (!parsed.ok) return parsed;
  const result = checkFormula(parsed.formula, scope, expected);
  return result.ok ? { ok: true, compiled: compileChecked(result.checked) } : result;
}
