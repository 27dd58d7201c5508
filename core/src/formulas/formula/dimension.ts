/** Exponents of length, time and angle: a speed in px/s is [1, −1, 0], a plain number [0, 0, 0]. */
export type Dimension = readonly [length: number, time: number, angle: number];

/** No unit. */
export const PLAIN: Dimension = [0, 0, 0];
/** Pixels. */
export const LENGTH: Dimension = [1, 0, 0];
/** Seconds. */
export const TIME: Dimension = [0, 1, 0];
/** Degrees. */
export const ANGLE: Dimension = [0, 0, 1];
/** Hertz: one over seconds. */
export const FREQUENCY: Dimension = [0, -1, 0];

/** True when two units can be added. */
export function sameDimension(a: Dimension, b: Dimension): boolean {
  return a[0] === b[0] && a[1] === b[1] && a[2] === b[2];
}

/** True for a number without a unit. */
export function isPlain(dimension: Dimension): boolean {
  return sameDimension(dimension, PLAIN);
}

/** Dimension of a product (sign 1) or a quotient (sign −1). */
export function combine(a: Dimension, b: Dimension, sign: 1 | -1): Dimension {
  return [a[0] + sign * b[0], a[1] + sign * b[1], a[2] + sign * b[2]];
}

/** Dimension of a power with a fixed exponent. */
export function power(a: Dimension, exponent: number): Dimension {
  return [a[0] * exponent, a[1] * exponent, a[2] * exponent];
}

const NAMES: readonly (readonly [Dimension, string])[] = [
  [PLAIN, 'a plain number'],
  [LENGTH, 'a length'],
  [TIME, 'a time'],
  [ANGLE, 'an angle'],
  [FREQUENCY, 'a frequency'],
  [[1, -1, 0], 'a speed'],
  [[0, -1, 1], 'a turning speed'],
  [[2, 0, 0], 'an area'],
];

const BASES = ['px', 's', 'deg'] as const;

/** A dimension in words: "a length", "an angle", or "a value in px²·s⁻¹". */
export function nameOfDimension(dimension: Dimension): string {
  const known = NAMES.find(([candidate]) => sameDimension(candidate, dimension));
  if (known) return known[1];
  const parts = BASES.flatMap((base, i) => (dimension[i] === 0 ? [] : [base + exponentText(dimension[i])]));
  return `a value in ${parts.join('·')}`;
}

const RAISED: Readonly<Record<string, string>> = Object.fromEntries(
  [...'-0123456789'].map((sign, i) => [sign, '⁻⁰¹²³⁴⁵⁶⁷⁸⁹'[i]]),
);

function exponentText(exponent: number): string {
  if (exponent === 1) return '';
  return Number.isInteger(exponent) ? [...String(exponent)].map((sign) => RAISED[sign]).join('') : `^${exponent}`;
}

/** Units that a literal may carry: dimension, and how many of it make one of px, s, deg. Frames depend on the rate. */
export const UNITS: Readonly<Record<string, { readonly dimension: Dimension; readonly per: number }>> = {
  '': { dimension: PLAIN, per: 1 },
  '%': { dimension: PLAIN, per: 100 },
  px: { dimension: LENGTH, per: 1 },
  s: { dimension: TIME, per: 1 },
  ms: { dimension: TIME, per: 1000 },
  f: { dimension: TIME, per: 1 },
  deg: { dimension: ANGLE, per: 1 },
  '°': { dimension: ANGLE, per: 1 },
  Hz: { dimension: FREQUENCY, per: 1 },
};

/** Unit that stands for a dimension when a mend is suggested. */
export function unitFor(dimension: Dimension): string | null {
  if (sameDimension(dimension, LENGTH)) return 'px';
  if (sameDimension(dimension, ANGLE)) return 'deg';
  if (sameDimension(dimension, TIME)) return 'f';
  return sameDimension(dimension, FREQUENCY) ? 'Hz' : null;
}
