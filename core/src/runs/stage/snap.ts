import type { Box, Point } from '../../basics/transform';

/** A line across the scene that what is dragged has come to: upright at an x, or level at a y, px. */
export interface SnapLine {
  readonly way: 'x' | 'y';
  readonly at: number;
  /** What it belongs to: the frame, a safe area, the grid, or another layer's side or middle. */
  readonly of: 'frame' | 'safe area' | 'grid' | 'layer';
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

/** Lines of a grid over the frame, so many px apart from its top left corner on. */
export function gridLines(frame: { readonly width: number; readonly height: number }, step: number): SnapLine[] {
  if (!(step >= 1)) return [];
  const along = (way: 'x' | 'y', length: number): SnapLine[] =>
    Array.from({ length: Math.floor(length / step) + 1 }, (_, i) => ({ way, at: i * step, of: 'grid' }));
  return [...along('x', frame.width), ...along('y', frame.height)];
}

/** A gap between two neighbours that is as wide as another one: from … to along its way, at a place across it, px. */
export interface EqualGap {
  readonly way: 'x' | 'y';
  readonly from: number;
  readonly to: number;
  readonly across: number;
}

interface Side {
  readonly from: number;
  readonly to: number;
}

function along({ left, right, top, bottom }: Box, way: 'x' | 'y'): Side {
  return way === 'x' ? { from: left, to: right } : { from: top, to: bottom };
}

/** What stands beside a box along a way: boxes that it overlaps across it, in order, and where they do. */
function besides(box: Box, others: readonly Box[], way: 'x' | 'y'): Side[] {
  const own = along(box, way === 'x' ? 'y' : 'x');
  return others
    .filter((other) => {
      const side = along(other, way === 'x' ? 'y' : 'x');
      return side.to > own.from && side.from < own.to;
    })
    .map((other) => along(other, way))
    .sort((a, b) => a.from - b.from);
}

interface GapChoice {
  /** Where the box is to begin. */
  readonly from: number;
  readonly gaps: readonly Side[];
}

/** Places at which the gaps to neighbours are alike: between two of them, or going on with the gap of the two beside it. */
function gapChoices({ from, to }: Side, row: readonly Side[]): GapChoice[] {
  const length = to - from;
  const middle = (from + to) / 2;
  const before = row.filter((one) => (one.from + one.to) / 2 <= middle).sort((a, b) => b.to - a.to);
  const after = row.filter((one) => (one.from + one.to) / 2 > middle);
  const [near, beyond] = before;
  const [next, further] = after;
  const choices: GapChoice[] = [];
  if (near && next && next.from - near.to > length) {
    const gap = (next.from - near.to - length) / 2;
    const at = near.to + gap;
    choices.push({
      from: at,
      gaps: [
        { from: near.to, to: at },
        { from: at + length, to: next.from },
      ],
    });
  }
  if (near && beyond && near.from > beyond.to) {
    const at = near.to + (near.from - beyond.to);
    choices.push({
      from: at,
      gaps: [
        { from: beyond.to, to: near.from },
        { from: near.to, to: at },
      ],
    });
  }
  if (next && further && further.from > next.to) {
    const at = next.from - (further.from - next.to) - length;
    choices.push({
      from: at,
      gaps: [
        { from: at + length, to: next.from },
        { from: next.to, to: further.from },
      ],
    });
  }
  return choices;
}

/**
 * A way (px) changed so that the gaps between the box that goes it and its neighbours are alike, where that is within reach; each
 * direction by itself, and none that is `met` already by a line.
 */
export function snapGaps(
  box: Box,
  by: Point,
  others: readonly Box[],
  reach: number,
  met: ReadonlySet<'x' | 'y'> = new Set(),
): { readonly by: Point; readonly gaps: readonly EqualGap[] } {
  const moved = { left: box.left + by.x, right: box.right + by.x, top: box.top + by.y, bottom: box.bottom + by.y };
  const gaps: EqualGap[] = [];
  const extra = (way: 'x' | 'y'): number => {
    if (met.has(way)) return 0;
    const side = along(moved, way);
    const [best] = gapChoices(side, besides(moved, others, way))
      .filter(({ from }) => Math.abs(from - side.from) <= reach)
      .sort((a, b) => Math.abs(a.from - side.from) - Math.abs(b.from - side.from));
    if (!best) return 0;
    const cross = along(moved, way === 'x' ? 'y' : 'x');
    gaps.push(...best.gaps.map(({ from, to }) => ({ way, from, to, across: (cross.from + cross.to) / 2 })));
    return best.from - side.from;
  };
  const [x, y] = [extra('x'), extra('y')];
  return { by: { x: by.x + x, y: by.y + y }, gaps };
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
