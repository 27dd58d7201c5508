import type { BinaryOperator, Node } from './ast';
import { checkFormula, type Checked } from './check';
import { UNITS } from './dimension';
import { FUNCTIONS } from './functions';
import { parseFormula } from './parse';
import type { FormulaProblem } from './problem';
import { KERNELS, type Op } from './kernels';
import { prepareProgram, type Call, type Program, type RunColumns, type Step } from './program';
import { CONSTANTS, FRAME_PLACE, type Scope, type ValueType } from './scope';

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
}

/** A compiled formula, or everything that is wrong with it. */
export type CompileResult =
  | { readonly ok: true; readonly compiled: CompiledFormula }
  | { readonly ok: false; readonly problems: readonly FormulaProblem[] };

const DEGREES = 180 / Math.PI;

const BINARY: Readonly<Record<BinaryOperator, Op>> = {
  '+': 'add',
  '-': 'subtract',
  '×': 'multiply',
  '÷': 'divide',
  '^': 'power',
  mod: 'modulo',
  '<': 'less',
  '>': 'greater',
  '≤': 'atMost',
  '≥': 'atLeast',
  '=': 'equal',
  '≠': 'unequal',
  and: 'and',
  or: 'or',
};

/** The input at a place, as an argument of steps. */
function input(place: number): number {
  return -1 - place;
}

/** Constants are numbered from here while steps are made, and moved behind the registers at the end. */
const FIRST_CONSTANT = 1_000_000;

/** Writes the steps of a formula. Registers: 0 the result, then one for each `let`, then those of what is under way. */
class Writer {
  readonly steps: Step[] = [];
  readonly constants: number[] = [];
  private readonly locals = new Map<string, number>();
  private most = 0;

  constructor(
    private readonly checked: Checked,
    private readonly lets: number,
  ) {}

  /** Writes a `let`, whose value stands in a register of its own from then on. */
  let(name: string, value: Node): void {
    const register = 1 + this.locals.size;
    this.result(value, register);
    this.locals.set(name, register);
  }

  /** Writes a node so that its value ends in a register. */
  result(node: Node, into: number): void {
    const arg = this.argument(node, this.firstFree);
    const last = this.steps.at(-1);
    // What was worked out last goes straight where it is wanted.
    if (last && arg >= this.firstFree && last.into === arg) this.steps.splice(-1, 1, { ...last, into });
    else this.step('copy', into, [arg]);
  }

  program(): Program {
    const registers = this.most + 1;
    const place = (arg: number): number => (arg >= FIRST_CONSTANT ? registers + arg - FIRST_CONSTANT : arg);
    return {
      steps: this.steps.map((step) => ({ ...step, args: step.args.map(place) })),
      registers: registers + this.constants.length,
      constants: this.constants,
      curves: this.checked.scope.curves,
    };
  }

  private get firstFree(): number {
    return 1 + this.lets;
  }

  private step(does: Step['does'], into: number, args: readonly number[]): number {
    const known = this.folded(does, args);
    if (known !== null) return known;
    this.most = Math.max(this.most, into);
    this.steps.push({ does, into, args });
    return into;
  }

  /** The constant that a kernel gives of constants; null where it depends on anything. */
  private folded(does: Step['does'], args: readonly number[]): number | null {
    if (typeof does !== 'string' || does === 'ease' || does === 'copy' || args.some((arg) => arg < FIRST_CONSTANT))
      return null;
    const [a, b, c] = [0, 1, 2].map((i) => Float64Array.of(this.constants[(args[i] ?? args[0]) - FIRST_CONSTANT]));
    const out = new Float64Array(1);
    KERNELS[does](out, 0, 1, a, 0, b, 0, c, 0);
    return this.constant(out[0]);
  }

  private constant(value: number): number {
    const known = this.constants.findIndex((one) => Object.is(one, value));
    return FIRST_CONSTANT + (known >= 0 ? known : this.constants.push(value) - 1);
  }

  /** Where the value of a node stands: an input, a constant, a `let`, or a register from `free` on. */
  private argument(node: Node, free: number): number {
    const arg = this.plain(node, free);
    if (this.checked.coercions.get(node) !== 'frames') return arg;
    return this.step('multiply', free, [arg, input(FRAME_PLACE)]);
  }

