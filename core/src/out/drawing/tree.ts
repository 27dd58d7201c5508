import { IDENTITY, multiply, transformPoint, type Box, type Matrix } from '../../basics/transform';
import { linkOf, type Definitions } from './colours';
import { maskingOf } from './masking';
import type { CssRule } from './css';
import { readTransform, viewBoxMatrix } from './matrix';
import { plainPath, shapePath, type Room } from './shape';
import { lengthOf, STANDARD_STYLE, styleOf, type Style } from './style';
import { elementsIn, textOf, type Element } from './xml';

/** What a part of a drawing is. */
export type PartKind = 'group' | 'shape' | 'words' | 'picture';

/** A part of a drawing: an element that shows something, with the parts in it. */
export interface Part {
  /** Where it is in the tree: places of its groups from the top, with points between. */
  readonly id: string;
  readonly name: string;
  readonly kind: PartKind;
  /** A group whose parts only look right together: clipped, masked, filtered or blended. */
  readonly isFixed: boolean;
  readonly parts: readonly Part[];
  readonly element: Element;
  readonly style: Style;
  /** The style, and the space (to px of the drawing), that the element stands in. */
  readonly around: Style;
  readonly outer: Matrix;
  /** From the element's own space to px of the drawing. */
  readonly matrix: Matrix;
}

/** Groups and shapes that are read at most: what `<use>` repeats counts each time. */
const MOST_PARTS = 20_000;
const DEEPEST = 60;

const GROUPS = ['g', 'a', 'svg', 'symbol', 'switch', 'use'];
const SHAPES = ['path', 'rect', 'circle', 'ellipse', 'line', 'polyline', 'polygon'];
const EFFECTS = ['clip-path', 'mask', 'filter'] as const;

/** True where an element can only be shown by itself as it is. */
export function hasEffect(style: Style): boolean {
  return EFFECTS.some((name) => style[name] !== 'none') || style['mix-blend-mode'] !== 'normal';
}

const KIND_NAMES: Readonly<Record<string, string>> = {
  g: 'Group',
  a: 'Group',
  svg: 'Drawing',
  symbol: 'Group',
  switch: 'Group',
  use: 'Group',
  rect: 'Rectangle',
  circle: 'Circle',
  ellipse: 'Ellipse',
  line: 'Line',
  polyline: 'Line',
  polygon: 'Polygon',
  path: 'Path',
  text: 'Words',
  image: 'Picture',
};

/** Signs that a program cannot write in an id and spells out. */
function spelled(id: string): string {
  return id
    .replace(/_x([0-9A-F]{2})_/g, (_all, code: string) => String.fromCharCode(parseInt(code, 16)))
    .replace(/_+/g, ' ');
}

/** What an element is called: a label, its title, or its id; null where it has none. */
function ownName(element: Element): string | null {
  const { attributes } = element;
  const label = attributes['inkscape:label'] ?? attributes['data-name'] ?? attributes['aria-label'];
  const title = elementsIn(element).find(({ name }) => name === 'title');
  const found = label ?? (title ? textOf(title) : undefined) ?? (attributes['id'] ? spelled(attributes['id']) : '');
  return (
    found
      .replace(/[<>\u0000-\u001f]/g, ' ')
      .replace(/\s+/g, ' ')
      .trim()
      .slice(0, 120) || null
  );
}

interface Place {
  readonly id: string;
  readonly style: Style;
  readonly matrix: Matrix;
  readonly room: Room;
  /** Elements that are open through `<use>`, so that none is in itself. */
  readonly used: readonly Element[];
}

