import { COSINE_SERIES, EXPONENTIAL_SERIES, LN2_HIGH, LN2_LOW, seriesOf, SINE_SERIES } from '../../basics/maths';
import type { ProgramWriter } from './program';

/**
 * Sine, exponential and the like, made of steps that are correctly rounded: engines may choose the last digit of
 * `Math.sin`, and two machines must not differ.
 */

/** A value of a program, built of others. */
export type Build = (writer: ProgramWriter, ...args: readonly number[]) => number;

/** Adding and taking away 1.5 · 2⁵² rounds to the nearest whole number, halves to even (IEEE 754). */
const ROUNDER = 6_755_399_441_055_744;
const RADIANS = Math.PI / 180;

function nearest(writer: ProgramWriter, x: number): number {
  const far = writer.constant(ROUNDER);
  return writer.step('subtract', writer.step('add', x, far), far);
}

function polynomial(writer: ProgramWriter, x: number, coefficients: readonly number[]): number {
  const [first, ...rest] = [...coefficients].reverse().map((value) => writer.constant(value));
  return rest.reduce((sum, next) => writer.step('add', writer.step('multiply', sum, x), next), first);
}

/** Sine and cosine of degrees less whole quarter turns, and which quarter of the turn it is (0 … 3). */
function quarters(writer: ProgramWriter, degrees: number) {
  const w = writer;
  const turns = nearest(w, w.step('divide', degrees, w.constant(90)));
  const rest = w.step('subtract', degrees, w.step('multiply', turns, w.constant(90)));
  const x = w.step('multiply', rest, w.constant(RADIANS));
  const square = w.step('multiply', x, x);
  const cube = w.step('multiply', square, x);
  const sine = w.step('add', x, w.step('multiply', cube, polynomial(w, square, SINE_SERIES)));
  const flat = w.step('subtract', w.constant(1), w.step('multiply', square, w.constant(0.5)));
  const fourth = w.step('multiply', square, square);
  const cosine = w.step('add', flat, w.step('multiply', fourth, polynomial(w, square, COSINE_SERIES)));
  const four = w.constant(4);
  const quarter = w.step('subtract', turns, w.step('multiply', w.step('floor', w.step('divide', turns, four)), four));
  return { sine, cosine, quarter };
}

/** Sine of degrees; exact at whole quarter turns. */
export const sine: Build = (w, degrees) => {
  const { sine: s, cosine: c, quarter } = quarters(w, degrees);
  return byQuarter(w, quarter, s, c);
};

/** Cosine of degrees; exact at whole quarter turns. */
export const cosine: Build = (w, degrees) => {
  const { sine: s, cosine: c, quarter } = quarters(w, degrees);
  return byQuarter(w, quarter, c, w.step('negate', s));
};

/** Tangent of degrees. */
export const tangent: Build = (w, degrees) => w.step('divide', sine(w, degrees), cosine(w, degrees));

/** `even` in the first quarter, `odd` in the second, and both with the other sign half a turn on. */
function byQuarter(w: ProgramWriter, quarter: number, even: number, odd: number): number {
  const one = w.constant(1);
  const isOdd = w.step('choose', w.step('equal', quarter, one), one, w.step('equal', quarter, w.constant(3)));
  const value = w.step('choose', isOdd, odd, even);
  return w.step('choose', w.step('atLeast', quarter, w.constant(2)), w.step('negate', value), value);
}

/** Beyond these the result is past the greatest number, or nothing. */
const [LEAST_POWER, MOST_POWER] = [-746, 710];

/** e to a power: so many times ln 2, and a rest by a quotient of polynomials. Source: fdlibm, e_exp.c. */
export const exponential: Build = (w, power) => {
  const x = w.step('least', w.constant(MOST_POWER), w.step('greatest', w.constant(LEAST_POWER), power));
  const times = nearest(w, w.step('multiply', x, w.constant(1 / Math.LN2)));
  const high = w.step('subtract', x, w.step('multiply', times, w.constant(LN2_HIGH)));
  const low = w.step('multiply', times, w.constant(LN2_LOW));
  const rest = w.step('subtract', high, low);
  const square = w.step('multiply', rest, rest);
  const c = w.step('subtract', rest, w.step('multiply', square, polynomial(w, square, EXPONENTIAL_SERIES)));
  const quotient = w.step('divide', w.step('multiply', rest, c), w.step('subtract', w.constant(2), c));
  const value = w.step('subtract', w.constant(1), w.step('subtract', w.step('subtract', low, quotient), high));
  // In two halves, since 2 to a single power cannot be past the ends.
  const half = w.step('floor', w.step('multiply', times, w.constant(0.5)));
  const other = w.step('subtract', times, half);
  return w.step('multiply', w.step('multiply', value, w.step('twoToThe', half)), w.step('twoToThe', other));
};

/** Nearest whole number, halves upwards. */
export const rounded: Build = (w, x) => {
  const below = w.step('floor', x);
  const rest = w.step('subtract', x, below);
  return w.step('add', below, w.step('atLeast', rest, w.constant(0.5)));
};

/** −1, 0 or 1; of what is not a number, not a number. */
export const signOf: Build = (w, x) => {
  const zero = w.constant(0);
  const sign = w.step('subtract', w.step('greater', x, zero), w.step('less', x, zero));
  return w.step('choose', w.step('equal', x, x), sign, x);
};

/** What is left of a division, with the sign of the divisor. */
export const modulo: Build = (w, a, b) =>
  w.step('subtract', a, w.step('multiply', b, w.step('floor', w.step('divide', a, b))));

