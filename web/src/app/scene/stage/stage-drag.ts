import {
  anchorAt,
  anchorTo,
  boundsAt,
  channelOf,
  cornerAt,
  dragLookHandle,
  moveLayers,
  movedLayers,
  scaleLayer,
  scaleLayers,
  shareAt,
  gridLines,
  sizeLayer,
  snapGaps,
  snapLines,
  snapMove,
  turnLayers,
  unionOf,
  type Box,
  type Edit,
  type EqualGap,
  type LookHandle,
  type Point,
  type SnapLine,
  type StageMoment,
} from '@wexikine/core';

/** A corner of what is selected, in shares of its box. */
export const CORNERS: readonly Point[] = [
  { x: 0, y: 0 },
  { x: 1, y: 0 },
  { x: 1, y: 1 },
  { x: 0, y: 1 },
];

/** The middle of a side of one layer, in shares of its box: upper, right, lower, left. */
export const SIDES: readonly Point[] = [
  { x: 0.5, y: 0 },
  { x: 1, y: 0.5 },
  { x: 0.5, y: 1 },
  { x: 0, y: 0.5 },
];

/** What is done with the selected layers. */
export type StageGrip =
  | { readonly does: 'move' | 'turn' | 'anchor' }
  | { readonly does: 'scale'; readonly corner: Point }
  | { readonly does: 'side'; readonly side: Point }
  | { readonly does: 'look'; readonly handle: LookHandle };

/** The keys that are held while dragging. */
export type Held = Pick<MouseEvent, 'shiftKey' | 'ctrlKey' | 'metaKey' | 'altKey'>;

/** What a drag comes to: its edits, the lines that were met, and how it is said. */
export interface StageDragged {
  readonly label: string;
  readonly words: string;
  readonly edits: readonly Edit[];
  readonly lines: readonly SnapLine[];
  /** Gaps to neighbours that are alike. */
  readonly gaps?: readonly EqualGap[];
}

/** How a drag is meant besides the keys that are held. */
export interface DragWays {
  /** What corners change: the scale, or the size of the box with its scale as it is. */
  readonly corners: 'scale' | 'size';
  /** Px from one line of the grid to the next; null without one. */
  readonly grid: number | null;
}

/** Corners scale, and there is no grid. */
export const PLAIN_WAYS: DragWays = { corners: 'scale', grid: null };

/** Corners of what is selected, in scene px, from its top left one round: one layer's own, or those of a box around many. */
export function selectionCorners(moment: StageMoment, ids: ReadonlySet<string>): Point[] {
  const [first, ...others] = movedLayers(moment, ids);
  if (first === undefined) return [];
  if (others.length === 0) return CORNERS.map((corner) => cornerAt(moment, first, corner));
  const box = unionOf([first, ...others].map((index) => boundsAt(moment.frame, index)));
  return box ? cornersOf(box) : [];
}

function cornersOf({ left, right, top, bottom }: Box): Point[] {
  return CORNERS.map(({ x, y }) => ({ x: x === 0 ? left : right, y: y === 0 ? top : bottom }));
}

/** The point about which a selection is turned: the anchor of one layer, the middle of many. */
export function pivotOf(moment: StageMoment, ids: ReadonlySet<string>): Point {
  const [first, ...others] = movedLayers(moment, ids);
  if (first !== undefined && others.length === 0) return anchorAt(moment, first);
  const corners = selectionCorners(moment, ids);
  return middle(corners[0] ?? { x: 0, y: 0 }, corners[2] ?? { x: 0, y: 0 });
}

function middle(a: Point, b: Point): Point {
  return { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 };
}

/** True for a point within a four-sided shape whose corners go round. */
export function isWithin({ x, y }: Point, corners: readonly Point[]): boolean {
  const sides = corners.map((a, i) => {
    const b = corners[(i + 1) % corners.length];
    return (b.x - a.x) * (y - a.y) - (b.y - a.y) * (x - a.x);
  });
  return corners.length > 2 && (sides.every((side) => side >= 0) || sides.every((side) => side <= 0));
}

function nameOf(moment: StageMoment, indices: readonly number[]): string {
  return indices.length === 1 ? `“${moment.compiled.layers[indices[0]].name}”` : `${indices.length} layers`;
}

const STEP_DEGREES = 15;

function rounded(value: number, digits = 1): string {
  return String(Number(value.toFixed(digits)) + 0).replace('-', '−');
}

