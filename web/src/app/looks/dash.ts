/** Longest dash or gap that is stored, px. */
const LONGEST = 100_000;

/** Lengths of dashes and gaps by turns, px, none for a whole line; null for a text that is neither. */
export function readDash(text: string, most: number): readonly number[] | null {
  const words = text.trim();
  if (words === '' || words.toLowerCase() === 'none') return [];
  const lengths = words
    .split(/[\s,]+/)
    .filter(Boolean)
    .map((word) => Number(word.replace(/px$/i, '')));
  return lengths.length <= most && lengths.every((one) => one >= 0 && one <= LONGEST) ? lengths : null;
}

/** What to write where a text was no dash. */
export function dashProblem(most: number): string {
  return `Write at most ${most} lengths of dashes and gaps by turns, such as 12 6; nothing for a whole line.`;
}
