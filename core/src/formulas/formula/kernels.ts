/**
 * One step of a program over a block of rows: a loop of its own for each, so that the engine makes each one quick. `D`
 * holds the registers; `A`, `B` and `C` are the registers or the inputs, each from its own place on.
 */
export type Kernel = (
  D: Float64Array,
  d: number,
  rows: number,
  A: Float64Array,
  a: number,
  B: Float64Array,
  b: number,
  C: Float64Array,
  c: number,
) => void;

/** What steps do with whole columns. */
export const KERNELS = {
  copy: (D, d, rows, A, a) => {
    for (let i = 0; i < rows; i++) D[d + i] = A[a + i];
  },
  negate: (D, d, rows, A, a) => {
    for (let i = 0; i < rows; i++) D[d + i] = -A[a + i];
  },
  not: (D, d, rows, A, a) => {
    for (let i = 0; i < rows; i++) D[d + i] = A[a + i] === 0 ? 1 : 0;
  },
  add: (D, d, rows, A, a, B, b) => {
    for (let i = 0; i < rows; i++) D[d + i] = A[a + i] + B[b + i];
  },
  subtract: (D, d, rows, A, a, B, b) => {
    for (let i = 0; i < rows; i++) D[d + i] = A[a + i] - B[b + i];
  },
  multiply: (D, d, rows, A, a, B, b) => {
    for (let i = 0; i < rows; i++) D[d + i] = A[a + i] * B[b + i];
  },
  divide: (D, d, rows, A, a, B, b) => {
    for (let i = 0; i < rows; i++) D[d + i] = A[a + i] / B[b + i];
  },
  power: (D, d, rows, A, a, B, b) => {
    for (let i = 0; i < rows; i++) D[d + i] = A[a + i] ** B[b + i];
  },
  modulo: (D, d, rows, A, a, B, b) => {
    for (let i = 0; i < rows; i++) D[d + i] = A[a + i] - B[b + i] * Math.floor(A[a + i] / B[b + i]);
  },
  less: (D, d, rows, A, a, B, b) => {
    for (let i = 0; i < rows; i++) D[d + i] = A[a + i] < B[b + i] ? 1 : 0;
  },
  greater: (D, d, rows, A, a, B, b) => {
    for (let i = 0; i < rows; i++) D[d + i] = A[a + i] > B[b + i] ? 1 : 0;
  },
  atMost: (D, d, rows, A, a, B, b) => {
    for (let i = 0; i < rows; i++) D[d + i] = A[a + i] <= B[b + i] ? 1 : 0;
  },
  atLeast: (D, d, rows, A, a, B, b) => {
    for (let i = 0; i < rows; i++) D[d + i] = A[a + i] >= B[b + i] ? 1 : 0;
  },
  equal: (D, d, rows, A, a, B, b) => {
    for (let i = 0; i < rows; i++) D[d + i] = A[a + i] === B[b + i] ? 1 : 0;
  },
  unequal: (D, d, rows, A, a, B, b) => {
    for (let i = 0; i < rows; i++) D[d + i] = A[a + i] !== B[b + i] ? 1 : 0;
  },
  and: (D, d, rows, A, a, B, b) => {
    for (let i = 0; i < rows; i++) D[d + i] = A[a + i] !== 0 && B[b + i] !== 0 ? 1 : 0;
  },
  or: (D, d, rows, A, a, B, b) => {
    for (let i = 0; i < rows; i++) D[d + i] = A[a + i] !== 0 || B[b + i] !== 0 ? 1 : 0;
  },
  least: (D, d, rows, A, a, B, b) => {
    for (let i = 0; i < rows; i++) D[d + i] = Math.min(A[a + i], B[b + i]);
  },
  greatest: (D, d, rows, A, a, B, b) => {
    for (let i = 0; i < rows; i++) D[d + i] = Math.max(A[a + i], B[b + i]);
  },
  choose: (D, d, rows, A, a, B, b, C, c) => {
    for (let i = 0; i < rows; i++) D[d + i] = A[a + i] !== 0 ? B[b + i] : C[c + i];
  },
  mix: (D, d, rows, A, a, B, b, C, c) => {
    for (let i = 0; i < rows; i++) D[d + i] = A[a + i] + (B[b + i] - A[a + i]) * C[c + i];
  },
  clamp: (D, d, rows, A, a, B, b, C, c) => {
    for (let i = 0; i < rows; i++) D[d + i] = Math.min(C[c + i], Math.max(B[b + i], A[a + i]));
  },
  /** Smoothstep 3u² − 2u³ of the share that C is of the way from A to B, clamped; a step where there is no way. */
  smooth: (D, d, rows, A, a, B, b, C, c) => {
    for (let i = 0; i < rows; i++) {
      const from = A[a + i];
      const way = B[b + i] - from;
      const past = C[c + i] - from;
      const u = way === 0 ? (past < 0 ? 0 : 1) : Math.min(1, Math.max(0, past / way));
      D[d + i] = u * u * (3 - 2 * u);
    }
  },
} as const satisfies Record<string, Kernel>;

/** The name of a kernel. */
export type Op = keyof typeof KERNELS;
