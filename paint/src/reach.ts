import { lineStep, wordLines, type Box } from '@wexikine/core';
import type { Matrix, Patch } from './brush';
import { hasBorder, MITRE_LIMIT, type Subject } from './contents';
import type { Effects } from './effects';
import { valueAt } from './look';
import { BLUR_REACH, type Shadow } from './shadows';

/** Letters reach beyond their line by so many sizes at most. */
const LETTERS = 0.5;
/** A line is at most so many sizes long for each of its letters, however wide they are. */
const WIDEST_LETTER = 1.4;

/** How far words reach beyond their box, px. */
function wordsReach({ layer, frame, index, width, height }: Subject): number {
  const { source } = layer;
  if (source.type !== 'text') return 0;
  const lines = wordLines(source, valueAt(frame, index, 'words.number'));
  const caret = source.caret?.length ?? 0;
  const longest = lines.reduce((most, line) => Math.max(most, line.length), 0) + 2 * caret;
  const spacing = Math.max(0, valueAt(frame, index, 'letterSpacing') + Math.max(0, source.wordSpacing ?? 0));
  const long = longest * (source.size * WIDEST_LETTER + spacing);
  return Math.max(0, long - width, lines.length * lineStep(source) - height) + source.size * LETTERS;
}

/** How far a layer is drawn beyond its box without its effects, px of the layer. */
function contentsReach(subject: Subject): number {
  const { frame, index, layer } = subject;
  const isRound = layer.source.type !== 'path' && layer.source.type !== 'text';
  const stroke = valueAt(frame, index, 'stroke.width') / 2;
  const border = hasBorder(subject) ? valueAt(frame, index, 'border.width') : 0;
  return (stroke + border) * (isRound ? 1 : MITRE_LIMIT) + wordsReach(subject);
}

function grown({ left, top, right, bottom }: Box, by: number): Box {
  return { left: left - by, top: top - by, right: right + by, bottom: bottom + by };
}

/** A box with the shadow that it throws, and with what throws it, which is grown where it stands first. */
function withShadow(box: Box, { x, y, blur, spread = 0 }: Shadow): Box {
  const { left, top, right, bottom } = grown(box, blur * BLUR_REACH + spread);
  const own = grown(box, spread);
  return {
    left: Math.min(own.left, left + x),
    top: Math.min(own.top, top + y),
    right: Math.max(own.right, right + x),
    bottom: Math.max(own.bottom, bottom + y),
  };
}

/** Where a layer is seen, with its effects; in its own pixels. */
export function seenBox(subject: Subject, effects: Effects | null): Box {
  const box = grown({ left: 0, top: 0, right: subject.width, bottom: subject.height }, contentsReach(subject));
  if (!effects) return box;
  const { shadows, blur, streak } = effects;
  const soft = grown(box, blur * BLUR_REACH + (streak ? Math.hypot(streak.x, streak.y) / 2 : 0));
  return shadows.reduce(withShadow, soft);
}

/** The part of the canvas where a box of a layer lies; whole pixels, within the bounds. */
export function patchOf([a, b, c, d, e, f]: Matrix, { left, top, right, bottom }: Box, bounds: Patch): Patch {
  const across = [a * left, a * right, c * top, c * bottom];
  const down = [b * left, b * right, d * top, d * bottom];
  const x = e + Math.min(across[0], across[1]) + Math.min(across[2], across[3]);
  const y = f + Math.min(down[0], down[1]) + Math.min(down[2], down[3]);
  const endX = e + Math.max(across[0], across[1]) + Math.max(across[2], across[3]);
  const endY = f + Math.max(down[0], down[1]) + Math.max(down[2], down[3]);
  return within(Math.floor(x) - 1, Math.floor(y) - 1, Math.ceil(endX) + 1, Math.ceil(endY) + 1, bounds);
}

function within(left: number, top: number, right: number, bottom: number, bounds: Patch): Patch {
  const x = Math.max(bounds.x, left);
  const y = Math.max(bounds.y, top);
  const width = Math.max(0, Math.min(bounds.x + bounds.width, right) - x);
  const height = Math.max(0, Math.min(bounds.y + bounds.height, bottom) - y);
  return { x, y, width, height };
}

/** The smallest part of the canvas that holds both; one that is empty adds nothing. */
export function united(one: Patch, other: Patch): Patch {
  if (one.width === 0 || one.height === 0) return other;
  if (other.width === 0 || other.height === 0) return one;
  const [x, y] = [Math.min(one.x, other.x), Math.min(one.y, other.y)];
  const right = Math.max(one.x + one.width, other.x + other.width);
  const bottom = Math.max(one.y + one.height, other.y + other.height);
  return { x, y, width: right - x, height: bottom - y };
}
