import { isSeen, isTrimmed, lineStep, matrixAt, type CompiledScene, type Frame, type Layer, type LayerSource } from '@wexikine/core';
import { fillStyle, mappedGradient, strokeStyle, valueAt } from './look';
import { createOutlines, type Outline } from './outline';
import type { Context, Surfaces } from './surfaces';
import { firstBaseline, reach, useFont } from './text';

/** Where and how large a scene is drawn: device pixels per scene pixel, and where its top left corner lies. */
export interface View {
  readonly scale: number;
  readonly x: number;
  readonly y: number;
}

/** A sampled scene: what `compileScene` and `sampleFrame` give. */
export interface Picture {
  readonly compiled: CompiledScene;
  readonly frame: Frame;
}

/** Draws sampled frames on a canvas. Make one and keep it: it remembers outlines and the order of the groups. */
export interface Painter {
  /** Draws a frame over what is there, each layer in its place; hidden layers and guides are left out. */
  paint: (context: Context, picture: Picture, view: View) => void;
}

interface Brush {
  readonly context: Context;
  readonly picture: Picture;
  readonly view: View;
  /** Layers that are being drawn as mattes, so that none is its own. */
  readonly mattes?: readonly number[];
  /** The next layer is drawn as a matte, whether it is shown itself or not. */
  readonly isMatte?: boolean;
}

type Matte = NonNullable<Layer['look']['matte']>;

const placesOf = new WeakMap<CompiledScene, ReadonlyMap<string, number>>();
const hiddenMattes = new WeakMap<CompiledScene, ReadonlySet<string>>();

function indexOf(compiled: CompiledScene, id: string): number {
  let places = placesOf.get(compiled);
  if (!places) {
    places = new Map(compiled.layers.map((layer, index) => [layer.id, index]));
    placesOf.set(compiled, places);
  }
  return places.get(id) ?? -1;
}

/** Layers that are only mattes of others. */
function mattesOf(compiled: CompiledScene): ReadonlySet<string> {
  let found = hiddenMattes.get(compiled);
  if (!found) {
    const mattes = compiled.layers.flatMap(({ look }) => (look.matte && !look.matte.isShown ? [look.matte.layer] : []));
    found = new Set(mattes);
    hiddenMattes.set(compiled, found);
  }
  return found;
}

/** Children of every layer, and of the scene itself at −1, from back to front. */
type Children = ReadonlyMap<number, readonly number[]>;

function childrenOf({ parents }: CompiledScene): Children {
  const children = new Map<number, number[]>();
  parents.forEach((parent, index) => {
    const list = children.get(parent);
    if (list) list.push(index);
    else children.set(parent, [index]);
  });
  return children;
}

type PictureShown = Extract<LayerSource, { type: 'picture' }>;
type TextSource = Extract<LayerSource, { type: 'text' }>;

/** How far a mitre may reach, as SVG has it where nothing is said (SVG 2, section 13.5.4). */
const MITRE_LIMIT = 4;
/** The deviation of a shadow is half its blur on a canvas, and all of it in the filter of CSS. */
const CSS_BLUR = 2;

/**
 * Text as CSS sets it: lines in the middle of the box, on each the ascent and descent with half of
 * what is left above. Source: CSS 2.2, section 10.8.1 (leading); the canvas's own middle is that of the em square.
 */
function drawText(
  context: Context,
  source: TextSource,
  family: string,
  width: number,
  height: number,
  spacing: number,
): void {
  useFont(context, source, family, spacing);
  const x = source.align === 'left' ? 0 : source.align === 'right' ? width : width / 2;
  const lines = source.text.split('\n');
  const step = lineStep(source);
  const first = firstBaseline(source, height, reach(context));
  lines.forEach((line, i) => context.fillText(line, x, first + i * step));
}

/** A linear map on the screen: what a layer's own pixels become. */
type Linear = readonly [number, number, number, number];

