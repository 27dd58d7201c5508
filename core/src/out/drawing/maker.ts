import type { Ticks } from '../../basics/time';
import type { Box, Point } from '../../basics/transform';
import type { Layer, LayerLook, LayerSource } from '../../scene/layer';
import { hasWords, partAsSvg } from './clean';
import type { Drawing } from './drawing';
import type { OutlineText } from './faces';
import { plainPath, shapePath } from './shape';
import { hasEffect, shownBox, union, type Part } from './tree';
import type { Element } from './xml';

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
  /** Outlines words in fonts that the drawing carries; without it they are pictures. */
  readonly outline?: OutlineText;
}

/** Longest text of an SVG that is kept as a data: address. */
const LONGEST_PICTURE = 3_000_000;

/** A drawing whose layers are being made. */
export interface Maker {
  readonly drawing: Drawing;
  readonly options: DrawingOptions;
  readonly layers: Layer[];
  readonly tooLarge: string[];
  /** Masks whose layers are being made, so that none is in itself. */
  readonly open: readonly Element[];
  /** How many more parts may be clipped or masked, and carry fonts; so that no file makes work without end. */
  readonly left: {
    masked: number;
    /** Letters of fonts in pictures of words. */
    fonts: number;
  };
}

/** The group that layers are made in. */
export interface Nest {
  readonly parent: string;
  /** Top left corner of the parent's box in px of the drawing. */
  readonly corner: Point;
}

/** Where the middle of a box is for a layer in a group, scene px. */
export function placeOf({ options }: Maker, nest: Nest | null, at: Point): Point {
  const { scale } = options;
  if (!nest) return options.at;
  return { x: (at.x - nest.corner.x) * scale, y: (at.y - nest.corner.y) * scale };
}

/** A number to four places, as drawings are kept. */
export const round = (value: number): number => Math.round(value * 1e4) / 1e4;

/** Makes a layer of a drawing with its middle at a point of the drawing; gives its id. */
export function add(
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

/** The middle of a box. */
export const middle = ({ left, top, right, bottom }: Box): Point => ({ x: (left + right) / 2, y: (top + bottom) / 2 });

/** The size of a box, scene px. */
export function sizes({ options }: Maker, { left, top, right, bottom }: Box): Layer['rest'] {
  return { 'size.x': (right - left) * options.scale, 'size.y': (bottom - top) * options.scale };
}

/** Makes a group as large as its layers; gives its id. */
export function groupLayer(maker: Maker, name: string, nest: Nest | null, box: Box, opacity: number): string {
  const rest = { ...sizes(maker, box), ...(opacity < 1 ? { opacity } : {}) };
  return add(maker, { name, kind: 'group' }, nest, middle(box), rest, { source: { type: 'none' } });
}

/** The box of a group's layers: shapes without their strokes, as their own boxes are. */
export function groupBox(maker: Maker, part: Part): Box | null {
  const { room, rules } = maker.drawing;
  if (part.kind !== 'group' || part.isFixed || maker.options.whole.has(part.id)) {
    if (part.kind !== 'shape' || hasEffect(part.style)) return shownBox(part, room, rules);
    const d = shapePath(part.element, room);
    return d === null ? null : (plainPath(d, part.matrix)?.box ?? null);
  }
  return union(part.parts.map((child) => groupBox(maker, child)));
}

/** What of a box lies in the drawing, which shows no more; null where nothing does. */
function within(box: Box, { width, height }: Drawing): Box | null {
  const [left, top] = [Math.max(0, box.left), Math.max(0, box.top)];
  const [right, bottom] = [Math.min(width, box.right), Math.min(height, box.bottom)];
  return right > left && bottom > top ? { left, top, right, bottom } : null;
}

/** The style sheets of a picture: with fonts where it has words, as long as they are not too many. */
function sheetsFor({ drawing: { sheets }, left }: Maker, { element }: Part): string {
  const carried = sheets.whole.length - sheets.plain.length;
  if (carried === 0 || carried > left.fonts || !hasWords(element)) return sheets.plain;
  left.fonts -= carried;
  return sheets.whole;
}

/** A picture of a part by itself, for what layers cannot show. */
export function pictureLayer(maker: Maker, part: Part, nest: Nest | null, given: Box | null = null): void {
  const { drawing } = maker;
  const whole = given ?? shownBox(part, drawing.room, drawing.rules);
  // How wide words are nobody knows here; of what is known, what hangs over the edge stays whole.
  const box = whole && part.kind === 'words' ? (within(whole, drawing) ?? whole) : whole;
  if (!box || !(box.right > box.left) || !(box.bottom > box.top)) return;
  const svg = given ? drawing.clean : partAsSvg(part, box, drawing, sheetsFor(maker, part));
  const href = `data:image/svg+xml,${encodeURIComponent(svg)}`;
  if (href.length > LONGEST_PICTURE) return void maker.tooLarge.push(part.name);
  const [width, height] = [box.right - box.left, box.bottom - box.top].map((size) => Math.max(1, Math.round(size)));
  add(maker, { name: part.name, kind: 'picture' }, nest, middle(box), sizes(maker, box), {
    source: { type: 'picture', href, width, height },
  });
}
