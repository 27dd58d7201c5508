import type { Ticks } from '@wexikine/core';
import { thinned, type MarkKind, type Strip, type ThinnedMark } from './strip';
import { xIn, type TimeWindow } from './time-window';

const WING = 5;
/** Height of a strip in px. */
export const STRIP_HEIGHT = 29;

/** A strip as SVG path data: hundreds of elements a change would keep the sheet waiting. */
export interface StripPaths {
  readonly span: { readonly isMoving: boolean; readonly top: number; readonly height: number };
  readonly before: string;
  readonly curve: string;
  readonly gone: string;
  /** Marks of keys that stand. */
  readonly standing: string;
  /** Marks of keys that a dry run makes. */
  readonly made: string;
}

/** What is drawn of a strip, by how it is drawn. */
export function stripPaths({ before, curve, gone, marks }: Strip): StripPaths {
  const apart = thinned(marks);
  const marksOf = (isMade: boolean): string =>
    apart
      .filter(({ kind }) => (kind !== 'standing') === isMade)
      .map(markPath)
      .join('');
  const isMoving = marks.length > 0;
  return {
    span: isMoving ? { isMoving, top: 4, height: STRIP_HEIGHT - 8 } : { isMoving, top: 12, height: 5 },
    before,
    curve,
    gone: gone.map(gonePath).join(''),
    standing: marksOf(false),
    made: marksOf(true),
  };
}

/** A key that goes: a small cross at the foot of the row. */
function gonePath(x: number): string {
  return `M${x - 2.5} 22L${x + 2.5} 27M${x + 2.5} 22L${x - 2.5} 27`;
}

/** Wings by slope on a post; see the component for the posts. */
function markPath({ x, y, arrives, leaves, kind, wing }: ThinnedMark): string {
  const reach = WING * wing;
  const wings = `M${x - reach} ${y - arrives * reach}L${x} ${y}L${x + reach} ${y + leaves * reach}`;
  return `${reach < 1.5 ? '' : wings}${postPath(x, kind)}`;
}

function postPath(x: number, kind: MarkKind): string {
  switch (kind) {
    case 'standing':
      return `M${x} 6V23`;
    case 'added':
      return `M${x} 3V26M${x - 2} 26H${x + 2}`;
    case 'replaced':
      return `M${x} 3V26M${x - 2.5} 26H${x + 2.5}M${x - 2.5} 3H${x + 2.5}`;
  }
}

/** How far beyond the strip's ends the mark of a picked key is seen, px. */
const PICK_REACH = 4;

/** Where keys are picked, as broad posts behind their marks. */
export function pickedPath(times: ReadonlySet<Ticks> | null, window: TimeWindow, width: number): string {
  if (!times) return '';
  return [...times]
    .map((at) => xIn(window, at, width))
    .filter((x) => x >= -PICK_REACH && x <= width + PICK_REACH)
    .map((x) => `M${x.toFixed(1)} 3V${STRIP_HEIGHT - 3}`)
    .join('');
}