/** What reads the parts in an element; it counts down how many there may be. */
function createReader(definitions: Definitions, most: number) {
  const { byId, rules } = definitions;
  const left = { parts: most };
  const counts = new Map<string, number>();
  const named = (element: Element): string => {
    const own = ownName(element);
    if (own !== null) return own;
    const kind = KIND_NAMES[element.name] ?? 'Part';
    const count = (counts.get(kind) ?? 0) + 1;
    counts.set(kind, count);
    return `${kind} ${count}`;
  };
  const inside = (element: Element, style: Style, matrix: Matrix, place: Place): Part[] => {
    if (element.name === 'use') return used(element, style, matrix, place);
    const children = elementsIn(element);
    const list = element.name === 'switch' ? children.filter((one) => isDrawn(one)).slice(0, 1) : children;
    return list.flatMap((child, i) => part(child, { ...place, id: `${place.id}.${i}`, style, matrix }) ?? []);
  };
  const used = (element: Element, style: Style, matrix: Matrix, place: Place): Part[] => {
    const target = byId.get(linkOf(element) ?? '');
    if (!target || place.used.includes(target)) return [];
    const [width, height] = [
      lengthOf(element.attributes['width'], place.room.width) ??
        lengthOf(target.attributes['width'], place.room.width) ??
        place.room.width,
      lengthOf(element.attributes['height'], place.room.height) ??
        lengthOf(target.attributes['height'], place.room.height) ??
        place.room.height,
    ];
    const isView = target.name === 'symbol' || target.name === 'svg';
    const inner = isView ? multiply(matrix, boxOfView(target, width, height)) : matrix;
    const next = part(
      target,
      { ...place, id: `${place.id}.0`, style, matrix: inner, used: [...place.used, target] },
      true,
    );
    return next ? [next] : [];
  };
  const part = (element: Element, place: Place, isUsed = false): Part | null => {
    if (left.parts-- <= 0 || place.used.length > DEEPEST || (element.name === 'symbol' && !isUsed) || !isDrawn(element))
      return null;
    const style = styleOf(element, place.style, rules);
    if (style.display === 'none') return null;
    const matrix = multiply(place.matrix, ownMatrix(element, style, place.room, isUsed));
    const common = { id: place.id, element, style, around: place.style, outer: place.matrix, matrix };
    if (!GROUPS.includes(element.name)) {
      if (style.visibility !== 'visible') return null;
      const kind = SHAPES.includes(element.name) ? 'shape' : element.name === 'text' ? 'words' : 'picture';
      return { ...common, name: named(element), kind, isFixed: false, parts: [] };
    }
    const parts = inside(element, style, matrix, place);
    if (parts.length === 0) return null;
    const isFixed = hasEffect(style) && !maskingOf(style, definitions);
    const isPlain = !hasEffect(style) && style.opacity === '1';
    if (isPlain && parts.length === 1) return { ...parts[0], name: ownName(element) ?? parts[0].name };
    return { ...common, name: named(element), kind: 'group', isFixed, parts };
  };
  return (element: Element, place: Place): Part[] =>
    elementsIn(element).flatMap((child, i) => part(child, { ...place, id: `${place.id}.${i}` }) ?? []);
}

/** Reads all of a drawing as parts. */
export function readParts(root: Element, view: Matrix, room: Room, definitions: Definitions): Part {
  const style = styleOf(root, STANDARD_STYLE, definitions.rules);
  const parts = createReader(definitions, MOST_PARTS)(root, { id: 'd', style, matrix: view, room, used: [] });
  const common = { element: root, style, around: STANDARD_STYLE, outer: IDENTITY, matrix: view };
  return { ...common, id: 'd', name: ownName(root) ?? 'Drawing', kind: 'group', isFixed: hasEffect(style), parts };
}

/** Parts that a mask is made of, in a space of the drawing, and so many of them at most; null where there are more. */
export function readMaskParts(
  mask: Element,
  { matrix, room, most }: { readonly matrix: Matrix; readonly room: Room; readonly most: number },
  definitions: Definitions,
): Part[] | null {
  const style = styleOf(mask, STANDARD_STYLE, definitions.rules);
  const parts = createReader(definitions, most + 1)(mask, { id: 'm', style, matrix, room, used: [mask] });
  return countParts(parts) > most ? null : parts;
}

function countParts(parts: readonly Part[]): number {
  return parts.reduce((sum, part) => sum + 1 + countParts(part.parts), 0);
}

function isDrawn({ name }: Element): boolean {
  return GROUPS.includes(name) || SHAPES.includes(name) || name === 'text' || name === 'image';
}

function boxOfView(element: Element, width: number, height: number): Matrix {
  const box =
    element.attributes['viewBox']
      ?.trim()
      .split(/[\s,]+/)
      .map(Number) ?? null;
  return viewBoxMatrix(box, width, height, element.attributes['preserveAspectRatio']);
}

function ownMatrix(element: Element, style: Style, room: Room, isUsed: boolean): Matrix {
  const matrix = readTransform(style.transform);
  const { attributes } = element;
  const moved = (): Matrix => [
    1,
    0,
    0,
    1,
    lengthOf(attributes['x'], room.width) ?? 0,
    lengthOf(attributes['y'], room.height) ?? 0,
  ];
  if (element.name === 'use') return multiply(matrix, moved());
  if (element.name !== 'svg' || isUsed) return matrix;
  const [width, height] = [
    lengthOf(attributes['width'], room.width) ?? room.width,
    lengthOf(attributes['height'], room.height) ?? room.height,
  ];
  return multiply(multiply(matrix, moved()), boxOfView(element, width, height));
}

/** A box moved by a matrix, upright again. */
export function boxThrough({ left, top, right, bottom }: Box, matrix: Matrix): Box {
  const corners = [
    { x: left, y: top },
    { x: right, y: top },
    { x: left, y: bottom },
    { x: right, y: bottom },
  ].map((corner) => transformPoint(matrix, corner));
  const [xs, ys] = [corners.map(({ x }) => x), corners.map(({ y }) => y)];
  return { left: Math.min(...xs), top: Math.min(...ys), right: Math.max(...xs), bottom: Math.max(...ys) };
}

