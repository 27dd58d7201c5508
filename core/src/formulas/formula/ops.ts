/** What one step of a program does with numbers: on one row, and as instructions of WebAssembly on two rows side by side. */
export interface Operation {
  readonly of: (a: number, b: number, c: number) => number;
  /** What follows when the arguments lie on the stack, the last on top. Source: WebAssembly Core Specification 2.0, 5.4.8. */
  readonly code: readonly number[];
  /** Set where the last argument is pushed first, as the condition of `bitselect` must lie on top. */
  readonly isChoice?: true;
}

/** A vector instruction: its prefix, then its number, which takes two bytes from 128 on. */
export function vector(code: number): number[] {
  return code < 0x80 ? [0xfd, code] : [0xfd, (code % 0x80) | 0x80, code >> 7];
}

/** v128.const with the same number in both halves. */
export function bothHalves(value: number): number[] {
  const bytes = new DataView(new ArrayBuffer(8));
  bytes.setFloat64(0, value, true);
  const half = [...new Uint8Array(bytes.buffer)];
  return [...vector(0x0c), ...half, ...half];
}

/** v128.const with the same small whole number, not negative, in both halves. */
function wholeInBoth(value: number): number[] {
  const half = [value & 0xff, value >> 8, 0, 0, 0, 0, 0, 0];
  return [...vector(0x0c), ...half, ...half];
}

/** A comparison's all bits or none as 1 or 0: v128.and with 1. */
const AS_NUMBER = [...bothHalves(1), ...vector(0x4e)];
/** 0; f64x2.ne; v128.bitselect. */
const IS_NOT_ZERO_SELECT = [...bothHalves(0), ...vector(0x48), ...vector(0x52)];

const LEAST_EXPONENT = -1022;
const MOST_EXPONENT = 1023;
const BIAS = 1023;

/** 2 to each whole power from −1022 to 1023, made by its bits. Source: IEEE 754-2019, 3.4. */
const POWERS = Float64Array.from({ length: MOST_EXPONENT - LEAST_EXPONENT + 1 }, (_, i) => {
  const parts = new DataView(new ArrayBuffer(8));
  parts.setUint32(0, (i + LEAST_EXPONENT + BIAS) << 20);
  return parts.getFloat64(0);
});

/** 2 to a whole power from −1022 to 1023; beyond, that of the nearest end; 1 of what is no number. */
function twoToThe(exponent: number): number {
  if (exponent <= LEAST_EXPONENT) return POWERS[0];
  if (exponent >= MOST_EXPONENT) return POWERS[MOST_EXPONENT - LEAST_EXPONENT];
  // What is no number is 0 here.
  return POWERS[(exponent | 0) - LEAST_EXPONENT];
}

/** All steps. Each is exact or correctly rounded by IEEE 754, so that every machine gives the same bits. */
export const OPERATIONS = {
  add: { of: (a, b) => a + b, code: vector(0xf0) },
  subtract: { of: (a, b) => a - b, code: vector(0xf1) },
  multiply: { of: (a, b) => a * b, code: vector(0xf2) },
  divide: { of: (a, b) => a / b, code: vector(0xf3) },
  least: { of: (a, b) => Math.min(a, b), code: vector(0xf4) },
  greatest: { of: (a, b) => Math.max(a, b), code: vector(0xf5) },
  absolute: { of: (a) => Math.abs(a), code: vector(0xec) },
  negate: { of: (a) => -a, code: vector(0xed) },
  ceil: { of: (a) => Math.ceil(a), code: vector(0x74) },
  floor: { of: (a) => Math.floor(a), code: vector(0x75) },
  root: { of: (a) => Math.sqrt(a), code: vector(0xef) },
  equal: { of: (a, b) => (a === b ? 1 : 0), code: [...vector(0x47), ...AS_NUMBER] },
  unequal: { of: (a, b) => (a !== b ? 1 : 0), code: [...vector(0x48), ...AS_NUMBER] },
  less: { of: (a, b) => (a < b ? 1 : 0), code: [...vector(0x49), ...AS_NUMBER] },
  greater: { of: (a, b) => (a > b ? 1 : 0), code: [...vector(0x4a), ...AS_NUMBER] },
  atMost: { of: (a, b) => (a <= b ? 1 : 0), code: [...vector(0x4b), ...AS_NUMBER] },
  atLeast: { of: (a, b) => (a >= b ? 1 : 0), code: [...vector(0x4c), ...AS_NUMBER] },
  /** The second where the first is not 0, else the third. */
  choose: { of: (a, b, c) => (a !== 0 ? b : c), code: IS_NOT_ZERO_SELECT, isChoice: true },
  /** 2 to a whole power between −1022 and 1023: bits of a number, made by adding the bias and shifting. */
  twoToThe: {
    of: twoToThe,
    code: [
      ...bothHalves(MOST_EXPONENT),
      ...vector(0xf4),
      ...bothHalves(LEAST_EXPONENT),
      ...vector(0xf5),
      // i32x4.trunc_sat_f64x2_s_zero; i64x2.extend_low_i32x4_s; with the bias added, i64x2.shl by 52.
      ...[...vector(0xfc), ...vector(0xc7), ...wholeInBoth(BIAS), ...vector(0xce), 0x41, 52, ...vector(0xcb)],
    ],
  },
} as const satisfies Record<string, Operation>;

/** The name of a step. */
export type Op = keyof typeof OPERATIONS;
