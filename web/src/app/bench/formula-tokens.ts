import { formulaParser } from '@wexikine/core';

/** What a stretch of a formula is, for colouring. */
export type TokenKind = 'parameter' | 'name' | 'call' | 'number' | 'word' | 'comment' | 'plain';

/** A stretch of a formula with what it is. */
export interface Token {
  readonly from: number;
  readonly to: number;
  readonly text: string;
  readonly kind: TokenKind;
}

const KINDS: Readonly<Record<string, TokenKind>> = {
  Parameter: 'parameter',
  Name: 'name',
  LetName: 'name',
  Callee: 'call',
  Quantity: 'number',
  Comment: 'comment',
  let: 'word',
  if: 'word',
  then: 'word',
  else: 'word',
  Not: 'word',
  And: 'word',
  Or: 'word',
  mod: 'word',
};

/** A formula cut into coloured stretches, sound or not; together they are the whole text. */
export function tokensOf(text: string): Token[] {
  const tokens: Token[] = [];
  let at = 0;
  const add = (from: number, to: number, kind: TokenKind): void => {
    if (from > at) tokens.push({ from: at, to: from, text: text.slice(at, from), kind: 'plain' });
    if (to > from) tokens.push({ from, to, text: text.slice(from, to), kind });
    at = to;
  };
  formulaParser.parse(text).iterate({
    enter: ({ name, from, to }) => {
      const kind = KINDS[name];
      if (kind === undefined || from < at) return true;
      add(from, to, kind);
      return false;
    },
  });
  if (at < text.length) tokens.push({ from: at, to: text.length, text: text.slice(at), kind: 'plain' });
  return tokens;
}
