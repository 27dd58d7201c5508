import { frameTicks, parseTimeEntry, pathProblem, type Rate } from '@wexikine/core';
import { timeCheck } from '../../fields/checks';
import type { Way, WayField, WayValue } from './way-fields';

type Kind = WayField['kind'];

const PATTERNS: Readonly<Partial<Record<Kind, readonly [RegExp, string]>>> = {
  percent: [/^-?\d+(\.\d+)?\s*%?$/, 'Give a percentage such as 50%.'],
  degrees: [/^-?\d+(\.\d+)?\s*(deg|°)?$/, 'Give an angle such as 45deg.'],
  pixels: [/^-?\d+(\.\d+)?\s*(px)?$/, 'Give a length such as 24px.'],
  number: [/^\d+(\.\d+)?$/, 'Give a number such as 2.'],
  count: [/^\d+$/, 'Give a whole number such as 3.'],
  path: [/^\s*M[\sMLHVCSQTAZmlhvcsqtaz\d.,eE+-]*$/, 'Give an SVG path such as M0 0 L400 300.'],
};
const UNITS: Readonly<Partial<Record<Kind, string>>> = { percent: '%', degrees: 'deg', pixels: 'px' };
/** What stays as it is typed: it is read where the recipe is planned. */
const TEXTS: ReadonlySet<Kind> = new Set(['time', 'signed-time', 'path']);
const TYPED: ReadonlySet<Kind> = new Set(['time', 'signed-time', 'number', 'count', 'percent', 'degrees', 'pixels']);
const MOST_SEED = 10_000;

/** The first field that is typed into. */
export function firstTyped(fields: readonly WayField[]): string | undefined {
  return fields.find(({ kind }) => TYPED.has(kind))?.key;
}

/** A field's value as it stands in its text field; empty where the recipe leaves it out. */
export function textOf({ key, kind }: WayField, values: WayValue): string {
  const value = values[key];
  if (value === undefined) return '';
  if (typeof value !== 'number') return String(value);
  return `${Number((kind === 'percent' ? value * 100 : value).toFixed(3))}${UNITS[kind] ?? ''}`;
}

/** What a text that was checked means in the recipe; nothing where it is left out. */
export function valueOf({ kind }: WayField, text: string): string | number | undefined {
  if (TEXTS.has(kind)) return text.trim();
  if (text.trim() === '') return undefined;
  const number = Number.parseFloat(text);
  return kind === 'percent' ? number / 100 : number;
}

/** A value with one field changed, or left out. */
export function withField(values: WayValue, key: string, value: unknown): WayValue {
  const { [key]: _standing, ...rest } = values;
  return (value === undefined ? rest : { ...rest, [key]: value }) as WayValue;
}

/** What a way begins with: where that depends on the scene, what is given for it; the shared fields stay. */
export function beginWay(
  by: string,
  { begin }: Pick<Way, 'begin'>,
  values: WayValue,
  shared: readonly WayField[],
  given: (key: string) => string,
): WayValue {
  const own = Object.entries(begin).map(([key, value]) => [key, value === '' ? given(key) : value]);
  const kept = shared.flatMap(({ key }) => (key in values ? [[key, values[key]]] : []));
  return { by, ...Object.fromEntries(own), ...Object.fromEntries(kept) } as WayValue;
}

/** The next seed: 1, 2, … and round again. */
export function nextSeed(seed: unknown): number {
  return (Number(seed) % MOST_SEED) + 1;
}

/** The nearest frame, said where a typed time falls between two; what it means that a field is empty. */
export function hintOf(field: WayField, text: string, rate: Rate): string | null {
  if (text === '') return field.empty ?? null;
  if (field.kind !== 'time' && field.kind !== 'signed-time') return null;
  const result = parseTimeEntry(text, rate);
  if (!result.ok || result.entry.rounding === 0) return null;
  const off = Number((result.entry.rounding / frameTicks(rate)).toFixed(2));
  return `Nearest frame ${result.entry.frame}; this is ${Math.abs(off)} f ${off > 0 ? 'after' : 'before'} it.`;
}

/** Says what is wrong with the text of a field; null where nothing is. */
export function checkOf(field: WayField, rate: Rate): (text: string) => string | null {
  const { kind, least = -Infinity, most = Infinity } = field;
  if (kind === 'time') return timeCheck(rate, (field.least ?? 0) * frameTicks(rate));
  if (kind === 'signed-time') return timeCheck(rate, -Infinity);
  const [pattern, message] = PATTERNS[kind] ?? [/^/, ''];
  return (text) => {
    if (text.trim() === '' && field.optional) return null;
    if (!pattern.test(text.trim())) return message;
    if (kind === 'path') return pathProblem(text.trim());
    const number = Number.parseFloat(text);
    if (number >= least && number <= most) return null;
    return most === Infinity ? `Give ${least} or more.` : `Give a number from ${least} to ${most}.`;
  };
}
