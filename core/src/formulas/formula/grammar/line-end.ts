import { ExternalTokenizer } from '@lezer/lr';
import { lineEnd } from './parser.generated.terms';

const NEWLINE = 10;
const SEMICOLON = 59;

/**
 * Ends a `let` line. A line break counts only where a let may end, so that an unfinished expression goes on over
 * line breaks; elsewhere a line break is plain space.
 */
export const lineEndTokens = new ExternalTokenizer((input, stack) => {
  if ((input.next === NEWLINE || input.next === SEMICOLON) && stack.canShift(lineEnd)) {
    input.advance();
    input.acceptToken(lineEnd);
  }
});
