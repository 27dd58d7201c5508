import { IDENTITY, multiply, transformPoint, type Box, type Matrix } from '../../basics/transform';
import type { Layer, LayerLook } from '../../scene/layer';
import { paintOf, type Paint } from './colours';
import { add, middle, pictureLayer, sizes, type Maker, type Nest } from './maker';
import { asChannels, evenScale } from './matrix';
import { pathInBox, plainPath, shapePath } from './shape';
import { lengthOf, shareOf, type Style } from './style';
import type { Part } from './tree';

/** Longest path data that a layer holds. */
const LONGEST_PATH = 100_000;
/** A line has no height; its layer has this much, px. */
const THIN = 1;

function dashesOf(style: Style, factor: number): number[] | null {
  if (style['stroke-dasharray'] === 'none') return [];
  const list = style['stroke-dasharray'].split(/[\s,]+/).map((word) => lengthOf(word, 0));
  if (list.some((one) => one === null || one < 0) || list.length > 32) return null;
  const lengths = list.map((one) => (one as number) * factor);
  return lengths.every((one) => one === 0) ? [] : lengths;
}

const CAPS = ['butt', 'round', 'square'] as const;
const JOINS = ['miter', 'round', 'bevel'] as const;

/** Stroke of a shape as a look, with its width in the layer's px; null for what only a picture shows. */
function strokeOf(style: Style, paint: Paint, factor: number): { look: LayerLook; width: number } | null {
  const width = (lengthOf(style['stroke-width'], 0) ?? 1) * factor;
  // A share of the drawing's size, which layers do not know.
  const isShare = style['stroke-width'].includes('%') && Number.parseFloat(style['stroke-width']) > 0;
  if (paint === 'none' || (width <= 0 && !isShare)) return { look: {}, width: 0 };
  const isOdd = isShare || style['vector-effect'] !== 'none' || style['stroke-dashoffset'] !== '0';
  const [cap, join] = [
    CAPS.find((one) => one === style['stroke-linecap']),
    JOINS.find((one) => one === style['stroke-linejoin']),
  ];
  const dash = dashesOf(style, factor);
  const isMitreOdd = join === 'miter' && Number(style['stroke-miterlimit']) !== 4;
  if (!paint || typeof paint.fill !== 'string' || isOdd || isMitreOdd || !cap || !join || !dash) return null;
  return { look: { stroke: paint.fill, cap, join, ...(dash.length > 0 ? { dash } : {}) }, width };
}

/** A box with some room where it has none. */
function thickened({ left, top, right, bottom }: Box): Box {
  const [x, y] = [right - left < 1e-6 ? THIN / 2 : 0, bottom - top < 1e-6 ? THIN / 2 : 0];
  return { left: left - x, top: top - y, right: right + x, bottom: bottom + y };
}

function fillIn(paint: Paint, toLayer: Matrix, box: Box): LayerLook['fill'] {
  if (!paint || paint === 'none') return undefined;
  const { fill } = paint;
  if (typeof fill === 'string' || !('map' in fill)) return fill;
  const [w, h] = [box.right - box.left, box.bottom - box.top];
  const shares: Matrix = [1 / w, 0, 0, 1 / h, -box.left / w, -box.top / h];
  const map = multiply(shares, multiply(toLayer, fill.map as unknown as Matrix));
  return { ...fill, map: map.map((value) => Math.round(value * 1e6) / 1e6) };
}

/** A shape as a path layer; a picture where layers cannot show how it is drawn. */
export function shapeLayer(maker: Maker, part: Part, nest: Nest): void {
  const { drawing, options } = maker;
  const { style, matrix } = part;
  const d = shapePath(part.element, drawing.room);
  const own = d === null ? null : plainPath(d, IDENTITY);
  if (d === null || !own) return;
  const hasMarks = (['marker-start', 'marker-mid', 'marker-end'] as const).some((name) => style[name] !== 'none');
  const fill = paintOf(style.fill, shareOf(style['fill-opacity']), style, own.box, drawing);
  const line = paintOf(style.stroke, shareOf(style['stroke-opacity']), style, own.box, drawing);
  if (fill === 'none' && line === 'none') return;
  const even = evenScale(matrix);
  // Turned or scaled unevenly, only a shape without a stroke is the same when its path is.
  const isFlat = even !== null || line === 'none';
  const flat = isFlat ? plainPath(d, matrix) : own;
  const factor = (isFlat ? (even ?? 1) : 1) * options.scale;
  const stroke = strokeOf(style, line, isFlat ? factor : 1);
  if (!flat || fill === null || !stroke || hasMarks || style['paint-order'] !== 'normal')
    return pictureLayer(maker, part, nest);
  const box = thickened(flat.box);
  const path = pathInBox(flat.d, box);
  if (path.length > LONGEST_PATH) return pictureLayer(maker, part, nest);
  const shown = fillIn(fill, isFlat ? matrix : IDENTITY, box);
  const opacity = shareOf(style.opacity);
  const look: LayerLook = {
    ...(shown === undefined ? {} : { fill: shown }),
    ...(shown !== undefined && style['fill-rule'] === 'evenodd' ? { rule: 'evenodd' as const } : {}),
    ...stroke.look,
  };
  const rest = {
    ...(isFlat ? sizes(maker, box) : { 'size.x': box.right - box.left, 'size.y': box.bottom - box.top }),
    ...(isFlat ? {} : scaled(asChannels(matrix), options.scale)),
    ...(stroke.width > 0 ? { 'stroke.width': stroke.width } : {}),
    ...(opacity < 1 ? { opacity } : {}),
  };
  const at = isFlat ? middle(box) : transformPoint(matrix, middle(box));
  add(maker, { name: part.name, kind: 'card' }, nest, at, rest, { source: { type: 'path', d: path }, look });
}

function scaled(channels: ReturnType<typeof asChannels>, by: number): Layer['rest'] {
  return { ...channels, 'scale.x': channels['scale.x'] * by, 'scale.y': channels['scale.y'] * by };
}