  private named(name: string): number {
    const local = this.locals.get(name);
    if (local !== undefined) return local;
    const place = this.checked.scope.places.get(name);
    return place === undefined ? this.constant(CONSTANTS[name].value) : input(place);
  }

  private quantity({ value, unit }: Extract<Node, { type: 'quantity' }>, free: number): number {
    if (unit === 'f') return this.step('multiply', free, [this.constant(value), input(FRAME_PLACE)]);
    return this.constant(value / UNITS[unit].per);
  }

  private plain(node: Node, free: number): number {
    switch (node.type) {
      case 'quantity':
        return this.quantity(node, free);
      case 'name':
        return this.named(node.name);
      case 'parameter':
        return this.named(`@${node.name}`);
      case 'unary':
        return this.step(node.operator === '-' ? 'negate' : 'not', free, [this.argument(node.operand, free)]);
      case 'binary':
        return this.step(BINARY[node.operator], free, this.args([node.left, node.right], free));
      case 'if':
        return this.step('choose', free, this.args([node.condition, node.then, node.otherwise], free));
      case 'call':
        return this.call(node, free);
    }
  }

  /** Arguments that stand beside each other: each later one keeps clear of the registers of those before. */
  private args(nodes: readonly Node[], free: number): number[] {
    let next = free;
    return nodes.map((node) => {
      const arg = this.argument(node, next);
      if (arg === next) next++;
      return arg;
    });
  }

  private call(node: Extract<Node, { type: 'call' }>, free: number): number {
    const { signature, compute, op } = FUNCTIONS[node.name];
    if (signature === 'ease') return this.ease(node.args, free);
    if (signature === 'from-angle') return this.step(compute, free, [this.angle(node.args[0], free)]);
    if (ROUNDING.has(node.name)) return this.rounding(compute, node.args[0], free);
    const args = this.args(node.args, free);
    if (op === undefined || op === 'mix' || op === 'clamp' || op === 'smooth')
      return this.step(op ?? compute, free, args);
    return args.slice(1).reduce((sum, arg) => this.step(op, free, [sum, arg]), args[0]);
  }

  private ease([curve, share]: readonly Node[], free: number): number {
    const place = this.checked.scope.places.get(`@${(curve as Extract<Node, { type: 'parameter' }>).name}`) as number;
    return this.step('ease', free, [input(place), this.argument(share, free)]);
  }

  private typeOf(node: Node): ValueType {
    return this.checked.types.get(node) as ValueType;
  }

  /** Angle functions take a plain number as radians, as mathematics does. */
  private angle(node: Node, free: number): number {
    const type = this.typeOf(node);
    const arg = this.argument(node, free);
    const isAngle = type.kind === 'number' && type.dimension[2] === 1;
    return isAngle ? arg : this.step('multiply', free, [arg, this.constant(DEGREES)]);
  }

  /** Rounding a time that is given in frames rounds to whole frames. */
  private rounding(compute: Call, node: Node, free: number): number {
    const type = this.typeOf(node);
    const arg = this.argument(node, free);
    if (type.kind !== 'number' || type.frames !== true) return this.step(compute, free, [arg]);
    const frames = this.step('divide', free, [arg, input(FRAME_PLACE)]);
    const whole = this.step(compute, free, [frames]);
    return this.step('multiply', free, [whole, input(FRAME_PLACE)]);
  }
}

const ROUNDING: ReadonlySet<string> = new Set(['round', 'floor', 'ceil']);

/** Turns a checked formula into a program over columns of the scope's inputs. It only reads; it never loops. */
export function compileChecked(checked: Checked): CompiledFormula {
  const { formula, reads } = checked;
  const writer = new Writer(checked, formula.lets.length);
  for (const { name, value } of formula.lets) writer.let(name, value);
  writer.result(formula.value, 0);
  const run = prepareProgram(writer.program());
  const one = new Float64Array(1);
  const evaluate: Evaluate = (values) => {
    run({ values, stride: 1 }, 0, 1, one);
    return one[0];
  };
  return { source: formula.source, evaluate, run, reads };
}

/** Reads, checks and compiles a formula for a place that needs a value of type `expected`. */
export function compileFormula(source: string, scope: Scope, expected: ValueType): CompileResult {
  const parsed = parseFormula(source);
  if (!parsed.ok) return parsed;
  const result = checkFormula(parsed.formula, scope, expected);
  return result.ok ? { ok: true, compiled: compileChecked(result.checked) } : result;
}
