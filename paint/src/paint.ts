import { matrixAt, type CompiledScene, type Frame, type Layer, type LayerSource } from '@wexikine/core';
import { fillStyle, strokeStyle, valueAt } from './look';
import { createOutlines, type Outline } from './outline';
import type { Context, Surfaces } from './surfaces';

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

type TextSource = Extract<LayerSource, { type: 'text' }>;

const LINE_HEIGHT = 1.2;

function drawText(context: Context, source: TextSource, width: number, height: number, spacing: number): void {
  context.font = `${source.weight} ${source.size}px "${source.font}", sans-serif`;
  context.letterSpacing = `${spacing}px`;
  context.textAlign = source.align === 'middle' ? 'center' : source.align;
  context.textBaseline = 'middle';
  const x = source.align === 'left' ? 0 : source.align === 'right' ? width : width / 2;
  const lines = source.text.split('\n');
  const step = source.size * LINE_HEIGHT;
  lines.forEach((line, i) => context.fillText(line, x, height / 2 + (i - (lines.length - 1) / 2) * step));
}

function applyShadow(context: Context, frame: Frame, layer: Layer, index: number, scale: number): void {
  const opacity = valueAt(frame, index, 'shadow.opacity');
  if (layer.look.shadow === undefined || opacity <= 0) return;
  const share = Math.round(opacity * 100);
  context.shadowColor = `color-mix(in srgb, ${layer.look.shadow} ${share}%, transparent)`;
  context.shadowOffsetX = valueAt(frame, index, 'shadow.x') * scale;
  context.shadowOffsetY = valueAt(frame, index, 'shadow.y') * scale;
  context.shadowBlur = valueAt(frame, index, 'shadow.blur') * scale;
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
  context.lineJoin = 'round';
  context.setLineDash(trim === 'all' ? [] : [...trim.dash]);
  context.lineDashOffset = trim === 'all' ? 0 : trim.offset;
  context.stroke(path);
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
    const bitmap = layer.source.type === 'picture' ? surfaces.picture(layer.source.href) : null;
    if (!bitmap) return;
    const zoom = valueAt(frame, index, 'crop.zoom');
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
    const fill = fillStyle(context, frame, layer, index, width, height);
    if (fill !== null) {
      context.fillStyle = fill;
      context.fill(path);
    }
    strokeOutline(context, path, outline, frame, layer, index);
  };

  const drawOwn = ({ context, picture, view }: Brush, index: number): void => {
    const { frame } = picture;
    const layer = picture.compiled.layers[index];
    if (layer.source.type === 'none') return;
    const [width, height] = [valueAt(frame, index, 'size.x'), valueAt(frame, index, 'size.y')];
    const { scale } = view;
    const [a, b, c, d, e, f] = matrixAt(frame, index);
    context.setTransform(a * scale, b * scale, c * scale, d * scale, e * scale + view.x, f * scale + view.y);
    const blur = valueAt(frame, index, 'blur');
    if (blur > 0) context.filter = `blur(${blur * scale}px)`;
    applyShadow(context, frame, layer, index, scale);
    if (layer.source.type === 'text') {
      context.fillStyle = fillStyle(context, frame, layer, index, width, height) ?? '#000';
      drawText(context, layer.source, width, height, valueAt(frame, index, 'letterSpacing'));
    } else if (layer.source.type === 'picture') {
      drawPicture(context, frame, layer, index, width, height);
    } else {
      drawShape(context, frame, layer, index, width, height);
    }
    if (blur > 0) context.filter = 'none';
    if (layer.look.shadow !== undefined) context.shadowColor = 'transparent';
  };

  const drawTogether = (brush: Brush, children: Children, index: number, opacity: number): void => {
    const { canvas } = brush.context;
    const surface = surfaces.take(canvas.width, canvas.height);
    drawInside({ ...brush, context: surface }, children, index, 1);
    brush.context.setTransform(1, 0, 0, 1, 0, 0);
    brush.context.globalAlpha = opacity;
    brush.context.drawImage(surface.canvas, 0, 0);
    surfaces.give(surface);
  };

  const drawInside = (brush: Brush, children: Children, index: number, opacity: number): void => {
    brush.context.globalAlpha = opacity;
    drawOwn(brush, index);
    for (const child of children.get(index) ?? []) drawLayer(brush, children, child);
  };

  const drawLayer = (brush: Brush, children: Children, index: number): void => {
    const { compiled, frame } = brush.picture;
    const layer = compiled.layers[index];
    const opacity = valueAt(frame, index, 'opacity');
    if (layer.hidden || layer.kind === 'guide' || frame.live[index] === 0 || opacity <= 0) return;
    const isSeeThroughGroup = opacity < 1 && (children.get(index)?.length ?? 0) > 0;
    if (isSeeThroughGroup) drawTogether(brush, children, index, opacity);
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