/** How much larger a length becomes: shadows and blurs are as large as what they belong to. */
function growth([a, b, c, d]: Linear): number {
  return Math.sqrt(Math.abs(a * d - b * c));
}

/** A shadow turns and grows with its layer, as a filter in CSS does; a canvas alone would leave it as it is. */
function applyShadow(context: Context, frame: Frame, layer: Layer, index: number, linear: Linear): void {
  if (!hasShadow(frame, layer, index)) return;
  const opacity = valueAt(frame, index, 'shadow.opacity');
  const [a, b, c, d] = linear;
  const [x, y] = [valueAt(frame, index, 'shadow.x'), valueAt(frame, index, 'shadow.y')];
  context.shadowColor = `color-mix(in srgb, ${layer.look.shadow} ${Number((opacity * 100).toFixed(3))}%, transparent)`;
  context.shadowOffsetX = a * x + c * y;
  context.shadowOffsetY = b * x + d * y;
  context.shadowBlur = valueAt(frame, index, 'shadow.blur') * CSS_BLUR * growth(linear);
}

/** Dash pattern that leaves the part from start to end of an outline, moved on by shift; null for all or nothing. */
export function trimDash(
  length: number,
  start: number,
  end: number,
  shift: number,
): { readonly dash: readonly [number, number]; readonly offset: number } | 'all' | 'nothing' {
  const [from, to] = [Math.min(start, end), Math.max(start, end)];
  if (to - from <= 1e-6) return 'nothing';
  if (to - from >= 1 && shift === 0) return 'all';
  const drawn = (to - from) * length;
  return { dash: [drawn, Math.max(length - drawn, length * 0.001)], offset: -(from + shift) * length };
}

function strokeOutline(
  context: Context,
  path: Path2D,
  outline: Outline,
  frame: Frame,
  layer: Layer,
  index: number,
): void {
  const colour = strokeStyle(frame, layer, index);
  if (colour === null) return;
  const [start, end] = [valueAt(frame, index, 'stroke.start'), valueAt(frame, index, 'stroke.end')];
  const trim = trimDash(outline.length, start, end, valueAt(frame, index, 'stroke.shift'));
  if (trim === 'nothing') return;
  context.strokeStyle = colour;
  context.lineWidth = valueAt(frame, index, 'stroke.width');
  context.lineCap = layer.look.cap ?? 'butt';
  context.lineJoin = layer.look.join ?? 'round';
  context.miterLimit = MITRE_LIMIT;
  const dashes = layer.look.dash === undefined || isTrimmed(layer) ? [] : [...layer.look.dash];
  context.setLineDash(trim === 'all' ? dashes : [...trim.dash]);
  context.lineDashOffset = trim === 'all' ? 0 : trim.offset;
  context.stroke(path);
}

/** Fills an outline; one gradient of many stops is drawn in a space of its own. */
function fillOutline(
  context: Context,
  path: Path2D,
  frame: Frame,
  layer: Layer,
  index: number,
  width: number,
  height: number,
): void {
  const { fill, rule = 'nonzero' } = layer.look;
  const mapped = typeof fill === 'object' && 'stops' in fill ? mappedGradient(context, fill, width, height) : null;
  if (mapped) {
    const { gradient, matrix } = mapped;
    const inside = new Path2D();
    inside.addPath(path, matrix.inverse());
    context.save();
    context.transform(matrix.a, matrix.b, matrix.c, matrix.d, matrix.e, matrix.f);
    context.fillStyle = gradient;
    context.fill(inside, rule);
    context.restore();
    return;
  }
  const style = fillStyle(context, frame, layer, index, width, height);
  if (style === null) return;
  context.fillStyle = style;
  context.fill(path, rule);
}

