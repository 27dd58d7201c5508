/** How the numbers of a range are written, and between which they lie, as written. */
export interface RangeUnit {
  readonly unit: string;
  /** What a value is multiplied by where it is written. */
  readonly factor: number;
  readonly least: number;
  readonly most: number;
}

const ROUND = 100;

/** A value as it is written, to two decimals. */
export function rangeText(value: number, { unit, factor }: RangeUnit): string {
  return `${Math.round(value * factor * ROUND) / ROUND}${unit}`;
}

/** Reads a written number, with or without its unit, with a decimal point or comma; or says what may be written. */
export function readRange(
  text: string,
  { factor, least, most }: RangeUnit,
): { readonly ok: true; readonly value: number } | { readonly ok: false; readonly problem: string } {
  const plain = text
    .replace(/[%°\s]/g, '')
    .replace('−', '-')
    .replace(',', '.');
  const number = Number(plain);
  if (plain === '' || !(number >= least && number <= most))
    return { ok: false, problem: `Write a number from ${least} to ${most}.` };
  return { ok: true, value: number / factor };
}
