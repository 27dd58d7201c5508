import { multiply, type Box, type Matrix } from '../../basics/transform';
import type { Mask } from '../../scene/layer';
import { linkOf, urlOf, type Definitions } from './colours';
import { readTransform } from './matrix';
import { pathInBox, plainPath, shapePath, type Room } from './shape';
import { lengthOf, STANDARD_STYLE, styleOf, type Style } from './style';
import { elementsIn, type Element } from './xml';

/** What an element is clipped by and masked by. */
export interface Masking {
  readonly clip: Element | null;
  readonly mask: Element | null;
}

/** The clip and the mask of a style that is not filtered or blended; null where it has neither, or they are not found. */
export function maskingOf(style: Style, { byId }: Definitions): Masking | null {
  if (style.filter !== 'none' || style['mix-blend-mode'] !== 'normal') return null;
  const find = (stated: string, name: string): Element | null | undefined => {
    if (stated === 'none') return null;
    const url = urlOf(stated);
    const found = url && url.after === '' ? byId.get(url.id) : undefined;
    return found?.name === name ? found : undefined;
  };
  const [clip, mask] = [find(style['clip-path'], 'clipPath'), find(style.mask, 'mask')];
  if (clip === undefined || mask === undefined || (clip === null && mask === null)) return null;
  return { clip, mask };
}

/** One shape of a clip, in px of the drawing. */
export interface ClipShape {
  readonly shape: Mask['shape'];
  readonly d: string;
  readonly box: Box;
  readonly rule: string;
}

/** What says where a clip or a mask lies: the space of what it is of, the box of that in its own space, and of per cents. */
export interface MaskedSpace {
  readonly matrix: Matrix;
  readonly bounds: Box | null;
  readonly room: Room;
}

const UNIT: Room = { width: 1, height: 1 };
/** Shapes that a clip may be joined of; more make a layer nobody would understand. */
const MOST_SHAPES = 20;
/** A clip that shows nothing, or a line, is none that a mask could be. */
const LEAST_SIZE = 1e-6;

/** From the units of a clip or a mask to px of the drawing; null where they are shares of a box that is not known. */
export function spaceIn(
  units: string | undefined,
  standard: 'userSpaceOnUse' | 'objectBoundingBox',
  { matrix, bounds, room }: MaskedSpace,
): { readonly matrix: Matrix; readonly room: Room } | null {
  if ((units ?? standard) !== 'objectBoundingBox') return { matrix, room };
  if (!bounds) return null;
  const { left, top, right, bottom } = bounds;
  return { matrix: multiply(matrix, [right - left, 0, 0, bottom - top, left, top]), room: UNIT };
}

const SHAPES: Readonly<Record<string, Mask['shape']>> = { rect: 'rectangle', circle: 'ellipse', ellipse: 'ellipse' };

/** True where what stands upright still does. */
export function isUpright([, b, c]: Matrix): boolean {
  return Math.abs(b) < 1e-9 && Math.abs(c) < 1e-9;
}

/** What the mask of a shape is called: a rectangle with sharp corners and an ellipse are told from paths. */
function kindOf({ name, attributes }: Element, matrix: Matrix): Mask['shape'] {
  const isRound = name === 'rect' && (attributes['rx'] ?? attributes['ry'] ?? '0') !== '0';
  return isUpright(matrix) && !isRound ? (SHAPES[name] ?? 'path') : 'path';
}

/**
 * The shapes that a clip joins, in px of the drawing; null where they are more than outlines (words, clips of clips),
 * nothing, or too many. Source: CSS Masking 1, section 5.
 */
