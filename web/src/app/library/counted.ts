/** So many of something in words, such as “1 layer” or “3 layers”. */
export function counted(count: number, word: string): string {
  return `${count} ${word}${count === 1 ? '' : 's'}`;
}
