import {
  CHANNEL_COUNT,
  channelOf,
  inverse,
  matrixAt,
  outlinePath,
  transformPoint,
  type ChannelId,
  type Layer,
  type Point,
} from '@wexikine/core';
import type { Picture } from '@wexikine/paint';

/** Whether a path holds a point, or its line of a width goes through it. */
export interface PathTester {
  readonly fills: (d: string, point: Point, rule: 'nonzero' | 'evenodd') => boolean;
  readonly strokes: (d: string, point: Point, width: number) => boolean;
}

/** Paths that are kept, so that a moving pointer does not read each of them anew. */
const MOST_PATHS = 500;

/** Asks the browser; no context is made before something is asked. */
export function createPathTester(): PathTester {
  const paths = new Map<string, Path2D>();
  let known: OffscreenCanvasRenderingContext2D | null = null;
  const context = (): OffscreenCanvasRenderingContext2D | null =>
    (known ??= new OffscreenCanvas(1, 1).getContext('2d'));
  const pathOf = (d: string): Path2D => {
    if (paths.size > MOST_PATHS) paths.clear();
    const path = paths.get(d) ?? new Path2D(d);
    paths.set(d, path);
    return path;
  };
  return {
    fills: (d, { x, y }, rule) => context()?.isPointInPath(pathOf(d), x, y, rule) ?? false,
    strokes: (d, { x, y }, width) => {
      const asked = context();
      if (!asked) return false;
      asked.lineWidth = width;
      return asked.isPointInStroke(pathOf(d), x, y);
    },
  };
}

/** Whether a point of the scene lies on what a layer draws: a path as it is filled and outlined, an ellipse, or its box. */
export function isOnLayer(
  { frame }: Pick<Picture, 'frame'>,
  layer: Layer,
  index: number,
  at: Point,
  /** How far beside a line counts as on it, scene px. */
  slack: number,
  tester: PathTester,
): boolean {
  const matrix = matrixAt(frame, index);
  const back = inverse(matrix);
  if (!back) return false;
  const value = (id: ChannelId): number => frame.values[index * CHANNEL_COUNT + channelOf(id).slot];
  const [width, height] = [value('size.x'), value('size.y')];
  const point = transformPoint(back, at);
  const larger = Math.sqrt(Math.abs(matrix[0] * matrix[3] - matrix[1] * matrix[2])) || 1;
  const { look, source } = layer;
  const line = look.stroke === undefined ? 0 : value('stroke.width');
  const reach = slack / larger + line / 2;
  const { x, y } = point;
  if (x < -reach || y < -reach || x > width + reach || y > height + reach) return false;
  if (source.type === 'ellipse') {
    const [rx, ry] = [width / 2 + line / 2, height / 2 + line / 2];
    return rx > 0 && ry > 0 && ((x - width / 2) / rx) ** 2 + ((y - height / 2) / ry) ** 2 <= 1;
  }
  if (source.type !== 'path') return x >= 0 && y >= 0 && x <= width && y <= height;
  const d = outlinePath(source, width, height, 0);
  if (look.fill !== undefined && tester.fills(d, point, look.rule ?? 'nonzero')) return true;
  return (look.stroke !== undefined || look.fill === undefined) && tester.strokes(d, point, Math.max(1, 2 * reach));
}