/** How long the longer side of a whole picture is where it is drawn now, device px. */
function longestDrawn(context: Context, source: PictureShown, width: number, height: number, zoom: number): number {
  if (!source.width || !source.height) return Infinity;
  const { a, b, c, d } = context.getTransform();
  const share = source.width / source.height;
  const cover = Math.max(width, height * share) * zoom;
  return Math.max(cover * Math.hypot(a, b), (cover / share) * Math.hypot(c, d));
}

/** True where a layer throws a shadow. */
function hasShadow(frame: Frame, layer: Layer, index: number): boolean {
  return layer.look.shadow !== undefined && valueAt(frame, index, 'shadow.opacity') > 0;
}

/** True where a layer is of parts that lie over each other, which would show through each other one by one. */
function hasParts(frame: Frame, layer: Layer, index: number): boolean {
  const { fill, stroke } = layer.look;
  return hasShadow(frame, layer, index) || (fill !== undefined && stroke !== undefined);
}

/** Makes a painter over the surfaces of where it runs. */
export function createPainter(surfaces: Surfaces): Painter {
  const outlineOf = createOutlines();
  const known = new WeakMap<CompiledScene, Children>();

  const drawPicture = (
    context: Context,
    frame: Frame,
    layer: Layer,
    index: number,
    width: number,
    height: number,
  ): void => {
    const zoom = valueAt(frame, index, 'crop.zoom');
    if (layer.source.type !== 'picture') return;
    const bitmap = surfaces.picture(layer.source.href, longestDrawn(context, layer.source, width, height, zoom));
    if (!bitmap) return;
    const scale = Math.max(width / bitmap.width, height / bitmap.height) * zoom;
    const [w, h] = [width / scale, height / scale];
    const x = Math.min(bitmap.width - w, Math.max(0, valueAt(frame, index, 'crop.x') * bitmap.width - w / 2));
    const y = Math.min(bitmap.height - h, Math.max(0, valueAt(frame, index, 'crop.y') * bitmap.height - h / 2));
    context.drawImage(bitmap, x, y, w, h, 0, 0, width, height);
  };

  const drawShape = (
    context: Context,
    frame: Frame,
    layer: Layer,
    index: number,
    width: number,
    height: number,
  ): void => {
    const outline = outlineOf(layer, width, height, valueAt(frame, index, 'corner'));
    const path = surfaces.path(outline.d);
    fillOutline(context, path, frame, layer, index, width, height);
    strokeOutline(context, path, outline, frame, layer, index);
  };

  /** What a layer is made of: its text, its picture, or its shape with fill and stroke. */
  const drawContents = (context: Context, frame: Frame, layer: Layer, index: number): void => {
    const [width, height] = [valueAt(frame, index, 'size.x'), valueAt(frame, index, 'size.y')];
    if (layer.source.type === 'text') {
      context.fillStyle = fillStyle(context, frame, layer, index, width, height) ?? '#000';
      const { font, fontFile } = layer.source;
      const family = fontFile === undefined ? font : surfaces.family(fontFile);
      drawText(context, layer.source, family, width, height, valueAt(frame, index, 'letterSpacing'));
    } else if (layer.source.type === 'picture') {
      drawPicture(context, frame, layer, index, width, height);
    } else {
      drawShape(context, frame, layer, index, width, height);
    }
  };

  const drawOwn = ({ context, picture, view }: Brush, index: number): void => {
    const { frame } = picture;
    const layer = picture.compiled.layers[index];
    if (layer.source.type === 'none') return;
    const { scale } = view;
    const [a, b, c, d, e, f] = matrixAt(frame, index);
    const linear: Linear = [a * scale, b * scale, c * scale, d * scale];
    const place = (on: Context): void => on.setTransform(...linear, e * scale + view.x, f * scale + view.y);
    const blur = valueAt(frame, index, 'blur');
    if (blur <= 0 && !hasShadow(frame, layer, index)) {
      place(context);
      return drawContents(context, frame, layer, index);
    }
    // Fill and stroke are one thing to a blur and a shadow, so they are put together first.
    const surface = surfaces.take(context.canvas.width, context.canvas.height);
    surface.globalAlpha = 1;
    place(surface);
    drawContents(surface, frame, layer, index);
    context.setTransform(1, 0, 0, 1, 0, 0);
    if (blur > 0) context.filter = `blur(${blur * growth(linear)}px)`;
    applyShadow(context, frame, layer, index, linear);
    context.drawImage(surface.canvas, 0, 0);
    context.filter = 'none';
    context.shadowColor = 'transparent';
    surfaces.give(surface);
  };

  /** What a layer and its parts give, put together on a surface of its own before it meets what lies behind. */
  const drawTogether = (brush: Brush, children: Children, index: number, opacity: number): void => {
    const { canvas } = brush.context;
    const surface = surfaces.take(canvas.width, canvas.height);
    drawInside({ ...brush, context: surface }, children, index, 1);
    const { blend, matte } = brush.picture.compiled.layers[index].look;
    if (matte) cutBy(brush, children, surface, matte);
    brush.context.setTransform(1, 0, 0, 1, 0, 0);
    brush.context.globalAlpha = opacity;
    brush.context.globalCompositeOperation = blend ?? 'source-over';
    brush.context.drawImage(surface.canvas, 0, 0);
    brush.context.globalCompositeOperation = 'source-over';
    surfaces.give(surface);
  };

  /** Leaves of a surface what another layer covers, or what it does not; a layer that is gone covers nothing. */
  const cutBy = (brush: Brush, children: Children, surface: Context, matte: Matte): void => {
    const index = indexOf(brush.picture.compiled, matte.layer);
    const chain = [...(brush.mattes ?? []), index];
    const isCircle = index >= 0 && (brush.mattes ?? []).includes(index);
    const over = surfaces.take(surface.canvas.width, surface.canvas.height);
    if (index >= 0 && !isCircle) drawLayer({ ...brush, context: over, mattes: chain, isMatte: true }, children, index);
    surface.setTransform(1, 0, 0, 1, 0, 0);
    surface.globalAlpha = 1;
    surface.globalCompositeOperation = matte.how === 'reveals' ? 'destination-in' : 'destination-out';
    surface.drawImage(over.canvas, 0, 0);
    surface.globalCompositeOperation = 'source-over';
    surfaces.give(over);
  };

  const drawInside = (brush: Brush, children: Children, index: number, opacity: number): void => {
    brush.context.globalAlpha = opacity;
    const inner: Brush = brush.isMatte ? { ...brush, isMatte: false } : brush;
    drawOwn(inner, index);
    for (const child of children.get(index) ?? []) drawLayer(inner, children, child);
  };

  const drawLayer = (brush: Brush, children: Children, index: number): void => {
    const { compiled, frame } = brush.picture;
    const layer = compiled.layers[index];
    const opacity = valueAt(frame, index, 'opacity');
    if (layer.hidden || !isSeen(layer) || frame.live[index] === 0 || opacity <= 0) return;
    if (!brush.isMatte && mattesOf(compiled).has(layer.id)) return;
    const own = children.get(index) ?? [];
    const isSeeThrough = opacity < 1 && (own.length > 0 || hasParts(frame, layer, index));
    // Parts that blend do so with what is in their group alone, as in CSS.
    const isApart = own.some((child) => compiled.layers[child].look.blend !== undefined);
    const { blend, matte } = layer.look;
    if (isSeeThrough || isApart || blend !== undefined || matte !== undefined)
      drawTogether(brush, children, index, opacity);
    else drawInside(brush, children, index, opacity);
  };

  return {
    paint: (context, picture, view) => {
      const children = known.get(picture.compiled) ?? childrenOf(picture.compiled);
      known.set(picture.compiled, children);
      context.save();
      for (const index of children.get(-1) ?? []) drawLayer({ context, picture, view }, children, index);
      context.restore();
    },
  };
}
