import { parseTimeEntry, type Rate } from '@wexikine/core';

/** A number with its unit, as it stands in a field: "−6deg" is −6 and "deg". */
export interface Literal {
  readonly number: number;
  readonly unit: string;
}

/** Reads a literal; null for a formula or anything else that cannot be stepped. Timecode counts as frames. */
export function readLiteral(text: string, rate: Rate): Literal | null {
  const match = /^\s*([+-]?(?:\d+(?:\.\d+)?|\.\d+))\s*(%|°|[a-zA-Z]*)\s*$/.exec(text.replace(/−/g, '-'));
  if (match) return { number: Number(match[1]), unit: match[2] };
  if (!/[:;]/.test(text)) return null;
  const entry = parseTimeEntry(text, rate);
  return entry.ok ? { number: entry.entry.frame, unit: 'f' } : null;
}

/** A literal as text, without the noise of binary fractions. */
export function writeLiteral({ number, unit }: Literal): string {
  return `${Number(number.toFixed(4)) + 0}${unit}`;
}

/** How far one step goes for a unit. */
export function stepOf(unit: string): number {
  if (unit === 's' || unit === 'Hz') return 0.1;
  return unit === 'ms' ? 10 : 1;
}

/** The text after some steps; the text itself where it cannot be stepped. `least` keeps it from going below. */
export function stepText(text: string, steps: number, rate: Rate, least = -Infinity): string {
  const literal = readLiteral(text, rate);
  if (!literal) return text;
  return writeLiteral({ ...literal, number: Math.max(least, literal.number + steps * stepOf(literal.unit)) });
}
