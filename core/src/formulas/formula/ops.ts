/** What one step of a program does with numbers: on one row, and as instructions of WebAssembly for many. */
export interface Operation {
  readonly of: (a: number, b: number, c: number) => number;
  /** What follows when the arguments lie on the stack, the last on top. Source: WebAssembly Core Specification 2.0, 5.4. */
  readonly code: readonly number[];
  /** Set where the last argument is pushed first, as the condition of `select` must lie on top. */
  readonly isChoice?: true;
}

/** f64.convert_i32_u: a comparison's yes or no as 1 or 0. */
const AS_NUMBER = 0xb8;
/** f64.const 0; f64.ne; select. */
const IS_NOT_ZERO_SELECT = [0x44, 0, 0, 0, 0, 0, 0, 0, 0, 0x62, 0x1b];

const parts = new DataView(new ArrayBuffer(8));
const LEAST_EXPONENT = -1022;
const MOST_EXPONENT = 1023;
const BIAS = 1023;

/** 2 to a whole power from −1022 to 1023, by its bits; beyond, that of the nearest end; 1 of what is no number. */
function twoToThe(exponent: number): number {
  const within = Math.min(MOST_EXPONENT, Math.max(LEAST_EXPONENT, exponent));
  const whole = Number.isNaN(within) ? 0 : Math.trunc(within);
  parts.setUint32(0, (whole + BIAS) << 20);
  parts.setUint32(4, 0);
  return parts.getFloat64(0);
}

function f64Const(value: number): number[] {
  const bytes = new DataView(new ArrayBuffer(8));
  bytes.setFloat64(0, value, true);
  return [0x44, ...new Uint8Array(bytes.buffer)];
}

/** All steps. Each is exact or correctly rounded by IEEE 754, so that every machine gives the same bits. */
export const OPERATIONS = {
  add: { of: (a, b) => a + b, code: [0xa0] },
  subtract: { of: (a, b) => a - b, code: [0xa1] },
  multiply: { of: (a, b) => a * b, code: [0xa2] },
  divide: { of: (a, b) => a / b, code: [0xa3] },
  least: { of: (a, b) => Math.min(a, b), code: [0xa4] },
  greatest: { of: (a, b) => Math.max(a, b), code: [0xa5] },
  absolute: { of: (a) => Math.abs(a), code: [0x99] },
  negate: { of: (a) => -a, code: [0x9a] },
  ceil: { of: (a) => Math.ceil(a), code: [0x9b] },
  floor: { of: (a) => Math.floor(a), code: [0x9c] },
  root: { of: (a) => Math.sqrt(a), code: [0x9f] },
  equal: { of: (a, b) => (a === b ? 1 : 0), code: [0x61, AS_NUMBER] },
  unequal: { of: (a, b) => (a !== b ? 1 : 0), code: [0x62, AS_NUMBER] },
  less: { of: (a, b) => (a < b ? 1 : 0), code: [0x63, AS_NUMBER] },
  greater: { of: (a, b) => (a > b ? 1 : 0), code: [0x64, AS_NUMBER] },
  atMost: { of: (a, b) => (a <= b ? 1 : 0), code: [0x65, AS_NUMBER] },
  atLeast: { of: (a, b) => (a >= b ? 1 : 0), code: [0x66, AS_NUMBER] },
  /** The second where the first is not 0, else the third. */
  choose: { of: (a, b, c) => (a !== 0 ? b : c), code: IS_NOT_ZERO_SELECT, isChoice: true },
  /** 2 to a whole power between −1022 and 1023: bits of a number, made by adding the bias and shifting. */
  twoToThe: {
    of: twoToThe,
    code: [
      ...f64Const(MOST_EXPONENT),
      0xa4,
      ...f64Const(LEAST_EXPONENT),
      0xa5,
      // i64.trunc_sat_f64_s; i64.const 1023; i64.add; i64.const 52; i64.shl; f64.reinterpret_i64
      ...[0xfc, 0x06, 0x42, 0xff, 0x07, 0x7c, 0x42, 52, 0x86, 0xbf],
    ],
  },
} as const satisfies Record<string, Operation>;

/** The name of a step. */
export type Op = keyof typeof OPERATIONS;
