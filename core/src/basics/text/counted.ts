/** So many of something for people: "1 layer", "2,700 layers", "3 copies". A plural that has no plain s is given. */
export function counted(count: number, one: string, more = `${one}s`): string {
  return count === 1 ? `1 ${one}` : `${count.toLocaleString('en')} ${more}`;
}
