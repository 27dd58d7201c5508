import type { Layer, Point, Scene } from '@wexikine/core';
import { gridCells } from '../dialogs/new-layers';
import { MOST_LETTERS, type BroughtFile } from './picture-file';

type Picture = Extract<BroughtFile, { href: string }>;

/** Share of the frame, or of a cell of the grid, that a picture fills at most. */
const FILLS = 0.8;
const ALONE = 0.6;

/** Letters of all pictures of a scene together: a scene of more than 64 MB cannot be saved. */
const SCENE_LETTERS = 40_000_000;

/** How many letters each of so many new pictures may have, beside those that a scene holds. */
export function roomForEach(layers: readonly Pick<Layer, 'source'>[], count: number): number {
  const held = layers.reduce((sum, { source }) => sum + (source.type === 'picture' ? source.href.length : 0), 0);
  return Math.min(MOST_LETTERS, Math.floor((SCENE_LETTERS - held) / Math.max(1, count)));
}

/** A layer for each picture: one where it was dropped or in the middle, several in a grid; whole, and not larger than it is. */
export function pictureLayers(
  scene: Scene,
  pictures: readonly Picture[],
  at: Point | null,
  newId: () => string,
): Layer[] {
  const { width, height } = scene;
  const cells =
    pictures.length === 1
      ? [{ x: at?.x ?? width / 2, y: at?.y ?? height / 2, width: width * ALONE, height: height * ALONE }]
      : gridCells(width, height, pictures.length).map((cell) => ({
          ...cell,
          width: cell.width * FILLS,
          height: cell.height * FILLS,
        }));
  return pictures.map((picture, i) => {
    const cell = cells[i];
    const share = Math.min(1, cell.width / picture.width, cell.height / picture.height);
    return {
      id: newId(),
      name: picture.name,
      kind: 'picture',
      parent: null,
      tags: ['picture'],
      locked: false,
      hidden: false,
      span: { in: 0, out: scene.length },
      rest: {
        'position.x': cell.x,
        'position.y': cell.y,
        'size.x': picture.width * share,
        'size.y': picture.height * share,
      },
      tracks: {},
      look: {},
      source: { type: 'picture', href: picture.href },
      data: {},
    };
  });
}

/** What came in and what did not, as a sentence. */
export function broughtWords(files: readonly BroughtFile[]): string {
  const came = files.filter((file) => 'href' in file).length;
  const failed = files.flatMap((file) => ('problem' in file ? [`“${file.name}” did not: ${file.problem}`] : []));
  const shown = failed.slice(0, 3);
  const rest = failed.length - shown.length;
  const pictures = came === 1 ? '1 picture came in' : `${came === 0 ? 'No' : came} pictures came in`;
  return `${[pictures, ...shown, ...(rest > 0 ? [`${rest} more did not`] : [])].join('; ')}.`;
}
