import * as z from '../schema';

type Issue = z.core.$ZodRawIssue;

const KINDS: Readonly<Record<string, string>> = {
  object: 'an object',
  record: 'an object',
  array: 'a list',
  tuple: 'a list',
  string: 'a text',
  number: 'a number',
  int: 'a whole number',
  boolean: 'true or false',
  null: 'null',
  nan: 'a number',
};

function kindOf(value: unknown): string {
  if (value === undefined) return 'nothing';
  if (value === null) return 'null';
  if (Array.isArray(value)) return 'a list';
  if (typeof value === 'number') return Number.isFinite(value) ? 'a number' : 'a number that is not finite';
  return KINDS[typeof value] ?? 'something else';
}

const THINGS: Readonly<Record<string, readonly [one: string, many: string]>> = {
  string: ['character', 'characters'],
  array: ['entry', 'entries'],
  set: ['entry', 'entries'],
  object: ['field', 'fields'],
};

function sizeSentence(origin: string, limit: string, bound: 'most' | 'least'): string {
  const things = THINGS[origin];
  if (!things) return `It must be at ${bound} ${limit}.`;
  return limit === '1'
    ? `At ${bound} one ${things[0]} ${bound === 'most' ? 'is possible' : 'is needed'} here.`
    : `At ${bound} ${limit} ${things[1]} are ${bound === 'most' ? 'possible' : 'needed'} here.`;
}

function listed(names: readonly string[]): string {
  const shown = names.slice(0, 6).map((name) => `“${name.slice(0, 40)}”`);
  return names.length > shown.length ? `${shown.join(', ')} and ${names.length - shown.length} more` : shown.join(', ');
}

/** What is wrong with a value, as a sentence for people; schemas that say it better have their own. */
export function describeIssue(issue: Issue): string {
  switch (issue.code) {
    case 'invalid_type': {
      const wanted = KINDS[issue.expected] ?? 'something else';
      return issue.input === undefined
        ? `This is missing: ${wanted} is needed here.`
        : `There must be ${wanted} here, and there is ${kindOf(issue.input)}.`;
    }
    case 'too_big':
      return sizeSentence(issue.origin, String(issue.maximum), 'most');
    case 'too_small':
      return sizeSentence(issue.origin, String(issue.minimum), 'least');
    case 'invalid_value':
      return issue.values.length === 1
        ? `It must be “${String(issue.values[0])}”.`
        : `It must be one of ${listed(issue.values.map(String))}.`;
    case 'unrecognized_keys':
      return `${listed(issue.keys)} ${issue.keys.length === 1 ? 'is' : 'are'} not known here. Take ${issue.keys.length === 1 ? 'it' : 'them'} out.`;
    case 'invalid_format':
      return issue.format === 'datetime'
        ? 'This is not a date and time, such as 2026-01-31T12:00:00Z.'
        : 'This is not written as it must be.';
    case 'not_multiple_of':
      return `It must be a multiple of ${issue.divisor}.`;
    case 'invalid_key':
      return 'A name here is not one that is possible.';
    case 'invalid_union':
    case 'invalid_element':
    case 'custom':
      return 'This is none of the forms that are possible here.';
  }
}

// Wherever a schema of ours has no sentence of its own, this one's is told; no other ever reaches anybody.
z.config({ customError: describeIssue });

/** Where a problem with data from outside stands, and what it is. */
export interface DataProblem {
  readonly path: string;
  readonly message: string;
}

/** Of the forms that something could have, the problem of the one that it comes closest to. */
function closest(issue: z.core.$ZodIssue): z.core.$ZodIssue {
  if (issue.code !== 'invalid_union') return issue;
  const candidates = issue.errors.flatMap(([first]) => (first ? [first] : [])).map(closest);
  const best = candidates.reduce<z.core.$ZodIssue | null>(
    (found, next) => (found && found.path.length >= next.path.length ? found : next),
    null,
  );
  return best && best.path.length > 0 ? { ...best, path: [...issue.path, ...best.path] } : issue;
}

/** Problems of a failed parse as path and sentence, the first `most` of them. */
export function dataProblems(error: z.ZodError, most = 5): DataProblem[] {
  return error.issues.slice(0, most).map((issue) => {
    const { path, message } = closest(issue);
    return { path: path.map(String).join('.').slice(0, 200) || 'file', message };
  });
}
