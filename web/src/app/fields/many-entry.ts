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
