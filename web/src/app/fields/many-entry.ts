import { arithmetic } from './entry';

const UNIT = /\s*(?:px\/s|deg\/s|°\/s|%\/s|px|%|°|deg)$/;

/**
 * What was typed for many values at once, in the words of `enter`: `12` sets all, `+8` and `-8` change each, `×2` and
 * `÷2` are factors for each, `=-20` sets all to minus twenty; a unit after it is left out. Null where it is none of these.
 */
export function enterMany(typed: string): ((before: number) => number) | null {
  const text = typed.trim().replace(/−/g, '-').replace(/×/g, '*').replace(/÷/g, '/').replace(UNIT, '').trim();
  const sign = /^[+\-*/=]/.exec(text)?.[0];
  const number = arithmetic(sign === undefined ? text : text.slice(1));
  if (number === null || (sign === '/' && number === 0)) return null;
  switch (sign) {
    case '+':
      return (before) => before + number;
    case '-':
      return (before) => before - number;
    case '*':
      return (before) => before * number;
    case '/':
      return (before) => before / number;
    default:
      return () => number;
  }
}

/** What `enterMany` read, as a step says it: set to a number, a number added, or times a number. */
export function stepOfEntry(change: (before: number) => number): readonly ['set' | 'add' | 'scale', number] {
  const [zero, hundred] = [change(0), change(100)];
  if (zero === hundred) return ['set', zero];
  return hundred - zero === 100 ? ['add', zero] : ['scale', hundred / 100];
}
