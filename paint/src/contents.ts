import {
  isTrimmed,
  lineStep,
  shownLines,
  shownTime,
  wordLines,
  type Border,
  type ClipSource,
  type Frame,
  type Layer,
  type LayerSource,
  type TextSource,
} from '@wexikine/core';
import { acrossStyle, fillStyle, mappedGradient, strokeStyle, valueAt } from './look';
import { createOutlines, type Outline } from './outline';
import type { PictureSource } from './picture-source';
import type { Context, Surfaces } from './surfaces';
import { firstBaseline, lineBegins, reach, spacedBy, useFont } from './text';

type PictureShown = Extract<LayerSource, { type: 'picture' }>;

/** How far a mitre may reach, as SVG has it where nothing is said (SVG 2, section 13.5.4). */
export const MITRE_LIMIT = 4;

/** One layer in a sampled frame, and the size of its box. */
export interface Subject {
  readonly frame: Frame;
  readonly layer: Layer;
  readonly index: number;
  readonly width: number;
  readonly height: number;
  /** What is kept of its cut-out is shown in white. */
  readonly isKeptView?: boolean;
}

/** A layer of a sampled frame. */
export function subjectAt(frame: Frame, layer: Layer, index: number): Subject {
  return { frame, layer, index, width: valueAt(frame, index, 'size.x'), height: valueAt(frame, index, 'size.y') };
}

/** Draws what layers are made of, in their own pixels. */
export interface Contents {
  /** Its text, its picture, or its shape with fill and stroke. */
  readonly draw: (context: Context, subject: Subject) => void;
  /** The line along its edge. */
  readonly drawBorder: (context: Context, subject: Subject) => void;
}

/** True for a layer that has a line along its edge at a frame. */
export function hasBorder({ frame, layer, index }: Pick<Subject, 'frame' | 'layer' | 'index'>): boolean {
  return layer.look.border !== undefined && valueAt(frame, index, 'border.width') > 0;
}

/**
 * Text as CSS sets it: lines in the middle of the box, on each the ascent and descent with half of
 * what is left above. Source: CSS 2.2, section 10.8.1 (leading); the canvas's own middle is that of the em square.
 */
function eachLine(
  context: Context,
  source: TextSource,
  family: string,
  { frame, index, width, height }: Subject,
  draw: (line: string, x: number, y: number) => void,
): void {
  const spacing = valueAt(frame, index, 'letterSpacing');
  useFont(context, source, family, spacing);
  const x = { left: 0, middle: width / 2, right: width }[source.align] + spacedBy(source, spacing);
  const step = lineStep(source);
  const first = firstBaseline(source, height, reach(context));
  const lines = wordLines(source, valueAt(frame, index, 'words.number'));
  const share = valueAt(frame, index, 'words.shown');
  if (share >= 1) return lines.forEach((line, i) => draw(line, x, first + i * step));
  const shown = shownLines(lines, share);
  const beginOf = lineBegins(context, source, width, spacing);
  lines.forEach((line, i) => {
    const { at, isBackwards } = beginOf(line);
    // Letters stand where they stand in the whole line, also where that is centred.
    context.textAlign = isBackwards ? 'right' : 'left';
    const part = shown.lines[i];
    if (part !== '') draw(part, at, first + i * step);
    if (source.caret !== undefined && i === shown.caretAt) {
      const reached = context.measureText(part).width;
      draw(source.caret, isBackwards ? at - reached : at + reached, first + i * step);
    }
  });
}

/** Dash pattern that leaves the part from start to end of an outline, moved on by shift; null for all or nothing. */
export function trimDash(
  outline: Pick<Outline, 'length'>,
  start: number,
  end: number,
  shift: number,
): { readonly dash: readonly [number, number]; readonly offset: number } | 'all' | 'nothing' {
  const [from, to] = [Math.min(start, end), Math.max(start, end)];
  if (to - from <= 1e-6) return 'nothing';
  if (to - from >= 1 && shift === 0) return 'all';
  const { length } = outline;
  const drawn = (to - from) * length;
  return { dash: [drawn, Math.max(length - drawn, length * 0.001)], offset: -(from + shift) * length };
}

