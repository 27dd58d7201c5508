import type { Layer, Point, Scene, Ticks } from '@wexikine/core';
import { gridCells } from '../dialogs/new-layers';
import type { BroughtFile } from './messages';

type Picture = Extract<BroughtFile, { type: 'picture' | 'clip' }>;

/** Share of the frame, or of a cell of the grid, that a picture fills at most. */
const FILLS = 0.8;
const ALONE = 0.6;

/** Where something is to stand: its middle, and scene px for one of its own. */
export interface Placed {
  readonly at: Point;
  readonly scale: number;
}

/** A place for each thing: one where it was dropped or in the middle, several in a grid; whole, and not larger than it is. */
export function placesFor(
  { width, height }: Pick<Scene, 'width' | 'height'>,
  things: readonly { readonly width: number; readonly height: number }[],
  at: Point | null,
): Placed[] {
  const cells =
    things.length === 1
      ? [{ x: at?.x ?? width / 2, y: at?.y ?? height / 2, width: width * ALONE, height: height * ALONE }]
      : gridCells(width, height, things.length).map((cell) => ({
          ...cell,
          width: cell.width * FILLS,
          height: cell.height * FILLS,
        }));
  return things.map((thing, i) => ({
    at: { x: cells[i].x, y: cells[i].y },
    scale: Math.min(1, cells[i].width / thing.width, cells[i].height / thing.height),
  }));
}

/** What a layer shows of a picture or a clip that came in. */
export function sourceOf(file: Picture): Layer['source'] {
  const { href, width, height } = file;
  if (file.type === 'picture') return { type: 'picture', href, width, height };
  return { type: 'clip', href, width, height, from: 0, length: file.length, pace: 1 };
}

/** A layer that shows a picture where it is placed; a clip from the scene's beginning to its own end. */
export function pictureLayer(scene: Scene, picture: Picture, { at, scale }: Placed, newId: () => string): Layer {
  return {
    id: newId(),
    name: picture.name,
    kind: 'picture',
    parent: null,
    tags: [picture.type],
    locked: false,
    hidden: false,
    span: { in: 0, out: picture.type === 'clip' ? Math.min(picture.length, scene.length) : scene.length },
    rest: {
      'position.x': at.x,
      'position.y': at.y,
      'size.x': picture.width * scale,
      'size.y': picture.height * scale,
    },
    tracks: {},
    look: {},
    source: sourceOf(picture),
    data: {},
  };
}

/** A layer that plays a sound from a time of the scene on, to its end. */
export function soundLayer(
  scene: Pick<Scene, 'length'>,
  sound: { readonly name: string; readonly href: string; readonly length: Ticks },
  at: Ticks,
  newId: () => string,
): Layer {
  const out = Math.min(at + sound.length, Math.max(scene.length, at + 1));
  return {
    id: newId(),
    name: sound.name,
    kind: 'sound',
    parent: null,
    tags: ['sound'],
    locked: false,
    hidden: false,
    span: { in: at, out },
    rest: {},
    tracks: {},
    look: {},
    source: { type: 'sound', href: sound.href, from: 0, length: sound.length, gain: 1 },
    data: {},
  };
}

const counted = (count: number, one: string, many: string): string => (count === 1 ? `1 ${one}` : `${count} ${many}`);

/** What came in and what did not, as a sentence. */
export function broughtWords(files: readonly BroughtFile[]): string {
  const count = (type: BroughtFile['type']): number => files.filter((file) => file.type === type).length;
  const came = [
    ...(count('picture') > 0 ? [`${counted(count('picture'), 'picture', 'pictures')} came in`] : []),
    ...(count('clip') > 0 ? [`${counted(count('clip'), 'clip', 'clips')} came in, without sound`] : []),
    ...(count('sound') > 0 ? [`${counted(count('sound'), 'sound', 'sounds')} came in`] : []),
    ...(count('drawing') > 0 ? [`${counted(count('drawing'), 'drawing', 'drawings')} came in`] : []),
    ...files
      .flatMap((file) => (file.type === 'font' ? [`the font “${file.family}” is at hand for words now`] : []))
      .slice(0, 4),
  ];
  const failed = files.flatMap((file) => (file.type === 'problem' ? [`“${file.name}” did not: ${file.problem}`] : []));
  const shown = failed.slice(0, 3);
  const rest = failed.length - shown.length;
  const parts = [
    ...(came.length > 0 ? came : ['Nothing came in']),
    ...shown,
    ...(rest > 0 ? [`${rest} more did not`] : []),
  ];
  const text = parts.join('; ');
  return `${text[0].toUpperCase()}${text.slice(1)}.`;
}
