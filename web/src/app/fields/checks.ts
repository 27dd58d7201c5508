import {
  compileFormula,
  describeEntryProblem,
  describeFormulaProblem,
  isNumberKind,
  parseTimeEntry,
  readValue,
  runScope,
  typeOfKind,
  type Lookup,
  type Parameter,
  type Rate,
} from '@wexikine/core';

/** Refuses texts that are no time, and times below a least one. */
export function timeCheck(rate: Rate, least = 0): (text: string) => string | null {
  return (text) => {
    const result = parseTimeEntry(text, rate);
    if (!result.ok) return describeEntryProblem(result.problem, rate);
    if (result.entry.ticks >= least) return null;
    return least > 0 ? 'Give at least one frame.' : 'Give a time of 0 or more.';
  };
}

/** Refuses texts that do not give a value of a parameter's kind. */
export function parameterCheck(parameter: Parameter, lookup: Lookup): (text: string) => string | null {
  const { kind } = parameter;
  return (text) => {
    if (!isNumberKind(kind)) {
      const read = readValue(parameter, text, lookup);
      return read.ok ? null : read.message;
    }
    const result = compileFormula(text, runScope(), typeOfKind(kind));
    return result.ok ? null : describeFormulaProblem(result.problems[0]);
  };
}

/** Refuses texts that are no number between two limits; the sentence names both, with the unit. */
export function numberCheck(least: number, most: number, unit = ''): (text: string) => string | null {
  return (text) => {
    const match = /^\s*([+-]?(?:\d+\.?\d*|\.\d+))\s*(%|°|[a-zA-Z]*)\s*$/.exec(text.replace(/−/g, '-'));
    const isUnit = match !== null && (match[2] === '' || match[2] === unit || (unit === '°' && match[2] === 'deg'));
    if (!match || !isUnit)
      return `Give a number${unit === '' ? '' : ` in ${unit}`}, such as ${Math.max(least, Math.min(most, 40))}.`;
    const number = Number(match[1]);
    if (number >= least && number <= most) return null;
    const shown = (limit: number): string => `${String(limit).replace('-', '−')}${unit === '' ? '' : ` ${unit}`}`;
    if (most >= 1e6) return `Give ${shown(least)} or more.`;
    return `Give a number from ${shown(least)} to ${shown(most)}.`;
  };
}
