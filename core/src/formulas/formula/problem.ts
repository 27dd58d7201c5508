import { closest } from 'fastest-levenshtein';
import type { Span } from './ast';
import { nameOfDimension, type Dimension } from './dimension';

/** What is wrong with a formula, where, and the facts that its sentence needs. */
export type FormulaProblem = { readonly span: Span } & (
  | { readonly code: 'empty' }
  | { readonly code: 'syntax'; readonly found: string }
  | { readonly code: 'too-long'; readonly most: number }
  | { readonly code: 'unknown-name'; readonly name: string; readonly known: readonly string[] }
  | { readonly code: 'unknown-parameter'; readonly name: string; readonly known: readonly string[] }
  | { readonly code: 'unfit-parameter'; readonly name: string; readonly why: string }
  | { readonly code: 'not-a-curve' }
  | { readonly code: 'not-a-source'; readonly name: string }
  | { readonly code: 'unknown-function'; readonly name: string; readonly known: readonly string[] }
  | { readonly code: 'unknown-unit'; readonly text: string; readonly unit: string }
  | { readonly code: 'argument-count'; readonly name: string; readonly expected: string; readonly found: number }
  | {
      readonly code: 'unit-mismatch';
      readonly action: string;
      readonly left: Dimension;
      readonly right: Dimension;
      readonly mend: string | null;
    }
  | { readonly code: 'not-plain'; readonly what: string; readonly found: Dimension }
  | { readonly code: 'not-angle'; readonly what: string; readonly found: Dimension }
  | { readonly code: 'not-a-switch'; readonly what: string }
  | { readonly code: 'is-a-switch'; readonly what: string }
  | {
      readonly code: 'result-unit';
      readonly expected: Dimension;
      readonly found: Dimension;
      readonly mend: string | null;
    }
  | { readonly code: 'time-needs-unit'; readonly text: string }
  | { readonly code: 'name-taken'; readonly name: string }
);

function suggestion(name: string, known: readonly string[], prefix = ''): string {
  if (known.length === 0) return '';
  return ` Did you mean ${prefix}${closest(name, [...known])}?`;
}

function mending(mend: string | null): string {
  return mend === null ? '' : ` Did you mean ${mend}?`;
}

/** The problem as a sentence: what is wrong and what to do. The place is in `span`. */
export function describeFormulaProblem(problem: FormulaProblem): string {
  switch (problem.code) {
    case 'empty':
      return 'There is no formula here. Write a value such as rest, 20% or 60px.';
    case 'syntax':
      return problem.found === ''
        ? 'The formula stops too early. Finish it, or take the last sign away.'
        : `“${problem.found}” does not fit here. Check the signs and brackets around it.`;
    case 'too-long':
      return `A formula has at most ${problem.most} characters. Split it into let lines or simplify it.`;
    case 'unknown-name':
      return `Nothing here is called ${problem.name}.${suggestion(problem.name, problem.known)}`;
    case 'unknown-parameter':
      return `There is no parameter @${problem.name}.${suggestion(problem.name, problem.known, '@')}`;
    case 'unfit-parameter':
      return `@${problem.name} ${problem.why}.`;
    case 'not-a-curve':
      return 'ease needs a parameter of kind curve first, such as ease(@curve, share).';
    case 'not-a-source':
      return `${problem.name} reads a channel at other times, so it needs the name of one first, such as keyed or leader.rotation. It works in rigs only.`;
    case 'unknown-function':
      return `There is no function ${problem.name}.${suggestion(problem.name, problem.known)}`;
    case 'unknown-unit':
      return `“${problem.unit}” in ${problem.text} is not a unit. Use f, s, ms, px, deg, Hz or %.`;
    case 'argument-count':
      return `${problem.name} takes ${problem.expected}, and here it got ${problem.found}.`;
    case 'unit-mismatch':
      return `${capital(nameOfDimension(problem.left))} and ${nameOfDimension(problem.right)} cannot be ${problem.action}.${mending(problem.mend)}`;
    case 'not-plain':
      return `${capital(problem.what)} needs a plain number, and this is ${nameOfDimension(problem.found)}.`;
    case 'not-angle':
      return `${capital(problem.what)} needs an angle, and this is ${nameOfDimension(problem.found)}. Write it in deg.`;
    case 'not-a-switch':
      return `${capital(problem.what)} needs yes or no, such as a switch or a comparison.`;
    case 'is-a-switch':
      return `${capital(problem.what)} needs a number, and this is yes or no. Use if … then … else ….`;
    case 'result-unit':
      return `This gives ${nameOfDimension(problem.found)}, and ${nameOfDimension(problem.expected)} is needed.${mending(problem.mend)}`;
    case 'time-needs-unit':
      return `${problem.text} needs a unit here. Write ${problem.text}f for frames or ${problem.text}s for seconds.`;
    case 'name-taken':
      return `${problem.name} has a meaning already. Choose another name after let.`;
  }
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}