/** So much of the way from a to b. */
export const mixed: Build = (w, a, b, u) => w.step('add', a, w.step('multiply', w.step('subtract', b, a), u));

/** x, at least `low`, at most `high`; `high` where they cross. */
export const clamped: Build = (w, x, low, high) => w.step('least', high, w.step('greatest', low, x));

/** Smoothstep 3u² − 2u³ of the share that x is of the way, clamped; a step where there is no way. */
export const smoothed: Build = (w, from, to, x) => {
  const [zero, one] = [w.constant(0), w.constant(1)];
  const way = w.step('subtract', to, from);
  const past = w.step('subtract', x, from);
  const u = clamped(w, w.step('divide', past, way), zero, one);
  const soft = w.step(
    'multiply',
    w.step('multiply', u, u),
    w.step('subtract', w.constant(3), w.step('multiply', w.constant(2), u)),
  );
  return w.step('choose', w.step('equal', way, zero), w.step('atLeast', past, zero), soft);
};

/** x from the range a … b to the range c … d, going on beyond both ends; c where a = b. */
export const remapped: Build = (w, x, a, b, c, d) => {
  const share = w.step('divide', w.step('subtract', x, a), w.step('subtract', b, a));
  const there = w.step('add', c, w.step('multiply', share, w.step('subtract', d, c)));
  return w.step('choose', w.step('equal', a, b), c, there);
};

const bits = new DataView(new ArrayBuffer(8));
const TWO_54 = 2 ** 54;
const LOGARITHM = [
  6.66666666666673513e-1, 3.999999999940941908e-1, 2.857142874366239149e-1, 2.222219843214978396e-1,
  1.818357216161805012e-1, 1.531383769920937332e-1, 1.479819860511658591e-1,
];

/** Natural logarithm; not a number below 0, −∞ at 0. Source: fdlibm, e_log.c (the same series, without its short cuts). */
export function logarithm(x: number): number {
  if (!(x > 0) || x === Infinity) return x === 0 ? -Infinity : x === Infinity ? Infinity : NaN;
  const isTiny = x < 2 ** -1022;
  bits.setFloat64(0, isTiny ? x * TWO_54 : x);
  let exponent = ((bits.getUint32(0) >>> 20) & 0x7ff) - 1023 - (isTiny ? 54 : 0);
  bits.setUint32(0, (bits.getUint32(0) & 0xfffff) | (1023 << 20));
  let part = bits.getFloat64(0);
  if (part > Math.SQRT2) {
    part /= 2;
    exponent++;
  }
  const f = part - 1;
  const s = f / (2 + f);
  const z = s * s;
  const half = 0.5 * f * f;
  const series = z * seriesOf(z, LOGARITHM);
  return exponent * LN2_HIGH - (half - (s * (half + series) + exponent * LN2_LOW) - f);
}

const ARC = [
  3.33333333333329318027e-1, -1.99999999998764832476e-1, 1.42857142725034663711e-1, -1.1111110405462355788e-1,
  9.09088713343650656196e-2, -7.69187620504482999495e-2, 6.66107313738753120669e-2, -5.83357013379057348645e-2,
  4.97687799461593236017e-2, -3.6531572744216915527e-2, 1.62858201153657823623e-2,
];
/** Angles whose tangents are 0.5, 1, 1.5 and ∞, the last digits apart. Source: fdlibm, s_atan.c. */
const ARC_HIGH = [
  4.63647609000806093515e-1, 7.85398163397448278999e-1, 9.82793723247329054082e-1, 1.570796326794896558,
];
const ARC_LOW = [
  2.26987774529616870924e-17, 3.06161699786838301793e-17, 1.39033110312309984516e-17, 6.12323399573676603587e-17,
];

/** The angle in degrees whose tangent this is. Source: fdlibm, s_atan.c. */
export function arcTangent(tangent: number): number {
  const size = Math.abs(tangent);
  if (Number.isNaN(size)) return NaN;
  const from = size < 0.4375 ? -1 : size < 0.6875 ? 0 : size < 1.1875 ? 1 : size < 2.4375 ? 2 : 3;
  const turned = [(2 * size - 1) / (2 + size), (size - 1) / (size + 1), (size - 1.5) / (1 + 1.5 * size), -1 / size];
  const x = from < 0 ? size : turned[from];
  const square = x * x;
  const series = x * square * seriesOf(square, ARC);
  const angle = from < 0 ? x - series : ARC_HIGH[from] - (series - ARC_LOW[from] - x);
  return (tangent < 0 ? -angle : angle) / RADIANS;
}

/** Whole powers up to this are products; others go by the logarithm, right to some 1e-13 of the value. */
const MOST_PRODUCTS = 1024;

/** A power; not a number where the base is below 0 and the exponent not whole. `exp` is the exponential. */
export function powerOf(base: number, exponent: number, exp: (x: number) => number): number {
  if (Number.isInteger(exponent) && Math.abs(exponent) <= MOST_PRODUCTS) {
    let value = 1;
    let square = base;
    for (let left = Math.abs(exponent); left > 0; left = Math.floor(left / 2)) {
      if (left % 2 === 1) value *= square;
      square *= square;
    }
    return exponent < 0 ? 1 / value : value;
  }
  if (exponent === 0.5) return Math.sqrt(base);
  if (base === 0) return exponent > 0 ? 0 : exponent < 0 ? Infinity : NaN;
  return exp(exponent * logarithm(base));
}
