import { IDENTITY, multiply, transformPoint, type Box, type Matrix, type Point } from '../../basics/transform';
import type { Ticks } from '../../basics/time';
import type { Layer, LayerLook, LayerSource } from '../../scene/layer';
import { partAsSvg } from './clean';
import { paintOf, type Paint } from './colours';
import type { Drawing } from './drawing';
import { asChannels, evenScale } from './matrix';
import { pathInBox, plainPath, shapePath } from './shape';
import { lengthOf, shareOf, type Style } from './style';
import { hasEffect, shownBox, union, type Part } from './tree';
import { familyOf, linesOf, type Line } from './words';

/** How wide a line is and how far it reaches above and below its baseline, px. */
export interface TextSize {
  readonly width: number;
  readonly ascent: number;
  readonly descent: number;
}

/** Measures words as the painter will set them. */
export type MeasureText = (source: Extract<LayerSource, { type: 'text' }>, letterSpacing: number) => TextSize;

/** How the layers of a drawing are to be made. */
export interface DrawingOptions {
  /** Groups, by id, that become one picture each. */
  readonly whole: ReadonlySet<string>;
  /** What the group of all layers is called. */
  readonly name: string;
  /** Middle of the drawing in the scene, and scene px for one px of it. */
  readonly at: Point;
  readonly scale: number;
  readonly length: Ticks;
  readonly newId: () => string;
  readonly measure: MeasureText;
}

/** Longest path data that a layer holds. */
const LONGEST_PATH = 100_000;
/** Longest text of an SVG that is kept as a data: address. */
const LONGEST_PICTURE = 3_000_000;
/** A line has no height; its layer has this much, px. */
const THIN = 1;

interface Maker {
  readonly drawing: Drawing;
  readonly options: DrawingOptions;
  readonly layers: Layer[];
  readonly tooLarge: string[];
}

interface Nest {
  readonly parent: string;
  /** Top left corner of the parent's box in px of the drawing. */
  readonly corner: Point;
}

/** Layers of a drawing, from back to front, with the group that holds them first; and parts that no layer can hold. */
export function drawingLayers(
  drawing: Drawing,
  options: DrawingOptions,
): { readonly layers: readonly Layer[]; readonly tooLarge: readonly string[] } {
  const maker: Maker = { drawing, options, layers: [], tooLarge: [] };
  addRoot(maker);
  return { layers: maker.layers, tooLarge: maker.tooLarge };
}

function addRoot(maker: Maker): void {
  const { drawing, options, layers } = maker;
  const { width, height, root } = drawing;
  const box: Box = { left: 0, top: 0, right: width, bottom: height };
  if (options.whole.has(root.id) || root.isFixed)
    return pictureLayer(maker, { ...root, name: options.name }, null, box);
  const parent = groupLayer(maker, options.name, null, box, shareOf(root.style.opacity));
  for (const part of root.parts) addPart(maker, part, { parent, corner: { x: 0, y: 0 } });
  // A group of which no part is seen is no layer.
  if (layers.length === 1) layers.pop();
}

/** Where the middle of a box is for a layer in a group, scene px. */
function placeOf({ options }: Maker, nest: Nest | null, at: Point): Point {
  const { scale } = options;
  if (!nest) return options.at;
  return { x: (at.x - nest.corner.x) * scale, y: (at.y - nest.corner.y) * scale };
}

const round = (value: number): number => Math.round(value * 1e4) / 1e4;

function add(
  maker: Maker,
  { name, kind }: { readonly name: string; readonly kind: Layer['kind'] },
  nest: Nest | null,
  at: Point,
  rest: Layer['rest'],
  shown: { readonly source: LayerSource; readonly look?: LayerLook },
): string {
  const id = maker.options.newId();
  const { x, y } = placeOf(maker, nest, at);
  const numbers = Object.entries({ 'position.x': x, 'position.y': y, ...rest }).map(([channel, value]) => [
    channel,
    round(value),
  ]);
  maker.layers.push({
    id,
    name,
    kind,
    parent: nest?.parent ?? null,
    tags: [],
    locked: false,
    hidden: false,
    span: { in: 0, out: maker.options.length },
    rest: Object.fromEntries(numbers) as Layer['rest'],
    tracks: {},
    look: shown.look ?? {},
    source: shown.source,
    data: {},
  });
  return id;
}

