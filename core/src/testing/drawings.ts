import type { Layer } from '../scene/layer';
import {
  drawingLayers,
  readDrawing,
  wholeAt,
  type Drawing,
  type DrawingLevel,
  type DrawingOptions,
} from '../out/drawing';

/** A drawing out of its text; throws with the reason where it is none. */
export function drawingOf(text: string): Drawing {
  const read = readDrawing(text);
  if (!read.ok) throw new Error(read.message);
  return read.drawing;
}

/** The layers that a drawing becomes, its middle at (100, 50); letters are half as wide as they are high. */
export function layersOf(
  text: string,
  level: DrawingLevel = 'all',
  scale = 1,
  more: Partial<DrawingOptions> = {},
): readonly Layer[] {
  const drawing = drawingOf(text);
  let made = 0;
  return drawingLayers(drawing, {
    whole: wholeAt(drawing, level),
    name: 'Drawing',
    at: { x: 100, y: 50 },
    scale,
    length: 1_000,
    newId: () => `n${++made}`,
    measure: ({ text: words, size }) => ({ width: words.length * size * 0.5, ascent: size * 0.9, descent: size * 0.2 }),
    ...more,
  }).layers;
}

/** An SVG of 200 by 100 px around some elements. */
export const svg = (inside: string, more = 'viewBox="0 0 200 100"'): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" ${more}>${inside}</svg>`;
