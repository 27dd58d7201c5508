import type { EqualGap, Point, SnapLine } from '@wexikine/core';
import { SIDES } from './stage-drag';

/** Where the scene lies on the stage: px of the page for one of the scene, and the frame's top left corner. */
export interface StagePlace {
  readonly zoom: number;
  readonly x: number;
  readonly y: number;
}

/** From the middle of the upper side to the knob that turns, page px. */
const KNOB = 26;
/** A side that is shorter on the page, px, has no handle of its own. */
const LEAST_SIDE = 48;
/** Half of a look's handle, page px. */
const DIAMOND = 6;
/** Half of the strokes at the ends of a gap, page px, and how far above it its width is written. */
const CAP = 4;
const ABOVE = 6;
/** Lines reach over any screen. */
const FAR = 8192;

/** A place of the scene on the page. */
export function toPage({ zoom, x: left, y: top }: StagePlace, { x, y }: Point): Point {
  return { x: left + x * zoom, y: top + y * zoom };
}

/** A place on the page in the scene. */
export function toScene({ zoom, x: left, y: top }: StagePlace, { x, y }: Point): Point {
  return { x: (x - left) / zoom, y: (y - top) / zoom };
}

function between(a: Point, b: Point): Point {
  return { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 };
}

/** A handle at the middle of a side. */
export interface SideMark extends Point {
  readonly side: Point;
  readonly place: number;
  readonly isAcross: boolean;
}

/** Middles of the sides between four corners on the page, where they are long enough to be taken hold of beside these. */
export function sideMarks(corners: readonly Point[]): SideMark[] {
  if (corners.length !== 4) return [];
  return SIDES.flatMap((side, place): SideMark[] => {
    const [a, b] = [corners[place], corners[(place + 1) % 4]];
    if (Math.hypot(a.x - b.x, a.y - b.y) < LEAST_SIDE) return [];
    return [{ side, place, ...between(a, b), isAcross: side.y === 0.5 }];
  });
}

/** The knob that turns: straight out from the middle of the upper side. Null without corners. */
export function knobMark([a, b, c]: readonly Point[]): { readonly from: Point; readonly to: Point } | null {
  if (!a || !b || !c) return null;
  const from = between(a, b);
  const [dx, dy] = [b.x - c.x, b.y - c.y];
  const length = Math.hypot(dx, dy) || 1;
  return { from, to: { x: from.x + (dx / length) * KNOB, y: from.y + (dy / length) * KNOB } };
}

/** A line that was met, over all of the stage, as SVG path data. */
export function lineMark(
  place: StagePlace,
  { way, at, of }: SnapLine,
): { readonly d: string; readonly of: SnapLine['of'] } {
  const { x, y } = toPage(place, { x: at, y: at });
  return { d: way === 'x' ? `M${x} 0V${FAR}` : `M0 ${y}H${FAR}`, of };
}

/** A gap that is as wide as others: a bar with its ends as SVG path data, and its width in px of the scene above it. */
export function gapMark(place: StagePlace, { way, from, to, across }: EqualGap): Point & { d: string; text: string } {
  const [a, b] = [from, to].map((at) => toPage(place, way === 'x' ? { x: at, y: across } : { x: across, y: at }));
  const cap = (at: Point): string =>
    way === 'x' ? `M${at.x} ${at.y - CAP}v${2 * CAP}` : `M${at.x - CAP} ${at.y}h${2 * CAP}`;
  const middle = between(a, b);
  return {
    d: `${cap(a)}${cap(b)}M${a.x} ${a.y}L${b.x} ${b.y}`,
    x: middle.x,
    y: middle.y - ABOVE,
    text: String(Math.round(to - from)),
  };
}

/** A look's handle as SVG path data. */
export function diamondMark({ x, y }: Point): string {
  return `M${x - DIAMOND} ${y}L${x} ${y - DIAMOND}L${x + DIAMOND} ${y}L${x} ${y + DIAMOND}z`;
}
