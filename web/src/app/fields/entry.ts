import {
  describeEntryProblem,
  formatShort,
  frameTicks,
  isHeldExactly,
  parseTimeEntry,
  type Rate,
  type Ticks,
} from '@wexikine/core';
import { readLiteral, writeLiteral } from './literal';

/**
 * What was typed into a number field, worked out against the value that stands there:
 *
 * - `12`, `8f`, `1:15`, `40px`: that value, in the field's own unit where none is given
 * - `+8`, `-1s`: so much more or less; `=-20` is minus twenty itself
 * - `×2`, `*2`, `÷3`, `/3`: times or divided by a factor
 * - `1920/2-40`, `(3+4)*2`: arithmetic of plain numbers
 *
 * `null` where it is none of these, such as a formula: the field's own check then says what it is.
 */
export type Entered =
  { readonly ok: true; readonly text: string } | { readonly ok: false; readonly message: string } | null;

const NUMBER = '(?:\\d+(?:\\.\\d*)?|\\.\\d+)';
const ARITHMETIC = new RegExp(`^[\\d.\\s()+*/-]+$`);

/** The value of plain arithmetic, with × and ÷ written as * and /; null where it is none or not finite. */
export function arithmetic(text: string): number | null {
  if (!ARITHMETIC.test(text)) return null;
  const tokens = text.match(new RegExp(`${NUMBER}|[()+*/-]`, 'g')) ?? [];
  if (tokens.join('') !== text.replace(/\s/g, '')) return null;
  let at = 0;
  const factor = (): number => {
    const token = tokens[at++];
    if (token === '-') return -factor();
    if (token === '+') return factor();
    if (token !== '(') return token === undefined ? NaN : Number(token);
    const inside = sum();
    return tokens[at++] === ')' ? inside : NaN;
  };
  const product = (): number => {
    let value = factor();
    while (tokens[at] === '*' || tokens[at] === '/') value = tokens[at++] === '*' ? value * factor() : value / factor();
    return value;
  };
  const sum = (): number => {
    let value = product();
    while (tokens[at] === '+' || tokens[at] === '-')
      value = tokens[at++] === '+' ? value + product() : value - product();
    return value;
  };
  const value = sum();
  return at === tokens.length && Number.isFinite(value) ? value : null;
}

/** A value as it stands in a field, which an entry may be relative to. */
interface Standing {
  readonly plus: (amount: string) => string | null;
  readonly times: (factor: number) => string | null;
  readonly unit: string;
}

/** A time in the way in which the standing one is written: as timecode, or in its unit. */
function timeText(ticks: Ticks, like: string, rate: Rate): string {
  if (/[:;]/.test(like) && ticks % frameTicks(rate) === 0) return formatShort(ticks, rate);
  return `${Number((ticks / frameTicks(rate)).toFixed(4))}f`;
}

function standingTime(text: string, rate: Rate): Standing | null {
  const read = parseTimeEntry(text, rate);
  if (!read.ok) return null;
  const { ticks } = read.entry;
  const written = (next: number): string | null =>
    isHeldExactly(Math.round(next)) ? timeText(Math.round(next), text, rate) : null;
  return {
    unit: 'f',
    plus: (amount) => {
      const by = parseTimeEntry(amount, rate);
      return by.ok ? written(ticks + by.entry.ticks) : null;
    },
    times: (factor) => written(ticks * factor),
  };
}

const TIME_UNITS = ['f', 's', 'ms', 'min'];

/** The unit as it stands after the number, with the space before it. */
function unitAsWritten(text: string): string {
  return /^[\s+\-−\d.]*\d(\s*(?:%|°|[a-zA-Z]*))\s*$/.exec(text)?.[1] ?? '';
}

function standingNumber(text: string, rate: Rate): Standing | null {
  const literal = readLiteral(text, rate);
  if (!literal) return null;
  const unit = unitAsWritten(text);
  return {
    unit: literal.unit,
    plus: (amount) => {
      const by = readLiteral(amount, rate);
      const isAlike =
        by !== null &&
        (by.unit === '' ||
          by.unit === literal.unit ||
          [by.unit, literal.unit].every((one) => one === 'deg' || one === '°'));
      return isAlike ? writeLiteral({ number: literal.number + by.number, unit }) : null;
    },
    times: (factor) => writeLiteral({ number: literal.number * factor, unit }),
  };
}

function isTime(text: string, rate: Rate): boolean {
  if (/[:;]/.test(text)) return true;
  return TIME_UNITS.includes(readLiteral(text, rate)?.unit ?? '');
}

/** One number with a comma in it, as decimals are written in many places, and thousands in others. */
const WITH_COMMA = /^[-+=*/]?\s*\d*,\d+\s*(?:%|°|[a-zA-Z]*)$/;

const AMOUNT = 'Write an amount in the same unit, such as +8.';

/** Works out what was typed against the value that stands in the field. */
export function enter(typed: string, standingText: string, rate: Rate): Entered {
  const text = typed.trim().replace(/−/g, '-').replace(/×/g, '*').replace(/÷/g, '/');
  if (WITH_COMMA.test(text))
    return {
      ok: false,
      message: `Write decimals with a point, ${text.replace(',', '.')}, and thousands without a comma.`,
    };
  const standing = isTime(standingText, rate) ? standingTime(standingText, rate) : standingNumber(standingText, rate);
  const unit = standing ? unitAsWritten(standingText) : '';
  if (text.startsWith('=')) return withUnit(text.slice(1).trim(), unit, rate);
  if (standing && /^[+-]/.test(text)) {
    const amount = arithmeticOr(text);
    const next = standing.plus(amount);
    if (next !== null) return { ok: true, text: next };
    return /^[+-]\s*[\d.]/.test(text) ? { ok: false, message: AMOUNT } : null;
  }
  if (standing && /^[*/]/.test(text)) {
    const factor = arithmetic(text.slice(1));
    if (factor === null)
      return text.length === 1 ? { ok: false, message: 'Write a factor after it, such as ×2.' } : null;
    if (text.startsWith('/') && factor === 0) return { ok: false, message: 'Nothing can be divided by 0.' };
    const next = standing.times(text.startsWith('*') ? factor : 1 / factor);
    return next === null ? { ok: false, message: 'That is more than can be held.' } : { ok: true, text: next };
  }
  return withUnit(text, unit, rate);
}

/** Plain arithmetic as its value; anything else as it is. */
function arithmeticOr(text: string): string {
  const value = arithmetic(text);
  return value === null ? text : `${value < 0 ? '' : '+'}${value}`;
}

/** A plain number, or arithmetic of them, takes the unit that stands in the field; what has a unit keeps it. */
function withUnit(text: string, unit: string, rate: Rate): Entered {
  if (/^[+-]?\s*(?:\d+\.?\d*|\.\d+)$/.test(text)) return { ok: true, text: `${text.replace(/\s/g, '')}${unit}` };
  const [, sum, own] = /^(.*?)\s*(%|°|[a-zA-Z]+)?$/.exec(text) ?? [];
  const value = sum !== undefined && /\d\s*[-+*/(]/.test(sum) ? arithmetic(sum) : null;
  if (value !== null) return { ok: true, text: writeLiteral({ number: value, unit: own ?? unit }) };
  if (/[:;]/.test(text)) {
    const read = parseTimeEntry(text, rate);
    return read.ok ? { ok: true, text } : { ok: false, message: describeEntryProblem(read.problem, rate) };
  }
  return null;
}