const middle = ({ left, top, right, bottom }: Box): Point => ({ x: (left + right) / 2, y: (top + bottom) / 2 });

function sizes({ options }: Maker, { left, top, right, bottom }: Box): Layer['rest'] {
  return { 'size.x': (right - left) * options.scale, 'size.y': (bottom - top) * options.scale };
}

function groupLayer(maker: Maker, name: string, nest: Nest | null, box: Box, opacity: number): string {
  const rest = { ...sizes(maker, box), ...(opacity < 1 ? { opacity } : {}) };
  return add(maker, { name, kind: 'group' }, nest, middle(box), rest, { source: { type: 'none' } });
}

function addPart(maker: Maker, part: Part, nest: Nest): void {
  if (part.isFixed || hasEffect(part.style) || maker.options.whole.has(part.id)) return pictureLayer(maker, part, nest);
  switch (part.kind) {
    case 'group': {
      const box = groupBox(maker, part);
      if (!box) return;
      const id = groupLayer(maker, part.name, nest, box, shareOf(part.style.opacity));
      const inner: Nest = { parent: id, corner: { x: box.left, y: box.top } };
      for (const child of part.parts) addPart(maker, child, inner);
      return;
    }
    case 'shape':
      return shapeLayer(maker, part, nest);
    case 'words':
      return wordLayers(maker, part, nest);
    case 'picture':
      return pictureLayer(maker, part, nest);
  }
}

/** The box of a group's layers: shapes without their strokes, as their own boxes are. */
function groupBox(maker: Maker, part: Part): Box | null {
  const { room, rules } = maker.drawing;
  if (part.kind !== 'group' || part.isFixed || maker.options.whole.has(part.id)) {
    if (part.kind !== 'shape' || hasEffect(part.style)) return shownBox(part, room, rules);
    const d = shapePath(part.element, room);
    return d === null ? null : (plainPath(d, part.matrix)?.box ?? null);
  }
  return union(part.parts.map((child) => groupBox(maker, child)));
}

/** A picture of a part by itself, for what layers cannot show. */
function pictureLayer(maker: Maker, part: Part, nest: Nest | null, given: Box | null = null): void {
  const { drawing } = maker;
  const box = given ?? shownBox(part, drawing.room, drawing.rules);
  if (!box || !(box.right > box.left) || !(box.bottom > box.top)) return;
  const svg = given ? drawing.clean : partAsSvg(part, box, drawing, drawing.sheets);
  const href = `data:image/svg+xml,${encodeURIComponent(svg)}`;
  if (href.length > LONGEST_PICTURE) return void maker.tooLarge.push(part.name);
  const [width, height] = [box.right - box.left, box.bottom - box.top].map((size) => Math.max(1, Math.round(size)));
  add(maker, { name: part.name, kind: 'picture' }, nest, middle(box), sizes(maker, box), {
    source: { type: 'picture', href, width, height },
  });
}

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
  if (paint === 'none' || width <= 0) return { look: {}, width: 0 };
  const isOdd =
    style['stroke-width'].includes('%') || style['vector-effect'] !== 'none' || style['stroke-dashoffset'] !== '0';
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