export function clipShapes(clip: Element, space: MaskedSpace, { byId, rules }: Definitions): ClipShape[] | null {
  const own = styleOf(clip, STANDARD_STYLE, rules);
  const inside = spaceIn(clip.attributes['clipPathUnits'], 'userSpaceOnUse', space);
  if (own['clip-path'] !== 'none' || !inside) return null;
  const shapes: ClipShape[] = [];
  const read = (element: Element, parent: Style, outer: Matrix, isUsed: boolean): boolean => {
    const style = styleOf(element, parent, rules);
    if (style.display === 'none' || style.visibility !== 'visible') return true;
    if (style['clip-path'] !== 'none') return false;
    const matrix = multiply(outer, readTransform(style.transform));
    if (element.name === 'use') {
      const target = byId.get(linkOf(element) ?? '');
      if (!target || isUsed) return false;
      const place = (key: string, whole: number): number => lengthOf(element.attributes[key], whole) ?? 0;
      const [x, y] = [place('x', inside.room.width), place('y', inside.room.height)];
      return read(target, style, multiply(matrix, [1, 0, 0, 1, x, y]), true);
    }
    if (['title', 'desc'].includes(element.name)) return true;
    const d = shapePath(element, inside.room);
    const path = d === null ? null : plainPath(d, matrix);
    if (!path) return false;
    const { left, top, right, bottom } = path.box;
    if (right - left < LEAST_SIZE || bottom - top < LEAST_SIZE) return false;
    shapes.push({ ...path, shape: kindOf(element, matrix), rule: style['clip-rule'] });
    return true;
  };
  const matrix = multiply(inside.matrix, readTransform(own.transform));
  const isWhole = elementsIn(clip).every((element) => read(element, own, matrix, false));
  return isWhole && shapes.length > 0 && shapes.length <= MOST_SHAPES ? shapes : null;
}

const SIDES = ['x', 'y', 'width', 'height'] as const;

/** The region of a mask that states one, in px of the drawing; undefined where it does not, null where it is not known. */
export function maskRegion(mask: Element, space: MaskedSpace): ClipShape | null | undefined {
  if (SIDES.every((side) => mask.attributes[side] === undefined)) return undefined;
  const inside = spaceIn(mask.attributes['maskUnits'], 'objectBoundingBox', space);
  if (!inside) return null;
  const { width, height } = inside.room;
  const of = (side: 'x' | 'y' | 'width' | 'height', whole: number, standard: number): number =>
    lengthOf(mask.attributes[side], whole) ?? standard * whole;
  const [x, y, w, h] = [
    of('x', width, -0.1),
    of('y', height, -0.1),
    of('width', width, 1.2),
    of('height', height, 1.2),
  ];
  if (!(w > LEAST_SIZE) || !(h > LEAST_SIZE)) return null;
  const path = plainPath(`M${x} ${y}h${w}v${h}h${-w}z`, inside.matrix);
  return path && { ...path, shape: isUpright(inside.matrix) ? 'rectangle' : 'path', rule: 'nonzero' };
}

const round = (value: number): number => Math.round(value * 1e6) / 1e6;

/** Shapes that are joined, as the masks of a layer in a box of the drawing; null where they lie too far off for masks. */
export function masksIn(shapes: readonly ClipShape[], { left, top, right, bottom }: Box): Mask[] | null {
  const [w, h] = [right - left, bottom - top];
  const masks = shapes.map(({ shape, d, box, rule }): Mask => ({
    shape,
    ...(shape === 'path' ? { d: pathInBox(d, box) } : {}),
    ...(shape === 'path' && rule !== 'evenodd' ? { rule: 'nonzero' as const } : {}),
    how: 'add',
    x: round(((box.left + box.right) / 2 - left) / w),
    y: round(((box.top + box.bottom) / 2 - top) / h),
    width: round((box.right - box.left) / w),
    height: round((box.bottom - box.top) / h),
    turn: 0,
    soft: 0,
  }));
  const isNear = masks.every(
    ({ x, y, width, height }) => Math.abs(x) <= 10 && Math.abs(y) <= 10 && width <= 20 && height <= 20,
  );
  return isNear ? masks : null;
}

/** An element that is neither clipped nor masked. */
export function bare(element: Element): Element {
  const { 'clip-path': _clip, mask: _mask, ...attributes } = element.attributes;
  return { ...element, attributes: { ...attributes, style: `${attributes['style'] ?? ''};clip-path:none;mask:none` } };
}

/** The style of an element that is neither clipped nor masked. */
export function bareStyle(style: Style): Style {
  return { ...style, 'clip-path': 'none', mask: 'none' };
}
