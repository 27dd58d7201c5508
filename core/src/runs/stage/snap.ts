import type { Box, Point } from '../../basics/transform';

/** A line across the scene that what is dragged has come to: upright at an x, or level at a y, px. */
export interface SnapLine {
  readonly way: 'x' | 'y';
  readonly at: number;
  /** What it belongs to: the frame, a safe area, or another layer's side or middle. */
  readonly of: 'frame' | 'safe area' | 'layer';
}

/** Safe areas as shares of the frame. Source: SMPTE ST 2046-1. */
const SAFE_AREAS = [0.93, 0.9];

/** Sides and middles of boxes, those of the frame and its safe areas: what dragged layers snap to. */
export function snapLines(
  frame: { readonly width: number; readonly height: number },
  others: readonly Box[],
): SnapLine[] {
  const both = (x: number, y: number, of: SnapLine['of']): SnapLine[] => [
    { way: 'x', at: x, of },
    { way: 'y', at: y, of },
  ];
  const safe = SAFE_AREAS.flatMap((share) =>
    [(1 - share) / 2, (1 + share) / 2].flatMap((at) => both(frame.width * at, frame.height * at, 'safe area')),
  );
  return [
    ...[0, 0.5, 1].flatMap((at) => both(frame.width * at, frame.height * at, 'frame')),
    ...safe,
    ...others.flatMap(({ left, right, top, bottom }) => [
      ...both(left, top, 'layer'),
      ...both((left + right) / 2, (top + bottom) / 2, 'layer'),
      ...both(right, bottom, 'layer'),
    ]),
  ];
}

/** How a way is changed so that a side or the middle of a box comes to lie on a line. */
export interface Snapped {
  readonly by: Point;
  readonly lines: readonly SnapLine[];
}

const ALIKE = 1e-6;

/** The nearest line within reach for one direction; the way to it, and 0 where there is none. */
function nearestLine(places: readonly number[], lines: readonly SnapLine[], reach: number): number | null {
  let best: number | null = null;
  for (const place of places) {
    for (const { at } of lines) {
      const way = at - place;
      if (Math.abs(way) <= reach && (best === null || Math.abs(way) < Math.abs(best))) best = way;
    }
  }
  return best;
}

/** A way (px) changed so that the box that goes it snaps to lines within reach; each direction by itself. */
export function snapMove(box: Box, by: Point, lines: readonly SnapLine[], reach: number): Snapped {
  const found: SnapLine[] = [];
  const snapped = (way: 'x' | 'y', from: number, to: number): number => {
    const go = by[way];
    const places = [from + go, (from + to) / 2 + go, to + go];
    const own = lines.filter((line) => line.way === way);
    const extra = nearestLine(places, own, reach);
    if (extra === null) return go;
    for (const line of own) {
      const isMet = places.some((place) => Math.abs(place + extra - line.at) < ALIKE);
      if (isMet && !found.some(({ way: other, at }) => other === way && Math.abs(at - line.at) < ALIKE))
        found.push(line);
    }
    return go + extra;
  };
  const [x, y] = [snapped('x', box.left, box.right), snapped('y', box.top, box.bottom)];
  return { by: { x, y }, lines: found };
}

/** The smallest box around some boxes; null around none. */
export function unionOf(boxes: readonly Box[]): Box | null {
  if (boxes.length === 0) return null;
  return {
    left: Math.min(...boxes.map(({ left }) => left)),
    right: Math.max(...boxes.map(({ right }) => right)),
    top: Math.min(...boxes.map(({ top }) => top)),
    bottom: Math.max(...boxes.map(({ bottom }) => bottom)),
  };
}