/** What a drag of the selected layers from one point of the scene to another comes to. `reach` is that of snapping, px. */
export function dragStage(
  moment: StageMoment,
  ids: ReadonlySet<string>,
  grip: StageGrip,
  from: Point,
  to: Point,
  held: Held,
  reach: number,
  ways: DragWays = PLAIN_WAYS,
): StageDragged {
  const indices = movedLayers(moment, ids);
  const what = nameOf(moment, indices);
  switch (grip.does) {
    case 'move':
      return moveTo(moment, ids, indices, { x: to.x - from.x, y: to.y - from.y }, held, reach, ways.grid);
    case 'turn': {
      const pivot = pivotOf(moment, ids);
      const angle = (point: Point): number => (Math.atan2(point.y - pivot.y, point.x - pivot.x) * 180) / Math.PI;
      const way = ((angle(to) - angle(from) + 540) % 360) - 180;
      const by = held.shiftKey ? Math.round(way / STEP_DEGREES) * STEP_DEGREES : Math.round(way * 10) / 10;
      return {
        label: `Turn ${what}`,
        words: `${by > 0 ? '+' : ''}${rounded(by)}°`,
        edits: turnLayers(moment, ids, by, pivot),
        lines: [],
      };
    }
    case 'anchor':
      return anchorDragged(moment, indices, to, held, reach);
    case 'look': {
      const set = indices.length === 1 ? dragLookHandle(moment, indices[0], grip.handle, to, held.shiftKey) : null;
      return { ...(set ?? { label: '', words: '', edits: [] }), lines: [] };
    }
    case 'side':
      return sideTo(moment, ids, indices, grip.side, from, to, held, ways.corners);
    case 'scale':
      return scaleTo(moment, ids, indices, grip.corner, from, to, held, ways.corners);
  }
}

/** The anchor follows the pointer, and takes the corners, sides and the middle of its box. */
function anchorDragged(
  moment: StageMoment,
  indices: readonly number[],
  to: Point,
  held: Held,
  reach: number,
): StageDragged {
  const [index] = indices;
  const label = `Set the anchor of ${nameOf(moment, indices)}`;
  const share = index === undefined ? null : shareAt(moment, index, to);
  if (index === undefined || !share) return { label, words: '', edits: [], lines: [] };
  const places = [0, 0.5, 1].flatMap((y) => [0, 0.5, 1].map((x) => ({ x, y })));
  const near = places.find((place) => {
    const at = cornerAt(moment, index, place);
    return Math.hypot(at.x - to.x, at.y - to.y) <= reach;
  });
  const isFree = held.ctrlKey || held.metaKey;
  const place = near && !isFree ? near : { x: Math.round(share.x * 1000) / 1000, y: Math.round(share.y * 1000) / 1000 };
  const words = `${rounded(place.x * 100)} × ${rounded(place.y * 100)} %`;
  return { label, words, edits: anchorTo(moment, index, place), lines: [] };
}

function moveTo(
  moment: StageMoment,
  ids: ReadonlySet<string>,
  indices: readonly number[],
  way: Point,
  held: Held,
  reach: number,
  grid: number | null,
): StageDragged {
  const isAcross = Math.abs(way.x) >= Math.abs(way.y);
  const straight = held.shiftKey ? { x: isAcross ? way.x : 0, y: isAcross ? 0 : way.y } : way;
  const whole = { x: Math.round(straight.x), y: Math.round(straight.y) };
  const box = unionOf(indices.map((index) => boundsAt(moment.frame, index)));
  const isFree = held.ctrlKey || held.metaKey || !box;
  const others = isFree ? [] : boxesBeside(moment, indices);
  const all =
    grid === null
      ? snapLines(moment.scene, others)
      : [...snapLines(moment.scene, others), ...gridLines(moment.scene, grid)];
  const snapped = isFree ? { by: whole, lines: [] } : snapMove(box, whole, all, reach);
  // Where no line is met, gaps that become alike are.
  const met = new Set(snapped.lines.map((line) => line.way));
  const spaced = isFree ? { by: snapped.by, gaps: [] } : snapGaps(box, snapped.by, others, reach, met);
  const by = held.shiftKey ? { x: isAcross ? spaced.by.x : 0, y: isAcross ? 0 : spaced.by.y } : spaced.by;
  const gaps = held.shiftKey ? spaced.gaps.filter(({ way: one }) => (one === 'x') === isAcross) : spaced.gaps;
  const [first] = indices;
  const anchor = first === undefined ? by : anchorAt(moment, first);
  const words =
    indices.length === 1
      ? `x ${rounded(anchor.x + by.x)}  y ${rounded(anchor.y + by.y)}`
      : `${by.x < 0 ? '' : '+'}${rounded(by.x)}, ${by.y < 0 ? '' : '+'}${rounded(by.y)} px`;
  return {
    label: `Move ${nameOf(moment, indices)}`,
    words,
    edits: moveLayers(moment, ids, by),
    lines: snapped.lines,
    gaps,
  };
}

/** Boxes of all other layers that are on and that no group holds. */
function boxesBeside({ scene, compiled, frame, sets }: StageMoment, indices: readonly number[]): Box[] {
  const own = new Set(indices);
  const others = compiled.layers.flatMap((layer, index) => {
    const isSeen = !layer.hidden && compiled.parents[index] < 0 && (sets === 'rest' || frame.live[index] === 1);
    return isSeen && !own.has(index) ? [boundsAt(frame, index)] : [];
  });
  // What covers the frame has the frame's own lines.
  return others.filter(({ left, right, top, bottom }) => right - left < scene.width || bottom - top < scene.height);
}