/** The box around several; null around none. */
export function union(boxes: readonly (Box | null)[]): Box | null {
  const known = boxes.filter((box) => box !== null);
  if (known.length === 0) return null;
  return known.reduce((a, b) => ({
    left: Math.min(a.left, b.left),
    top: Math.min(a.top, b.top),
    right: Math.max(a.right, b.right),
    bottom: Math.max(a.bottom, b.bottom),
  }));
}

/** Room around what is drawn for a filter whose size is not worked out, as a share of the box and in px. */
const FILTER_ROOM = 0.25;
/** Widest letter in sizes of its font, and its height. */
const LETTER = 1.1;
const LINE = 1.5;

/** A box, in px of the drawing, that surely holds what a part shows; null where that is nothing. */
export function shownBox(part: Part, room: Room, rules: readonly CssRule[]): Box | null {
  const own = ownBox(part, room, rules);
  if (!own || part.style.filter === 'none') return own;
  const [x, y] = [own.right - own.left, own.bottom - own.top].map((size) => size * FILTER_ROOM + 30);
  return { left: own.left - x, top: own.top - y, right: own.right + x, bottom: own.bottom + y };
}

function ownBox(part: Part, room: Room, rules: readonly CssRule[]): Box | null {
  const { element, style, matrix } = part;
  if (part.kind === 'group') return union(part.parts.map((child) => shownBox(child, room, rules)));
  if (part.kind === 'shape') {
    const d = shapePath(element, room);
    const path = d === null ? null : plainPath(d, IDENTITY);
    if (!path) return null;
    const hasMarks = (['marker-start', 'marker-mid', 'marker-end'] as const).some((name) => style[name] !== 'none');
    const width = style.stroke === 'none' ? 0 : (lengthOf(style['stroke-width'], room.width) ?? 1);
    // A mitre reaches at most so far out, a mark is seldom wider than ten strokes.
    const out = width * (hasMarks ? 10 : style['stroke-linejoin'] === 'miter' ? 2 : 0.75);
    const { left, top, right, bottom } = path.box;
    return boxThrough({ left: left - out, top: top - out, right: right + out, bottom: bottom + out }, matrix);
  }
  if (part.kind === 'picture') {
    const [x, y] = [
      lengthOf(element.attributes['x'], room.width) ?? 0,
      lengthOf(element.attributes['y'], room.height) ?? 0,
    ];
    const [w, h] = [
      lengthOf(element.attributes['width'], room.width),
      lengthOf(element.attributes['height'], room.height),
    ];
    return boxThrough({ left: x, top: y, right: x + (w ?? room.width), bottom: y + (h ?? room.height) }, matrix);
  }
  return textBox(part, room, rules);
}

/** Letters that are set from right to left, whose lines begin at their other end. Source: UAX 24. */
const FROM_RIGHT = /\p{Script=Hebrew}|\p{Script=Arabic}|\p{Script=Syriac}|\p{Script=Thaana}|\p{Script=Nko}/u;
/** What sets letters elsewhere than one after the other along a line. */
const MOVED = ['rotate', 'dx', 'textLength', 'writing-mode', 'direction', 'unicode-bidi', 'dir'];

/** How much of a text may lie to the left and to the right of where it is set from, as shares of how wide it can be. */
function reachOf(element: Element, { 'text-anchor': anchor }: Style): readonly [left: number, right: number] {
  const isMoved = (one: Element): boolean =>
    one.name === 'textPath' ||
    MOVED.some((name) => one.attributes[name] !== undefined || (one.attributes['style'] ?? '').includes(name)) ||
    elementsIn(one).some(isMoved);
  if (FROM_RIGHT.test(allText(element)) || isMoved(element)) return [1, 1];
  return anchor === 'start' ? [0, 1] : anchor === 'end' ? [1, 0] : [0.5, 0.5];
}

/** All that a text can reach from the places that it names. */
function textBox({ element, style, matrix }: Part, room: Room, rules: readonly CssRule[]): Box | null {
  const boxes: Box[] = [];
  const visit = (one: Element, own: Style, x: number, y: number): void => {
    const size = Number(own['font-size']);
    const read = (name: string, whole: number): number[] =>
      (one.attributes[name] ?? '').split(/[\s,]+/).flatMap((word) => lengthOf(word, whole) ?? []);
    const xs = one.attributes['x'] === undefined ? [x] : read('x', room.width);
    const ys = one.attributes['y'] === undefined ? [y] : read('y', room.height);
    const width = allText(one).length * size * LETTER;
    const [before, after] = reachOf(element, own).map((share) => share * width + size);
    for (const left of xs.length > 0 ? xs : [x])
      for (const top of ys.length > 0 ? ys : [y])
        boxes.push({ left: left - before, top: top - size * LINE, right: left + after, bottom: top + size * LINE });
    for (const child of elementsIn(one)) visit(child, styleOf(child, own, rules), xs[0] ?? x, ys[0] ?? y);
  };
  visit(element, style, 0, 0);
  const box = union(boxes);
  return box ? boxThrough(box, matrix) : null;
}

function allText(element: Element): string {
  return element.children.map((child) => (typeof child === 'string' ? child : allText(child))).join('');
}
