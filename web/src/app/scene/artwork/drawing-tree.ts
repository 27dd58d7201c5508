import type { DrawingTree } from './messages';

/** A row of the tree of a drawing. */
export interface TreeRow {
  readonly part: DrawingTree;
  readonly depth: number;
  /** It can be taken apart, and is. */
  readonly isSplit: boolean;
  readonly canSplit: boolean;
  readonly isOpen: boolean;
}

/** How deep a drawing is taken apart. */
export type DrawingLevel = 'one' | 'top' | 'all';

/** Groups that become one picture each at a level. */
export function wholeAtLevel(tree: DrawingTree, level: DrawingLevel): Set<string> {
  if (level === 'one') return new Set([tree.id]);
  if (level === 'all') return new Set();
  return new Set(tree.parts.filter(({ kind }) => kind === 'group').map(({ id }) => id));
}

/** True for a part that can be taken apart further. */
export function canSplit({ kind, isFixed, parts }: DrawingTree): boolean {
  return kind === 'group' && !isFixed && parts.length > 0;
}

/** The rows that are seen: parts of what is open, and taken apart. */
export function treeRows(
  tree: DrawingTree,
  whole: ReadonlySet<string>,
  open: ReadonlySet<string>,
  depth = 0,
): TreeRow[] {
  const isSplit = canSplit(tree) && !whole.has(tree.id);
  const isOpen = isSplit && open.has(tree.id);
  const own: TreeRow = { part: tree, depth, isSplit, canSplit: canSplit(tree), isOpen };
  return [own, ...(isOpen ? tree.parts.flatMap((part) => treeRows(part, whole, open, depth + 1)) : [])];
}

/** How many layers a drawing becomes. */
export function countLayers(tree: DrawingTree, whole: ReadonlySet<string>): number {
  if (!canSplit(tree) || whole.has(tree.id)) return 1;
  return tree.parts.reduce((sum, part) => sum + countLayers(part, whole), 1);
}