function scaleTo(
  moment: StageMoment,
  ids: ReadonlySet<string>,
  indices: readonly number[],
  corner: Point,
  from: Point,
  to: Point,
  held: Held,
  changes: DragWays['corners'],
): StageDragged {
  const label = `${changes === 'size' ? 'Resize' : 'Scale'} ${nameOf(moment, indices)}`;
  const corners = selectionCorners(moment, ids);
  const at = CORNERS.findIndex(({ x, y }) => x === corner.x && y === corner.y);
  const opposite = corners[(at + 2) % 4] ?? from;
  const pivot = held.altKey ? pivotOf(moment, ids) : opposite;
  const [first] = indices;
  // A size goes freely along both sides, and with Shift keeps its ratio; a scale the other way round.
  const isFree = held.shiftKey === (changes === 'scale');
  if (indices.length === 1 && first !== undefined && (isFree || changes === 'size')) {
    const free = freeShares(moment, first, pivot, from, to);
    const larger = Math.max(free.x, free.y);
    const shares = isFree ? free : { x: larger, y: larger };
    const kept = held.altKey ? anchorShares(moment, first) : { x: 1 - corner.x, y: 1 - corner.y };
    const words = `${rounded(shares.x * 100)} × ${rounded(shares.y * 100)} %`;
    const { id } = moment.compiled.layers[first];
    const edits = changes === 'size' ? sizeLayer(moment, id, shares, kept) : scaleLayer(moment, id, shares, kept);
    return { label, words: changes === 'size' ? sizeWords(moment, first, shares) : words, edits, lines: [] };
  }
  const reach = Math.hypot(from.x - pivot.x, from.y - pivot.y);
  const along = ((to.x - pivot.x) * (from.x - pivot.x) + (to.y - pivot.y) * (from.y - pivot.y)) / (reach * reach || 1);
  const by = reach === 0 ? 1 : Math.round(along * 1000) / 1000;
  return { label, words: `${rounded(by * 100)} %`, edits: scaleLayers(moment, ids, by, pivot), lines: [] };
}

/** One layer made longer or shorter across or down by one of its sides, from the other side or the anchor; both ways alike with Shift. */
function sideTo(
  moment: StageMoment,
  ids: ReadonlySet<string>,
  indices: readonly number[],
  side: Point,
  from: Point,
  to: Point,
  held: Held,
  changes: DragWays['corners'],
): StageDragged {
  const label = `${changes === 'size' ? 'Resize' : 'Scale'} ${nameOf(moment, indices)}`;
  const [index] = indices;
  if (index === undefined || indices.length !== 1) return { label, words: '', edits: [], lines: [] };
  const opposite = { x: 1 - side.x, y: 1 - side.y };
  const pivot = held.altKey ? pivotOf(moment, ids) : cornerAt(moment, index, opposite);
  const free = freeShares(moment, index, pivot, from, to);
  const isAcross = side.y === 0.5;
  const share = isAcross ? free.x : free.y;
  const one = isAcross ? { x: share, y: 1 } : { x: 1, y: share };
  const shares = held.shiftKey ? { x: share, y: share } : one;
  const kept = held.altKey ? anchorShares(moment, index) : opposite;
  const { id } = moment.compiled.layers[index];
  return changes === 'size'
    ? { label, words: sizeWords(moment, index, shares), edits: sizeLayer(moment, id, shares, kept), lines: [] }
    : {
        label,
        words: `${rounded(shares.x * 100)} × ${rounded(shares.y * 100)} %`,
        edits: scaleLayer(moment, id, shares, kept),
        lines: [],
      };
}

/** "320 × 180 px": how large a box becomes. */
function sizeWords({ compiled, frame }: StageMoment, index: number, shares: Point): string {
  const stride = frame.values.length / compiled.layers.length;
  const side = (id: 'size.x' | 'size.y', share: number): string =>
    rounded(frame.values[index * stride + channelOf(id).slot] * Math.abs(share));
  return `${side('size.x', shares.x)} × ${side('size.y', shares.y)} px`;
}

/** How much further the pointer is from a point along each of a layer's own sides. */
function freeShares(moment: StageMoment, index: number, pivot: Point, from: Point, to: Point): Point {
  const [origin, right, below] = [CORNERS[0], CORNERS[1], CORNERS[3]].map((corner) => cornerAt(moment, index, corner));
  const share = (side: Point): number => {
    const way = { x: side.x - origin.x, y: side.y - origin.y };
    const before = (from.x - pivot.x) * way.x + (from.y - pivot.y) * way.y;
    const after = (to.x - pivot.x) * way.x + (to.y - pivot.y) * way.y;
    return Math.abs(before) < 1e-9 ? 1 : Math.round((after / before) * 1000) / 1000;
  };
  return { x: share(right), y: share(below) };
}

function anchorShares({ compiled, frame }: StageMoment, index: number): Point {
  const stride = frame.values.length / compiled.layers.length;
  const valueOf = (id: 'anchor.x' | 'anchor.y'): number => frame.values[index * stride + channelOf(id).slot];
  return { x: valueOf('anchor.x'), y: valueOf('anchor.y') };
}