function strokeOutline(context: Context, outline: Outline, { frame, layer, index }: Subject): void {
  const colour = strokeStyle(frame, layer, index);
  if (colour === null) return;
  const [start, end] = [valueAt(frame, index, 'stroke.start'), valueAt(frame, index, 'stroke.end')];
  const trim = trimDash(outline, start, end, valueAt(frame, index, 'stroke.shift'));
  if (trim === 'nothing') return;
  context.strokeStyle = colour;
  context.lineWidth = valueAt(frame, index, 'stroke.width');
  context.lineCap = layer.look.cap ?? 'butt';
  context.lineJoin = layer.look.join ?? 'round';
  context.miterLimit = MITRE_LIMIT;
  const dashes = layer.look.dash === undefined || isTrimmed(layer) ? [] : [...layer.look.dash];
  context.setLineDash(trim === 'all' ? dashes : [...trim.dash]);
  context.lineDashOffset = trim === 'all' ? 0 : trim.offset;
  context.stroke(outline.path);
}

/** Fills an outline; one gradient of many stops is drawn in a space of its own. */
function fillOutline(context: Context, path: Path2D, { frame, layer, index, width, height }: Subject): void {
  const { fill, rule = 'nonzero' } = layer.look;
  const mapped =
    typeof fill === 'object' && 'stops' in fill
      ? mappedGradient(context, fill, width, height, valueAt(frame, index, 'fill.turn'))
      : null;
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

/** The part of a picture that a layer shows: it covers the layer's box; px of the picture. */
export function pictureCrop(
  { frame, index, width, height }: Subject,
  picture: { readonly width: number; readonly height: number },
): { readonly x: number; readonly y: number; readonly width: number; readonly height: number } {
  const scale = Math.max(width / picture.width, height / picture.height) * valueAt(frame, index, 'crop.zoom');
  const [w, h] = [width / scale, height / scale];
  const x = Math.min(picture.width - w, Math.max(0, valueAt(frame, index, 'crop.x') * picture.width - w / 2));
  const y = Math.min(picture.height - h, Math.max(0, valueAt(frame, index, 'crop.y') * picture.height - h / 2));
  return { x, y, width: w, height: h };
}

/** How long the longer side of a whole picture is where it is drawn now, device px. */
function longestDrawn(
  context: Context,
  source: Pick<PictureShown, 'width' | 'height'>,
  width: number,
  height: number,
  zoom: number,
): number {
  if (!source.width || !source.height) return Infinity;
  const { a, b, c, d } = context.getTransform();
  const share = source.width / source.height;
  const cover = Math.max(width, height * share) * zoom;
  return Math.max(cover * Math.hypot(a, b), (cover / share) * Math.hypot(c, d));
}

/** What lies between two rectangles around a layer's box, px beyond it; filled by turns. Sharp corners stay sharp. */
function ringPath({ width, height }: Subject, corner: number, outer: number, inner: number): Path2D {
  const ring = new Path2D();
  const round = Math.min(corner, width / 2, height / 2);
  for (const out of [outer, inner]) {
    const [w, h] = [width + 2 * out, height + 2 * out];
    if (w <= 0 || h <= 0) continue;
    ring.roundRect(-out, -out, w, h, round > 0 ? Math.max(0, round + out) : 0);
  }
  return ring;
}

/** Makes what draws layers over the surfaces of where it runs. */
export function createContents(surfaces: Surfaces): Contents {
  const outlineOf = createOutlines();
  const cornerOf = ({ frame, index }: Subject): number => valueAt(frame, index, 'corner');
  const familyOf = ({ font, fontFile, axes }: TextSource): string =>
    fontFile === undefined ? font : surfaces.family(fontFile, axes);

  const cutOutOf = (picture: PictureSource, address: string, { layer, frame, index, isKeptView }: Subject) => {
    const what = layer.look.cutout;
    if (!what) return picture;
    const [tolerance, softness] = [valueAt(frame, index, 'cutout.tolerance'), valueAt(frame, index, 'cutout.softness')];
    const how = { what, tolerance, softness, spill: valueAt(frame, index, 'cutout.spill') };
    return surfaces.cutOut({ layer: layer.id, address, picture, how, isView: isKeptView === true }) ?? picture;
  };

  const drawPicture = (context: Context, source: PictureShown, subject: Subject): void => {
    const { frame, index, width, height } = subject;
    const zoom = valueAt(frame, index, 'crop.zoom');
    const picture = surfaces.picture(source.href, longestDrawn(context, source, width, height, zoom));
    if (!picture) return;
    drawCropped(context, cutOutOf(picture, source.href, subject), subject);
  };

  /** The part of a picture that a layer shows, with its corners rounded. */
  const drawCropped = (context: Context, bitmap: PictureSource, subject: Subject): void => {
    const { width, height } = subject;
    const { x, y, width: w, height: h } = pictureCrop(subject, bitmap);
    const corner = cornerOf(subject);
    if (corner <= 0) return context.drawImage(bitmap, x, y, w, h, 0, 0, width, height);
    context.save();
    context.clip(outlineOf(subject.layer, width, height, corner).path);
    context.drawImage(bitmap, x, y, w, h, 0, 0, width, height);
    context.restore();
  };

  const drawClip = (context: Context, source: ClipSource, subject: Subject): void => {
    const { frame, index, width, height } = subject;
    const longest = longestDrawn(context, source, width, height, valueAt(frame, index, 'crop.zoom'));
    const shown = surfaces.clip(source.href, shownTime(source, valueAt(frame, index, 'clip.time')), longest);
    if (shown) drawCropped(context, shown, subject);
  };

  const drawShape = (context: Context, subject: Subject): void => {
    const outline = outlineOf(subject.layer, subject.width, subject.height, cornerOf(subject));
    fillOutline(context, outline.path, subject);
    strokeOutline(context, outline, subject);
  };

  const draw = (context: Context, subject: Subject): void => {
    const { frame, layer, index, width, height } = subject;
    const { source } = layer;
    if (source.type === 'text') {
      context.fillStyle = fillStyle(context, frame, layer, index, width, height) ?? '#000';
      eachLine(context, source, familyOf(source), subject, (line, x, y) => context.fillText(line, x, y));
    } else if (source.type === 'picture') {
      drawPicture(context, source, subject);
    } else if (source.type === 'clip') {
      drawClip(context, source, subject);
    } else if (source.type !== 'sound') {
      drawShape(context, subject);
    }
  };

  /** Strokes the edge of words; what of the line lies on the wrong side is taken away on a surface of its own. */
  const borderWords = (context: Context, source: TextSource, subject: Subject, width: number): void => {
    const side = subject.layer.look.border?.side ?? 'on';
    const stroke = (on: Context): void => {
      on.lineWidth = side === 'on' ? width : width * 2;
      on.lineJoin = 'round';
      eachLine(on, source, familyOf(source), subject, (line, x, y) => on.strokeText(line, x, y));
    };
    if (side === 'on') return stroke(context);
    const surface = surfaces.take(context.canvas.width, context.canvas.height);
    surface.setTransform(context.getTransform());
    surface.strokeStyle = context.strokeStyle;
    surface.setLineDash(context.getLineDash());
    stroke(surface);
    surface.globalCompositeOperation = side === 'outside' ? 'destination-out' : 'destination-in';
    surface.fillStyle = '#000';
    eachLine(surface, source, familyOf(source), subject, (line, x, y) => surface.fillText(line, x, y));
    surface.globalCompositeOperation = 'source-over';
    context.save();
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.drawImage(surface.canvas, 0, 0);
    context.restore();
    surfaces.give(surface);
  };

  /** The line along an outline that is no rectangle. */
  const strokeEdge = (context: Context, subject: Subject, side: Border['side'], line: number): void => {
    const { layer, width, height } = subject;
    // Sharp corners stay sharp, round ones stay as round as they lie further out.
    context.lineJoin = 'miter';
    context.miterLimit = MITRE_LIMIT;
    const { path } = outlineOf(layer, width, height, cornerOf(subject));
    const { rule = 'nonzero' } = layer.look;
    context.save();
    if (side === 'inside') context.clip(path, rule);
    if (side === 'outside') {
      const around = new Path2D();
      const reach = line * MITRE_LIMIT + width + height;
      around.rect(-reach, -reach, width + 2 * reach, height + 2 * reach);
      around.addPath(path);
      context.clip(around, 'evenodd');
    }
    context.lineWidth = side === 'on' ? line : line * 2;
    context.stroke(path);
    context.restore();
  };

  const drawBorder = (context: Context, subject: Subject): void => {
    const { frame, layer, index, width, height } = subject;
    const { border } = layer.look;
    if (!border || !hasBorder(subject)) return;
    const line = valueAt(frame, index, 'border.width');
    const out = border.side === 'inside' ? 0 : border.side === 'on' ? line / 2 : line;
    const paint = acrossStyle(context, border, { width, height }, out, valueAt(frame, index, 'border.turn'));
    const { type } = layer.source;
    if (border.dash === undefined && (type === 'rectangle' || type === 'picture' || type === 'clip')) {
      context.fillStyle = paint;
      return context.fill(ringPath(subject, cornerOf(subject), out, out - line), 'evenodd');
    }
    context.strokeStyle = paint;
    context.setLineDash([...(border.dash ?? [])]);
    context.lineDashOffset = 0;
    context.lineCap = 'butt';
    if (layer.source.type === 'text') borderWords(context, layer.source, subject, line);
    else strokeEdge(context, subject, border.side, line);
  };

  return { draw, drawBorder };
}