function shapeLayer(maker: Maker, part: Part, nest: Nest): void {
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

const ALIGNS = { start: 'left', middle: 'middle', end: 'right' } as const;
const LINE_HEIGHT = 1.2;

/** Lines of a text as layers of words; a picture where a font is not at hand, or letters are set in other ways. */
function wordLayers(maker: Maker, part: Part, nest: Nest): void {
  const lines = linesOf(part.element, part.style, maker.drawing.rules);
  const even = evenScale(part.matrix);
  const made =
    lines && even !== null && part.matrix[0] * part.matrix[3] - part.matrix[1] * part.matrix[2] > 0
      ? lines.map((line) => wordOf(maker, part, line, even))
      : [null];
  if (made.some((word) => word === null)) return pictureLayer(maker, part, nest);
  const words = made.filter((word) => word !== null);
  const isMany = words.length > 1;
  const box = isMany ? union(words.map(({ box: own }) => own)) : null;
  const opacity = shareOf(part.style.opacity);
  const group = box ? groupLayer(maker, part.name, nest, box, opacity) : null;
  const inner: Nest = box && group !== null ? { parent: group, corner: { x: box.left, y: box.top } } : nest;
  for (const { rest, at, source, fill } of words)
    add(
      maker,
      { name: source.text.slice(0, 60), kind: 'word' },
      inner,
      at,
      !isMany && opacity < 1 ? { ...rest, opacity } : rest,
      {
        source,
        look: { fill },
      },
    );
}

function wordOf(maker: Maker, part: Part, { text, at, style }: Line, even: number) {
  const { drawing, options } = maker;
  const family = drawing.fonts.find(({ name }) => name.toLowerCase() === familyOf(style).toLowerCase());
  const fill = paintOf(
    style.fill,
    shareOf(style['fill-opacity']),
    style,
    { left: 0, top: 0, right: 1, bottom: 1 },
    drawing,
  );
  const align = ALIGNS[style['text-anchor'] as keyof typeof ALIGNS] as (typeof ALIGNS)[keyof typeof ALIGNS] | undefined;
  const isPlain = style.stroke === 'none' && style['font-style'] === 'normal' && style['dominant-baseline'] === 'auto';
  if (!family || !fill || fill === 'none' || typeof fill.fill !== 'string' || !align || !isPlain) return null;
  if (Number.parseFloat(style['word-spacing']) > 0) return null;
  const factor = even * options.scale;
  const size = Math.min(2_000, Math.max(1, Number(style['font-size']) * factor));
  const source: Extract<LayerSource, { type: 'text' }> = {
    type: 'text',
    text,
    font: family.name,
    ...(family.file === undefined ? {} : { fontFile: family.file }),
    weight: Math.min(900, Math.max(100, Math.round(Number(style['font-weight']) || 400))),
    size: round(size),
    align,
  };
  const spacing = (lengthOf(style['letter-spacing'], 0) ?? 0) * factor;
  const { width, ascent, descent } = options.measure(source, spacing);
  const height = size * LINE_HEIGHT;
  // As the painter sets a line: what is left of its height is shared above and below ascent and descent.
  const baseline = Math.floor((height - ascent - descent) / 2) + ascent;
  const start = align === 'left' ? 0 : align === 'right' ? width : width / 2;
  const { rotation } = asChannels(part.matrix);
  const [cos, sin] = [Math.cos((rotation * Math.PI) / 180), Math.sin((rotation * Math.PI) / 180)];
  const [dx, dy] = [(width / 2 - start) / options.scale, (height / 2 - baseline) / options.scale];
  const from = transformPoint(part.matrix, at);
  const middleAt = { x: from.x + cos * dx - sin * dy, y: from.y + sin * dx + cos * dy };
  const [w, h] = [width / options.scale, height / options.scale];
  const box: Box = {
    left: middleAt.x - w / 2,
    top: middleAt.y - h / 2,
    right: middleAt.x + w / 2,
    bottom: middleAt.y + h / 2,
  };
  const rest: Layer['rest'] = {
    'size.x': width,
    'size.y': height,
    ...(Math.abs(rotation) > 1e-6 ? { rotation } : {}),
    ...(spacing === 0 ? {} : { letterSpacing: spacing }),
  };
  return { source, rest, at: middleAt, box, fill: fill.fill };
}
