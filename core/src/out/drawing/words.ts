import type { Point } from '../../basics/transform';
import { lengthOf, styleOf, type Style } from './style';
import type { CssRule } from './css';
import { type Element } from './xml';

/** One line of text that is set from a point of its baseline. */
export interface Line {
  readonly text: string;
  readonly at: Point;
  readonly style: Style;
}

const PLACED = ['rotate', 'textLength', 'lengthAdjust'];
const KNOWN = ['text', 'tspan', 'title', 'desc'];

function single(text: string | undefined, style: Style, whole: number): number | null {
  if (text === undefined) return null;
  const em = /^\s*([-+]?[\d.]+)em\s*$/.exec(text);
  return em ? Number(em[1]) * Number(style['font-size']) : lengthOf(text, whole);
}

/**
 * The lines of a text element, each with its place and style; null where letters are placed one by one, follow a path or
 * change within a line: only a picture shows that.
 */
export function linesOf(text: Element, style: Style, rules: readonly CssRule[]): readonly Line[] | null {
  const lines: { text: string; at: Point; style: Style }[] = [];
  let [x, y] = [0, 0];
  let isBroken = false;
  const visit = (element: Element, own: Style): void => {
    const { attributes } = element;
    if (!KNOWN.includes(element.name) || PLACED.some((name) => attributes[name] !== undefined)) isBroken = true;
    if (element.name === 'title' || element.name === 'desc' || isBroken) return;
    const place = (name: string): number | null => {
      const stated = attributes[name];
      const value = single(stated, own, 0);
      if (stated !== undefined && value === null) isBroken = true;
      return value;
    };
    const [left, top, dx, dy] = [place('x'), place('y'), place('dx'), place('dy')];
    if (dx !== null && left === null) isBroken = true;
    const isNew = element.name === 'text' || left !== null || top !== null || dy !== null;
    x = (left ?? x) + (dx ?? 0);
    y = (top ?? y) + (dy ?? 0);
    // A new line that does not say where it begins goes on where the last one ended, which nobody knows here.
    if (isNew && element.name !== 'text' && left === null) isBroken = true;
    if (isNew) lines.push({ text: '', at: { x, y }, style: own });
    for (const child of element.children) {
      const line = lines[lines.length - 1];
      if (typeof child !== 'string') visit(child, styleOf(child, own, rules));
      else if (line.style === own || child.trim() === '') line.text += child;
      else if (line.text.trim() === '') {
        line.style = own;
        line.text += child;
      } else isBroken = true;
    }
  };
  visit(text, style);
  if (isBroken) return null;
  const keeps = text.attributes['xml:space'] === 'preserve';
  return lines
    .map((line) => ({
      ...line,
      text: keeps ? line.text.replace(/[\n\t]/g, ' ') : line.text.replace(/\s+/g, ' ').trim(),
    }))
    .filter((line) => line.text.trim() !== '');
}

/** The first family of a list, without quotes. */
export function familyOf(style: Style): string {
  return (style['font-family'].split(',')[0] ?? '').trim().replace(/^["']|["']$/g, '');
}
