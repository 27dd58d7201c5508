import type { Layer, Scene } from '@wexikine/core';

const MARGIN = 0.1;
const FILL_OF_CELL = 0.8;
const COLOURS = ['#3f5d7d', '#4b7a72', '#8a6a4f', '#6a5a86'];
const LARGEST_TEXT = 64;

interface Cell {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** Cells of a grid over the frame for a number of things, filled row by row. */
export function gridCells(width: number, height: number, count: number): Cell[] {
  const even = Math.ceil(Math.sqrt((count * width) / (height * 2)));
  // One column more where that leaves fewer places empty: three lie in one row, seven as four and three.
  const emptyWith = (columns: number): number => Math.ceil(count / columns) * columns - count;
  const columns = emptyWith(even + 1) < emptyWith(even) ? even + 1 : even;
  const rows = Math.ceil(count / columns);
  const [cellWidth, cellHeight] = [(width * (1 - 2 * MARGIN)) / columns, (height * (1 - 2 * MARGIN)) / rows];
  return Array.from({ length: count }, (_, i) => ({
    x: width * MARGIN + cellWidth * ((i % columns) + 0.5),
    y: height * MARGIN + cellHeight * (Math.floor(i / columns) + 0.5),
    width: cellWidth,
    height: cellHeight,
  }));
}

function sourceOf(kind: 'card' | 'word', name: string, height: number): Layer['source'] {
  if (kind === 'card') return { type: 'rectangle' };
  const size = Math.max(8, Math.min(LARGEST_TEXT, Math.round(height * 0.5)));
  return { type: 'text', text: name, font: 'Spline Sans', weight: 500, size, align: 'middle' };
}

/** One layer for each name, in a grid over the frame, as long as the scene. */
export function layersFromNames(
  scene: Scene,
  names: readonly string[],
  kind: 'card' | 'word',
  tag: string,
  newId: () => string,
): Layer[] {
  const cells = gridCells(scene.width, scene.height, names.length);
  return names.map((name, i) => {
    const [width, height] = [cells[i].width * FILL_OF_CELL, cells[i].height * FILL_OF_CELL];
    return {
      id: newId(),
      name,
      kind,
      parent: null,
      tags: tag === '' ? [] : [tag],
      locked: false,
      hidden: false,
      span: { in: 0, out: scene.length },
      rest: {
        'position.x': cells[i].x,
        'position.y': cells[i].y,
        'size.x': width,
        'size.y': height,
        corner: kind === 'card' ? 8 : 0,
      },
      tracks: {},
      look: { fill: kind === 'card' ? COLOURS[i % COLOURS.length] : '#f4ecdc' },
      source: sourceOf(kind, name, height),
      data: {},
    };
  });
}
