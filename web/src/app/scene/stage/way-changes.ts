import { scaleWays, straightenWays, type Edit, type Scene } from '@wexikine/core';

/** What can be done with the ways of several layers at once; each about where its layer rests. */
export interface WayChange {
  readonly label: string;
  readonly edits: (scene: Scene, ids: ReadonlySet<string>) => readonly Edit[];
}

const scaled =
  (x: number, y: number): WayChange['edits'] =>
  (scene, ids) =>
    scaleWays(scene, ids, { x, y });

/** The changes of ways in the order of the menu. */
export const WAY_CHANGES: readonly WayChange[] = [
  { label: 'Straight from beginning to end', edits: straightenWays },
  { label: 'Mirrored left and right', edits: scaled(-1, 1) },
  { label: 'Mirrored up and down', edits: scaled(1, -1) },
  { label: 'Twice as far', edits: scaled(2, 2) },
  { label: 'Half as far', edits: scaled(0.5, 0.5) },
];
