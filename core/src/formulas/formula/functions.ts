import { gradientNoise, randomAt } from '../../basics/random';
import {
  arcTangent,
  clamped,
  cosine,
  exponential,
  logarithm,
  mixed,
  remapped,
  rounded,
  signOf,
  sine,
  smoothed,
  tangent,
  type Build,
} from './maths';
import type { Op } from './ops';
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
  | 'ease'
  /** A name that can be read at other times, and a time; result of the name's unit. */
  | 'follow'
  /** A name that can be read at other times, a frequency, a plain damping; result of the name's unit. */
  | 'chase';

/** A function of the formula language: how its units hang together, how many arguments it takes, and what it does. */
export interface FormulaFunction {
  readonly signature: Signature;
  readonly least: number;
  readonly most: number;
  readonly describe: string;
  /** Writes what it gives; those of any count are folded two by two. */
  readonly build: Build;
}

/** One step does it. */
const step =
  (op: Op): Build =>
  (writer, ...args) =>
    writer.step(op, ...args);
/** A function of numbers does it. */
const call =
  (made: Call): Build =>
  (writer, ...args) =>
    writer.call(made, ...args);

function fn(
  signature: Signature,
  count: number | readonly [number, number],
  describe: string,
  build: Build,
): FormulaFunction {
  const [least, most] = typeof count === 'number' ? [count, count] : count;
  return { signature, least, most, describe, build };
}

/** Every function that a formula may call. Angles come in and go out in degrees. */
export const FUNCTIONS: Readonly<Record<string, FormulaFunction>> = {
  sin: fn('from-angle', 1, 'sine of an angle', sine),
  cos: fn('from-angle', 1, 'cosine of an angle', cosine),
  tan: fn('from-angle', 1, 'tangent of an angle', tangent),
  atan: fn('to-angle', 1, 'angle whose tangent this is', call(arcTangent)),
  exp: fn('plain', 1, 'e to this power', exponential),
  log: fn('plain', 1, 'natural logarithm', call(logarithm)),
  sqrt: fn('root', 1, 'square root', step('root')),
  abs: fn('same', 1, 'size without its sign', step('absolute')),
  sign: fn('sign', 1, '−1, 0 or 1', signOf),
  min: fn('same', [1, 16], 'the least', step('least')),
  max: fn('same', [1, 16], 'the greatest', step('greatest')),
  clamp: fn('same', 3, 'value, least, greatest', clamped),
  mix: fn('mix', 3, 'from, to, share of the way', mixed),
  smooth: fn('smooth', 3, 'from, to, value: 0 to 1, soft at both ends', smoothed),
  remap: fn('remap', 5, 'value, from, to, new from, new to', remapped),
  round: fn('same', 1, 'nearest whole number', rounded),
  floor: fn('same', 1, 'whole number below', step('floor')),
  ceil: fn('same', 1, 'whole number above', step('ceil')),
  ease: fn('ease', 2, 'a curve parameter, and a share of its time', (_writer, _curve, share) => share),
  follow: fn(
    'follow',
    2,
    'a channel so long ago, and how long: follow(leader.rotation, 3f)',
    (_writer, value) => value,
  ),
  chase: fn('chase', 3, 'a channel, pulled after by a spring: its pace, its damping', (_writer, value) => value),
  noise: fn('plain', 2, 'smooth noise −1 to 1 at x, by seed', call(gradientNoise)),
  random: fn(
    'plain',
    1,
    'a number from 0 to 1, by seed',
    call((seed) => randomAt(seed, 0)),
  ),
};
