import type { BinaryOperator, Node } from './ast';
import { checkFormula, type Checked } from './check';
import { UNITS } from './dimension';
import { FUNCTIONS } from './functions';
import { parseFormula } from './parse';
import type { FormulaProblem } from './problem';
import { exponential, modulo, powerOf, type Build } from './maths';
import { prepareNative, type RunColumns } from './native';
import type { Op } from './ops';
import { prepareRow, ProgramWriter, type FixedInputs, type Program, type RunRow } from './program';
import { CLOCK_NAME, CONSTANTS, FRAME_PLACE, ROW_NAME, type Scope, type ValueType } from './scope';

/** Reads the inputs of a scope (see `Scope`) and gives the value in base units: px, seconds, degrees. */
export type Evaluate = (inputs: Float64Array) => number;

/** A formula that is ready to run, for one set of inputs or for many rows. */
export interface CompiledFormula {
  readonly source: string;
  /** The value for one set of inputs. */
  readonly evaluate: Evaluate;
  /** Values for many rows at once, without allocating anything. */
  readonly run: RunColumns;
  /** What it depends on: names and "@parameters". */
  readonly reads: ReadonlySet<string>;
  /** Places of the inputs whose present value it needs; what it reads at other times only is not among them. */
  readonly inputs: ReadonlySet<number>;
  /** A runner for single rows with registers of its own, for a formula that is worked out within itself; or for one row alone. */
  readonly createRow: (fixed?: FixedInputs) => RunRow;
}

/** A compiled formula, or everything that is wrong with it. */
export type CompileResult =
  | { readonly ok: true; readonly compiled: CompiledFormula }
  | { readonly ok: false; readonly problems: readonly FormulaProblem[] };

const DEGREES = 180 / Math.PI;

const step =
  (op: Op): Build =>
  (writer, left, right) =>
    writer.step(op, left, right);

const BINARY: Readonly<Record<BinaryOperator, Build>> = {
  '+': step('add'),
  '-': step('subtract'),
  '×': step('multiply'),
  '÷': step('divide'),
  '^': (writer, base, exponent) => writer.call((x, y) => powerOf(x, y, powerOfE), base, exponent),
  mod: modulo,
  '<': step('less'),
  '>': step('greater'),
  '≤': step('atMost'),
  '≥': step('atLeast'),
  '=': step('equal'),
  '≠': step('unequal'),
  // Switches are 0 or 1.
  and: step('least'),
  or: step('greatest'),
};

const powerOfE = ((): ((x: number) => number) => {
  const writer = new ProgramWriter();
  const result = exponential(writer, writer.input(0));
  const run = prepareRow({ values: writer.values, result });
  const values = new Float64Array(1);
  return (x) => {
    values[0] = x;
    return run({ values, stride: 1 }, 0);
  };
})();

/** Writes the values of a checked formula. */
class FormulaWriter {
  private readonly out = new ProgramWriter();
  private readonly locals = new Map<string, number>();

  constructor(private readonly checked: Checked) {}

  program(): Program {
    const { lets, value } = this.checked.formula;
    for (const { name, value: local } of lets) this.locals.set(name, this.value(local));
    const result = this.value(value);
    return { values: this.out.values, result };
  }

  private value(node: Node): number {
    const plain = this.plain(node);
    if (this.checked.coercions.get(node) !== 'frames') return plain;
    return this.out.step('multiply', plain, this.frame);
  }

  private get frame(): number {
    return this.out.input(FRAME_PLACE);
  }

  private named(name: string): number {
    const local = this.locals.get(name);
    if (local !== undefined) return local;
    const place = this.checked.scope.places.get(name);
    return place === undefined ? this.out.constant(CONSTANTS[name].value) : this.out.input(place);
  }

  private quantity({ value, unit }: Extract<Node, { type: 'quantity' }>): number {
    if (unit === 'f') return this.out.step('multiply', this.out.constant(value), this.frame);
    return this.out.constant(value / UNITS[unit].per);
  }

  private plain(node: Node): number {
    switch (node.type) {
      case 'quantity':
        return this.quantity(node);
      case 'name':
        return this.named(node.name);
      case 'parameter':
        return this.named(`@${node.name}`);
      case 'unary': {
        const operand = this.value(node.operand);
        return node.operator === '-'
          ? this.out.step('negate', operand)
          : this.out.step('equal', operand, this.out.constant(0));
      }
      case 'binary':
        return BINARY[node.operator](this.out, this.value(node.left), this.value(node.right));
      case 'if':
        return this.out.step('choose', ...[node.condition, node.then, node.otherwise].map((part) => this.value(part)));
      case 'call':
        return this.call(node);
    }
  }

