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

/** Refuses texts that are no time, and relative ones, which a recipe has nothing to be relative to. */
export function timeCheck(rate: Rate, least = 0): (text: string) => string | null {
  return (text) => {
    const result = parseTimeEntry(text, rate);
    if (!result.ok) return describeEntryProblem(result.problem, rate);
    return result.entry.ticks < least ? 'Give a time of nothing or more here.' : null;
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
