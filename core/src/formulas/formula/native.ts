import { bothHalves, OPERATIONS, vector, type Operation } from './ops';
import { prepareRow, type Call, type Columns, type Program, type Value } from './program';

/** Runs a program for rows `from` … `from + count − 1` and writes their results into `out` from its beginning. */
export type RunColumns = (columns: Columns, from: number, count: number, out: Float64Array) => void;

/** What of WebAssembly is used; the core knows neither browsers nor Node, and both have it. */
interface Machine {
  readonly Memory: new (size: { initial: number }) => { readonly buffer: ArrayBuffer };
  readonly Module: new (bytes: Uint8Array) => object;
  readonly Instance: new (
    module: object,
    imports: Readonly<Record<string, Readonly<Record<string, unknown>>>>,
  ) => { readonly exports: { readonly run: (bytes: number) => void } };
}

/** Rows that are worked on together; their inputs lie in the processor's nearest memory. */
const BLOCK = 256;
const PAGE = 65_536;
/** Rows that are worked out side by side, and the bytes that they take. */
const LANES = 2;
const STRIDE = LANES * 8;
/** The bytes that begin the types f64, i32 and v128. */
const [F64, I32, V128] = [0x7c, 0x7f, 0x7b];
/** Locals of the machine's function: the byte behind the last row, the byte of the first of two rows, then one for each value. */
const [END, AT, FIRST] = [0, 1, 2];

/** An unsigned number as the format writes it. Source: WebAssembly Core Specification 2.0, 5.2.2 (LEB128). */
function unsigned(value: number): number[] {
  const bytes: number[] = [];
  let left = value;
  do {
    const more = left > 127;
    bytes.push((left % 128) | (more ? 0x80 : 0));
    left = Math.floor(left / 128);
  } while (left > 0);
  return bytes;
}

function list(items: readonly (readonly number[])[]): number[] {
  return [...unsigned(items.length), ...items.flat()];
}

function section(id: number, content: readonly number[]): number[] {
  return [id, ...unsigned(content.length), ...content];
}

function text(name: string): number[] {
  return [name.length, ...[...name].map((letter) => letter.charCodeAt(0))];
}

const localGet = (local: number): number[] => [0x20, ...unsigned(local)];
const localSet = (local: number): number[] => [0x21, ...unsigned(local)];

/** Where the block of an input begins in the machine's memory, by its number among those that are read. */
const blockAt = (n: number): number[] => unsigned(n * BLOCK * 8);

interface Layout {
  /** Places of the inputs that are read; each has a block, and the result the one behind them. */
  readonly places: readonly number[];
  readonly calls: readonly Extract<Value, { type: 'call' }>[];
}

function layoutOf({ values }: Program): Layout {
  return {
    places: values.flatMap((value) => (value.type === 'input' ? [value.place] : [])),
    calls: values.flatMap((value) => (value.type === 'call' ? [value] : [])),
  };
}

/** Instructions that leave a value on the stack. */
function push(program: Program, index: number): number[] {
  const value = program.values[index];
  return value.type === 'constant' ? bothHalves(value.value) : localGet(FIRST + index);
}

/** Calls a function for one row after the other: f64x2.extract_lane each argument, call; f64x2.splat, then replace_lane. */
function called(program: Program, args: readonly number[], index: number): number[] {
  const once = (lane: number): number[] => [
    ...args.flatMap((arg) => [...push(program, arg), ...vector(0x21), lane]),
    ...[0x10, ...unsigned(index)],
  ];
  return [...once(0), ...vector(0x14), ...once(1), ...vector(0x22), 1];
}

function instructions(program: Program, { places, calls }: Layout): number[] {
  const pushed = (args: readonly number[]): number[] => args.flatMap((arg) => push(program, arg));
  const made = program.values.flatMap((value, i): number[] => {
    switch (value.type) {
      case 'constant':
        return [];
      case 'input':
        return [...localGet(AT), ...vector(0x00), 3, ...blockAt(places.indexOf(value.place)), ...localSet(FIRST + i)];
      case 'call':
        return [...called(program, value.args, calls.indexOf(value)), ...localSet(FIRST + i)];
      case 'step': {
        const { code, isChoice } = OPERATIONS[value.op] as Operation;
        const [condition, ...branches] = value.args;
        const args = isChoice ? [...branches, condition] : value.args;
        return [...pushed(args), ...code, ...localSet(FIRST + i)];
      }
    }
  });
  const store = [...localGet(AT), ...push(program, program.result), ...vector(0x0b), 3, ...blockAt(places.length)];
  const next = [...localGet(AT), 0x41, STRIDE, 0x6a, 0x22, AT, ...localGet(END), 0x49, 0x0d, 0];
  return [0x03, 0x40, ...made, ...store, ...next, 0x0b, 0x0b];
}

