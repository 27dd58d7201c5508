import { gradientNoise, randomAt } from '../../basics/random';
import type { Op } from './kernels';
import type { Call } from './program';

/** How the units of a function's arguments and result hang together. */
export type Signature =
  /** Every argument plain, result plain. */
  | 'plain'
  /** One angle, result plain. */
  | 'from-angle'
  /** One plain number, result an angle. */
  | 'to-angle'
  /** All arguments of one unit, result of that unit. */
  | 'same'
  /** Any unit, result plain. */
  | 'sign'
  /** The square root of the unit. */
  | 'root'
  /** Two of one unit and a plain share, result of that unit. */
  | 'mix'
  /** Three of one unit, result plain. */
  | 'smooth'
  /** x, a, b of one unit; c, d of another, which is the result's. */
  | 'remap'
  /** A curve parameter and a plain share, result plain. */
  | 'ease';

/** A function of the formula language: how its units hang together, how many arguments it takes, and what it does. */
export interface FormulaFunction {
  readonly signature: Signature;
  readonly least: number;
  readonly most: number;
  readonly describe: string;
  /** Of numbers; those of any count are folded two by two. */
  readonly compute: Call;
  /** The kernel that does it on whole columns, where there is one. */
  readonly op?: Op;
}

const RADIANS = Math.PI / 180;

function fn(
  signature: Signature,
  count: number | readonly [number, number],
  describe: string,
  compute: Call,
  op?: Op,
): FormulaFunction {
  const [least, most] = typeof count === 'number' ? [count, count] : count;
  return { signature, least, most, describe, compute, ...(op === undefined ? {} : { op }) };
}

/** Smoothstep 3u² − 2u³, clamped. */
function smooth(from: number, to: number, x: number): number {
  if (from === to) return x < from ? 0 : 1;
  const u = Math.min(1, Math.max(0, (x - from) / (to - from)));
  return u * u * (3 - 2 * u);
}

/** x from the range a…b to the range c…d, going on beyond both ends; c where a = b. */
function remap(x: number, a: number, b: number, c: number, d: number): number {
  return a === b ? c : c + ((x - a) / (b - a)) * (d - c);
}

/** Every function that a formula may call. Angles come in and go out in degrees. */
export const FUNCTIONS: Readonly<Record<string, FormulaFunction>> = {
  sin: fn('from-angle', 1, 'sine of an angle', (x) => Math.sin(x * RADIANS)),
  cos: fn('from-angle', 1, 'cosine of an angle', (x) => Math.cos(x * RADIANS)),
  tan: fn('from-angle', 1, 'tangent of an angle', (x) => Math.tan(x * RADIANS)),
  atan: fn('to-angle', 1, 'angle whose tangent this is', (x) => Math.atan(x) / RADIANS),
  exp: fn('plain', 1, 'e to this power', (x) => Math.exp(x)),
  log: fn('plain', 1, 'natural logarithm', (x) => Math.log(x)),
  sqrt: fn('root', 1, 'square root', (x) => Math.sqrt(x)),
  abs: fn('same', 1, 'size without its sign', (x) => Math.abs(x)),
  sign: fn('sign', 1, '−1, 0 or 1', (x) => Math.sign(x)),
  min: fn('same', [1, 16], 'the least', Math.min, 'least'),
  max: fn('same', [1, 16], 'the greatest', Math.max, 'greatest'),
  clamp: fn('same', 3, 'value, least, greatest', (x, low, high) => Math.min(high, Math.max(low, x)), 'clamp'),
  mix: fn('mix', 3, 'from, to, share of the way', (a, b, u) => a + (b - a) * u, 'mix'),
  smooth: fn('smooth', 3, 'from, to, value: 0 to 1, soft at both ends', (a, b, x) => smooth(a, b, x), 'smooth'),
  remap: fn('remap', 5, 'value, from, to, new from, new to', remap),
  round: fn('same', 1, 'nearest whole number', (x) => Math.round(x)),
  floor: fn('same', 1, 'whole number below', (x) => Math.floor(x)),
  ceil: fn('same', 1, 'whole number above', (x) => Math.ceil(x)),
  ease: fn('ease', 2, 'a curve parameter, and a share of its time', (_curve, u) => u),
  noise: fn('plain', 2, 'smooth noise −1 to 1 at x, by seed', (x, seed) => gradientNoise(x, seed)),
  random: fn('plain', 1, 'a number from 0 to 1, by seed', (seed) => randomAt(seed, 0)),
};
