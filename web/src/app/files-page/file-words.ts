import { DAYS_DELETED_KEPT, fileType, type KeptFile } from '@wexikine/core';

/** A number of bytes for people: "340 kB", "2.1 MB". */
export function fileSize(bytes: number): string {
  if (bytes < 1_000) return `${bytes} bytes`;
  if (bytes < 1_000_000) return `${Math.round(bytes / 1_000)} kB`;
  return `${(bytes / 1_000_000).toFixed(1)} MB`;
}

/** What a file is: its kind, and the size of a picture or clip, a clip's length, a font's weights. */
export function fileFacts({ name, facts }: KeptFile): string {
  const { label } = fileType(name);
  const long = facts.seconds === undefined ? '' : `, ${Math.round(facts.seconds * 10) / 10} s`;
  if (facts.width && facts.height) return `${label}, ${facts.width} × ${facts.height} px${long}`;
  if (!facts.weights) return label;
  const [lightest, heaviest] = facts.weights;
  const axes = facts.axes?.map(({ name }) => `, ${name.toLowerCase()}`).join('') ?? '';
  return `${label}, ${lightest === heaviest ? `weight ${lightest}` : `weights ${lightest} to ${heaviest}`}${axes}`;
}

/** How many layers and scenes, in words: “one layer”, “12 layers in 3 scenes”. */
export function countedWords({
  layers,
  scenes,
}: {
  readonly layers: number;
  readonly scenes: readonly unknown[];
}): string {
  const things = layers === 1 ? 'one layer' : `${layers} layers`;
  return scenes.length === 1 ? things : `${things} in ${scenes.length} scenes`;
}

/** Uses in scenes that are there, without deleted ones. */
export function standing(uses: KeptFile['uses']): KeptFile['uses'] {
  return uses.filter(({ isDeleted }) => !isDeleted);
}

/** The scenes that use a file and are there: by its name where there is one, else how many. */
export function whereWords(uses: KeptFile['uses']): string {
  const own = standing(uses);
  return own.length === 1 ? `“${own[0].sceneName}”` : `all ${own.length} scenes that use it`;
}

/** What is said of taking a file away: that it can be, or why not. */
export function removeWords(uses: KeptFile['uses']): string {
  if (uses.length === 0) return 'Remove it for good';
  return standing(uses).length > 0
    ? 'Scenes use it. Replace it there first'
    : `A deleted scene uses it, which is kept for ${DAYS_DELETED_KEPT} days and can be brought back`;
}