  private call(node: Extract<Node, { type: 'call' }>): number {
    const { signature, most, build } = FUNCTIONS[node.name];
    if (signature === 'ease') return this.ease(node.args);
    if (signature === 'follow' || signature === 'chase') return this.past(signature, node.args);
    if (signature === 'from-angle') return build(this.out, this.angle(node.args[0]));
    if (ROUNDING.has(node.name)) return this.rounding(build, node.args[0]);
    const args = node.args.map((arg) => this.value(arg));
    if (most > FEW) return args.slice(1).reduce((sum, arg) => build(this.out, sum, arg), args[0]);
    return build(this.out, ...args);
  }

  private ease([curve, share]: readonly Node[]): number {
    const { places, curves } = this.checked.scope;
    const place = places.get(`@${(curve as Extract<Node, { type: 'parameter' }>).name}`) as number;
    return this.out.call((which, u) => curves[which]?.(u) ?? u, this.out.input(place), this.value(share));
  }

  private past(how: 'follow' | 'chase', [name, ...rest]: readonly Node[]): number {
    const { past, places } = this.checked.scope;
    const source = past?.sources.get((name as Extract<Node, { type: 'name' }>).name) ?? -1;
    const [row, clock] = [ROW_NAME, CLOCK_NAME].map((hidden) => this.out.input(places.get(hidden) as number));
    const args = rest.map((node) => this.value(node));
    const reader = past?.reader;
    return how === 'follow'
      ? this.out.call((r, now, delay) => reader?.current?.follow(source, r, now, delay) ?? NaN, row, clock, ...args)
      : this.out.call(
          (r, now, pace, damping) => reader?.current?.chase(source, r, now, pace, damping) ?? NaN,
          row,
          clock,
          ...args,
        );
  }

  /** Angle functions take a plain number as radians, as mathematics does. */
  private angle(node: Node): number {
    const type = this.checked.types.get(node) as ValueType;
    const isAngle = type.kind === 'number' && type.dimension[2] === 1;
    const value = this.value(node);
    return isAngle ? value : this.out.step('multiply', value, this.out.constant(DEGREES));
  }

  /** Rounding a time that is given in frames rounds to whole frames. */
  private rounding(build: Build, node: Node): number {
    const type = this.checked.types.get(node) as ValueType;
    const value = this.value(node);
    if (type.kind !== 'number' || type.frames !== true) return build(this.out, value);
    const whole = build(this.out, this.out.step('divide', value, this.frame));
    return this.out.step('multiply', whole, this.frame);
  }
}

/** Functions of more arguments than this take as many as one likes. */
const FEW = 5;
const ROUNDING: ReadonlySet<string> = new Set(['round', 'floor', 'ceil']);
/** So few rows at a time are not worth the way into machine code and back. */
const FEW_ROWS = 12;
/** Making machine code takes about as long as working out so many rows one by one. */
const WORTH_MAKING = 4_000;

/** Turns a checked formula into a program over columns of the scope's inputs. It only reads; it never loops. */
export function compileChecked(checked: Checked): CompiledFormula {
  const { formula, reads } = checked;
  const program = new FormulaWriter(checked).program();
  const runRow = prepareRow(program);
  let native: RunColumns | null | undefined;
  let rows = 0;
  const evaluate: Evaluate = (values) => runRow({ values, stride: 1 }, 0);
  const run: RunColumns = (columns, from, count, out) => {
    if (count >= FEW_ROWS && native === undefined && (rows += count) >= WORTH_MAKING) native = prepareNative(program);
    if (count >= FEW_ROWS && native) return native(columns, from, count, out);
    for (let i = 0; i < count; i++) out[i] = runRow(columns, from + i);
  };
  const inputs = new Set(program.values.flatMap((value) => (value.type === 'input' ? [value.place] : [])));
  return { source: formula.source, evaluate, run, reads, inputs, createRow: (fixed) => prepareRow(program, fixed) };
}

/** Reads, checks and compiles a formula for a place that needs a value of type `expected`. */
export function compileFormula(source: string, scope: Scope, expected: ValueType): CompileResult {
  const parsed = parseFormula(source);
  if (!parsed.ok) return parsed;
  const result = checkFormula(parsed.formula, scope, expected);
  return result.ok ? { ok: true, compiled: compileChecked(result.checked) } : result;
}
