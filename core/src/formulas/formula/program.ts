import { OPERATIONS, type Op, type Operation } from './ops';

/** A function of numbers that a program calls, for what no step does. */
export type Call = (...args: number[]) => number;

/** One value of a program: an input by its place, a constant, or what comes of values before it. */
export type Value =
  | { readonly type: 'input'; readonly place: number }
  | { readonly type: 'constant'; readonly value: number }
  | { readonly type: 'step'; readonly op: Op; readonly args: readonly number[] }
  | { readonly type: 'call'; readonly call: Call; readonly args: readonly number[] };

/** A formula as values, each made once of those before it. */
export interface Program {
  readonly values: readonly Value[];
  /** Which value is the formula's. */
  readonly result: number;
}

/**
 * Inputs of a scope for many rows: input p of row r stands at p · `stride` + r, so that each input is one piece. One row
 * alone has stride 1.
 */
export interface Columns {
  readonly values: Float64Array;
  readonly stride: number;
}

/** Works out one row; allocates nothing. */
export type RunRow = (columns: Columns, row: number) => number;

/** A row of which some inputs stay as they are, by their places. */
export interface FixedInputs {
  readonly columns: Columns;
  readonly row: number;
  readonly places: ReadonlySet<number>;
}

/** What a value of a program is where it never changes; null where it may. */
function fixedValue(value: Value, known: Float64Array, isFixed: Uint8Array, fixed: FixedInputs | null): number | null {
  if (value.type === 'constant') return value.value;
  if (fixed === null) return null;
  if (value.type === 'input') {
    const { columns, row, places } = fixed;
    return places.has(value.place) ? columns.values[value.place * columns.stride + row] : null;
  }
  if (value.args.length === 0 || value.args.some((arg) => isFixed[arg] === 0)) return null;
  const { of } = stepOf(value, 0);
  return of(...value.args.map((arg) => known[arg]));
}

/** Makes a program ready to be worked out row by row; for one row alone, what of it never changes is worked out once. */
export function prepareRow({ values, result }: Program, fixed: FixedInputs | null = null): RunRow {
  const known = new Float64Array(values.length);
  const isFixed = new Uint8Array(values.length);
  values.forEach((value, i) => {
    const own = fixedValue(value, known, isFixed, fixed);
    if (own === null) return;
    known[i] = own;
    isFixed[i] = 1;
  });
  const made = values.flatMap((value, i) => (value.type === 'constant' || isFixed[i] === 1 ? [] : [stepOf(value, i)]));
  return ({ values: inputs, stride }, row) => {
    for (const { into, place, of, count, a, b, c, d, e } of made) {
      // No more arguments than are taken: each that is passed costs.
      if (place >= 0) known[into] = inputs[place * stride + row];
      else if (count === 1) known[into] = of(known[a]);
      else if (count === 2) known[into] = of(known[a], known[b]);
      else if (count === 3) known[into] = of(known[a], known[b], known[c]);
      else known[into] = of(known[a], known[b], known[c], known[d], known[e]);
    }
    return known[result];
  };
}

/** A value of a program with all that it takes as numbers: the place of an input, or a function and the values that it is given. */
interface RowStep {
  readonly into: number;
  /** −1: no input. */
  readonly place: number;
  readonly of: Call;
  readonly count: number;
  readonly a: number;
  readonly b: number;
  readonly c: number;
  readonly d: number;
  readonly e: number;
}

function stepOf(value: Exclude<Value, { type: 'constant' }>, into: number): RowStep {
  if (value.type === 'input') return { into, place: value.place, of: () => 0, count: 0, a: 0, b: 0, c: 0, d: 0, e: 0 };
  const [a, b = 0, c = 0, d = 0, e = 0] = value.args;
  const of = value.type === 'call' ? value.call : ((OPERATIONS[value.op] as Operation).of as Call);
  return { into, place: -1, of, count: value.args.length, a, b, c, d, e };
}

/** Writes the values of a program, each of them once: what was worked out before is found again. */
export class ProgramWriter {
  readonly values: Value[] = [];
  private readonly found = new Map<string, number>();

  /** A number. */
  constant(value: number): number {
    return this.once(`is ${Object.is(value, -0) ? '-0' : value}`, { type: 'constant', value });
  }

  /** The input at a place. */
  input(place: number): number {
    return this.once(`in ${place}`, { type: 'input', place });
  }

  /** What a step gives of values; of constants it is a constant. */
  step(op: Op, ...args: readonly number[]): number {
    const numbers = args.map((arg) => this.values[arg]);
    const fixed = numbers.flatMap((value) => (value.type === 'constant' ? [value.value] : []));
    if (fixed.length === args.length) {
      return this.constant((OPERATIONS[op] as Operation).of(fixed[0], fixed[1], fixed[2]));
    }
    return this.once(`${op} ${args.join()}`, { type: 'step', op, args });
  }

  /** What a function gives of values. It must give the same for the same arguments while the program lives. */
  call(call: Call, ...args: readonly number[]): number {
    return this.values.push({ type: 'call', call, args }) - 1;
  }

  private once(name: string, value: Value): number {
    const known = this.found.get(name);
    if (known !== undefined) return known;
    const index = this.values.push(value) - 1;
    this.found.set(name, index);
    return index;
  }
}
