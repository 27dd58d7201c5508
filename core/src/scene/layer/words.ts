import type { NumberFormat, TextSource } from './layer';

const MOST_KEPT = 2_000;
const MOST_DIGITS = 21;
/** Made when it is first asked for: that takes longer than all else of a start here. */
let segmenter: Intl.Segmenter | null = null;
const known = new Map<string, readonly string[]>();

/**
 * The letters of a line as people count them: what belongs together is one of them. Source: Unicode Standard Annex 29,
 * extended grapheme clusters.
 */
export function lettersOf(line: string): readonly string[] {
  const before = known.get(line);
  if (before) return before;
  segmenter ??= new Intl.Segmenter(undefined, { granularity: 'grapheme' });
  const letters = [...segmenter.segment(line)].map(({ segment }) => segment);
  // A number that runs gives new words in every frame.
  if (known.size >= MOST_KEPT) known.clear();
  known.set(line, letters);
  return letters;
}

/** How many letters words have, those of all lines together; 0 for what has no words. */
export function letterCount(source: { readonly type: string; readonly text?: string }): number {
  if (source.type !== 'text' || source.text === undefined) return 0;
  return source.text.split('\n').reduce((count, line) => count + lettersOf(line).length, 0);
}

/** A number as words show it, such as "−1 234.50"; halves are rounded as `toFixed` does, and nothing is ever "−0". */
export function writtenNumber(value: number, { decimals, point, group }: NumberFormat): string {
  if (!Number.isFinite(value)) return '–';
  const text = Math.abs(value).toFixed(decimals);
  // From 1e21 on there are no plain digits to group.
  if (text.includes('e') || text.length > MOST_DIGITS + decimals + 1) return text;
  const [whole, part = ''] = text.split('.');
  const grouped = whole.replace(/\B(?=(\d{3})+$)/g, group);
  const isNothing = Number(text) === 0;
  return `${value < 0 && !isNothing ? '−' : ''}${grouped}${part === '' ? '' : point + part}`;
}

/** Where words show their number. */
const NUMBER_SIGN = '#';

/** The lines of words, with the number that they show. */
export function wordLines({ text, number }: Pick<TextSource, 'text' | 'number'>, value: number): readonly string[] {
  if (!number) return text.split('\n');
  const written = writtenNumber(value, number);
  return (text.includes(NUMBER_SIGN) ? text.replace(NUMBER_SIGN, () => written) : written).split('\n');
}

/** What of lines is shown: of each its first letters; and the line behind which the caret stands, −1 where all is shown. */
export interface ShownLines {
  readonly lines: readonly string[];
  readonly caretAt: number;
}

/** So small a share of a letter is taken for rounding. */
const ROUNDING = 1e-6;

/** The first letters of lines: a share of all of them, whole letters only. */
export function shownLines(lines: readonly string[], share: number): ShownLines {
  if (share >= 1) return { lines, caretAt: -1 };
  const total = lines.reduce((count, line) => count + lettersOf(line).length, 0);
  let left = Math.floor(Math.max(0, share) * total + ROUNDING);
  let caretAt = 0;
  const shown = lines.map((line, i) => {
    if (left <= 0) return '';
    const letters = lettersOf(line);
    caretAt = i;
    const taken = letters.slice(0, left).join('');
    left -= letters.length;
    return taken;
  });
  return { lines: shown, caretAt };
}