/** The program as a module: one function that works through the rows of a block, two by two. */
function moduleOf(program: Program, layout: Layout): Uint8Array {
  const { calls } = layout;
  const functionType = (args: number): number[] => [0x60, ...list(new Array(args).fill([F64])), 1, F64];
  const types = [[0x60, 1, I32, 0], ...[1, 2, 3, 4, 5].map(functionType)];
  const memory = [...text('m'), ...text('memory'), 0x02, 0x00, 1];
  const imports = calls.map(({ args }, i) => [...text('f'), ...text(String(i)), 0x00, args.length]);
  const locals = list([
    [1, I32],
    [...unsigned(program.values.length), V128],
  ]);
  const body = [...locals, ...instructions(program, layout)];
  return Uint8Array.from([
    ...[0, 0x61, 0x73, 0x6d, 1, 0, 0, 0],
    ...section(1, list(types)),
    ...section(2, list([memory, ...imports])),
    ...section(3, list([[0]])),
    ...section(7, list([[...text('run'), 0x00, ...unsigned(calls.length)]])),
    ...section(10, list([[...unsigned(body.length), ...body]])),
  ]);
}

/** Bytes of blocks that one memory serves all programs with; each fills it anew. */
let shared: { readonly memory: { readonly buffer: ArrayBuffer }; readonly view: Float64Array } | null = null;

/** The memory through which numbers go in and out, large enough for so many blocks. */
function memoryFor(machine: Machine, blocks: number) {
  const bytes = blocks * BLOCK * 8;
  if (shared === null || shared.memory.buffer.byteLength < bytes) {
    const memory = new machine.Memory({ initial: Math.max(4, Math.ceil(bytes / PAGE)) });
    shared = { memory, view: new Float64Array(memory.buffer) };
  }
  return shared;
}

/** Makes a program run as machine code; null where this engine has no WebAssembly or the page is not allowed it. */
export function prepareNative(program: Program): RunColumns | null {
  const machine = (globalThis as unknown as { readonly WebAssembly?: Machine }).WebAssembly;
  if (machine === undefined) return null;
  const layout = layoutOf(program);
  const { memory, view } = memoryFor(machine, layout.places.length + 1);
  try {
    const module = new machine.Module(moduleOf(program, layout));
    const functions = Object.fromEntries(layout.calls.map(({ call }, i): [string, Call] => [String(i), call]));
    const { run } = new machine.Instance(module, { m: { memory }, f: functions }).exports;
    return createRun(run, view, layout.places);
  } catch {
    return null;
  }
}

/** Makes a program run for many rows: as machine code where there is some, else row by row. */
export function prepareColumns(program: Program): RunColumns {
  const row = prepareRow(program);
  const rows: RunColumns = (columns, from, count, out) => {
    for (let i = 0; i < count; i++) out[i] = row(columns, from + i);
  };
  return prepareNative(program) ?? rows;
}

/** The pieces of columns that go into the blocks one after the other, kept for as long as the same columns are run. */
interface Cut {
  readonly values: Float64Array;
  readonly stride: number;
  readonly from: number;
  readonly count: number;
  /** For each block its inputs, in the order of their places, and then where its results lie. */
  readonly pieces: readonly Float64Array[];
}

function createRun(run: (bytes: number) => void, view: Float64Array, places: readonly number[]): RunColumns {
  const width = places.length + 1;
  const result = places.length * BLOCK;
  const cutOf = ({ values, stride }: Columns, from: number, count: number): Cut => {
    const pieces = Array.from({ length: Math.ceil(count / BLOCK) }, (_, block) => {
      const rows = Math.min(BLOCK, count - block * BLOCK);
      const begins = places.map((place) => place * stride + from + block * BLOCK);
      return [...begins.map((begin) => values.subarray(begin, begin + rows)), view.subarray(result, result + rows)];
    });
    return { values, stride, from, count, pieces: pieces.flat() };
  };
  const isFor = (cut: Cut, { values, stride }: Columns, from: number, count: number): boolean =>
    cut.values === values && cut.stride === stride && cut.from === from && cut.count === count;
  let cut: Cut | null = null;
  return (columns, from, count, out) => {
    if (cut === null || !isFor(cut, columns, from, count)) cut = cutOf(columns, from, count);
    const { pieces } = cut;
    for (let first = 0, start = 0; first < pieces.length; first += width, start += BLOCK) {
      const made = pieces[first + places.length];
      const rows = made.length;
      for (let n = 0; n < places.length; n++) {
        view.set(pieces[first + n], n * BLOCK);
        // Beside an odd last row stands the same once more.
        view[n * BLOCK + rows] = view[n * BLOCK + rows - 1];
      }
      run(rows * 8);
      out.set(made, start);
    }
  };
}
