import { KERNELS, type Kernel, type Op } from './kernels';
import type { CurveProgress } from './scope';

/** A function of numbers that a program calls row by row, for what no kernel does. */
export type Call = (...args: number[]) => number;

/**
 * One step: registers are 0 and above, inputs below 0, the input at place p being −1 − p. It runs a kernel, calls a
 * function, or eases along the curve whose number its first argument is.
 */
export interface Step {
  readonly does: Op | Call | 'ease';
  readonly into: number;
  readonly args: readonly number[];
}

/** A formula as steps over columns. The last step writes the result into register 0. */
export interface Program {
  readonly steps: readonly Step[];
  /** Registers 0 … registers − 1; the last of them hold `constants`, which no step writes. */
  readonly registers: number;
  readonly constants: readonly number[];
  readonly curves: readonly CurveProgress[];
}

/**
 * Inputs of a scope for many rows: input p of row r stands at p · `stride` + r, so that each input is one piece. One row
 * alone has stride 1.
 */
export interface Columns {
  readonly values: Float64Array;
  readonly stride: number;
}

/** Runs a program for rows `from` … `from + count − 1` and writes their results into `out` from its beginning. */
export type RunColumns = (columns: Columns, from: number, count: number, out: Float64Array) => void;

/** Rows that are worked on together: registers of so many numbers stay in the processor's nearest memory. */
const BLOCK = 128;
/**
 * Numbers from one register to the next. Were it a power of two, registers would lie whole pages of 4096 bytes apart, and
 * a processor that has just written one waits before it reads at the same place of another.
 */
const ROOM = 192;

/** Makes a program ready to run. Its registers are allocated once; running allocates nothing. */
export function prepareProgram({ steps, registers, constants, curves }: Program): RunColumns {
  let room: Float64Array | null = null;
  const allocate = (): Float64Array => {
    const made = new Float64Array(registers * ROOM);
    constants.forEach((value, i) => {
      const register = registers - constants.length + i;
      made.fill(value, register * ROOM, (register + 1) * ROOM);
    });
    return made;
  };
  const kernels = steps.map(({ does }): Kernel | null =>
    typeof does === 'string' && does !== 'ease' ? KERNELS[does] : null,
  );
  return (columns, from, count, out) => {
    const own = (room ??= allocate());
    const { values, stride } = columns;
    for (let start = 0; start < count; start += BLOCK) {
      const rows = Math.min(BLOCK, count - start);
      const first = from + start;
      for (let s = 0; s < steps.length; s++) {
        const step = steps[s];
        const kernel = kernels[s];
        if (kernel === null) {
          runSlow(step, curves, own, columns, first, rows);
          continue;
        }
        const { args } = step;
        const x = args[0];
        const y = args.length > 1 ? args[1] : x;
        const z = args.length > 2 ? args[2] : x;
        const isResult = s === steps.length - 1;
        kernel(
          isResult ? out : own,
          isResult ? start : step.into * ROOM,
          rows,
          x < 0 ? values : own,
          x < 0 ? (-1 - x) * stride + first : x * ROOM,
          y < 0 ? values : own,
          y < 0 ? (-1 - y) * stride + first : y * ROOM,
          z < 0 ? values : own,
          z < 0 ? (-1 - z) * stride + first : z * ROOM,
        );
      }
      if (kernels[steps.length - 1] === null) for (let i = 0; i < rows; i++) out[start + i] = own[i];
    }
  };
}

/** Does a step that no kernel does, row by row. */
function runSlow(
  { does, into, args }: Step,
  curves: readonly CurveProgress[],
  own: Float64Array,
  { values, stride }: Columns,
  from: number,
  rows: number,
): void {
  const d = into * ROOM;
  const valueOf = (arg: number, i: number): number =>
    arg < 0 ? values[(-1 - arg) * stride + from + i] : own[arg * ROOM + i];
  if (does === 'ease') {
    for (let i = 0; i < rows; i++) {
      const u = valueOf(args[1], i);
      own[d + i] = curves[valueOf(args[0], i)]?.(u) ?? u;
    }
    return;
  }
  const call = does as Call;
  const [x, y, z, v, w] = args;
  switch (args.length) {
    case 1:
      for (let i = 0; i < rows; i++) own[d + i] = call(valueOf(x, i));
      return;
    case 2:
      for (let i = 0; i < rows; i++) own[d + i] = call(valueOf(x, i), valueOf(y, i));
      return;
    default:
      for (let i = 0; i < rows; i++) {
        own[d + i] = call(valueOf(x, i), valueOf(y, i), valueOf(z, i), valueOf(v, i), valueOf(w, i));
      }
  }
}
