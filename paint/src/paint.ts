import { isSeen, lineStep, matrixAt, type CompiledScene, type Layer, type MotionBlur } from '@wexikine/core';
import { drawPatch, type Brush, type Linear, type Patch, type Picture, type View } from './brush';
import { createContents, hasBorder, subjectAt, type Subject } from './contents';
import { drawWithEffects, effectsOf, effectsReach, hasParts, shadeInside, tintSurface, type Effects } from './effects';
import { valueAt } from './look';
import { createMoments, shutterTimes } from './motion-blur';
import { brightnessToAlpha, cutByMasks } from './masks';
import type { Context, Surfaces } from './surfaces';

/** Draws sampled frames on a canvas. Make one and keep it: it remembers outlines and the order of the groups. */
export interface Painter {
  /** Draws a frame over what is there, each layer in its place; hidden layers and guides are left out. */
  paint: (context: Context, picture: Picture, view: View) => void;
}

type Matte = NonNullable<Layer['look']['matte']>;

/** What of a compiled scene says how its layers are drawn, found once: children, places, mattes. */
interface Plan {
  /** Children of every layer, and of the scene itself at −1, from back to front. */
  readonly children: ReadonlyMap<number, readonly number[]>;
  readonly places: ReadonlyMap<string, number>;
  /** Layers that are only mattes of others. */
  readonly onlyMattes: ReadonlySet<number>;
  /** Groups whose parts blend: these do so with what is in their group alone, as in CSS. */
  readonly apart: ReadonlySet<number>;
}

function planOf({ layers, parents }: CompiledScene): Plan {
  const children = new Map<number, number[]>();
  const places = new Map(layers.map(({ id }, index) => [id, index]));
  const onlyMattes = new Set<number>();
  const apart = new Set<number>();
  parents.forEach((parent, index) => {
    const list = children.get(parent);
    if (list) list.push(index);
    else children.set(parent, [index]);
    const { blend, matte } = layers[index].look;
    if (blend !== undefined) apart.add(parent);
    const place = matte && !matte.isShown ? places.get(matte.layer) : undefined;
    if (place !== undefined) onlyMattes.add(place);
  });
  return { children, places, onlyMattes, apart };
}

/** The matrix of a layer on the surface. */
function onSurface({ picture, view }: Brush, index: number): [...Linear, number, number] {
  const { scale } = view;
  const [a, b, c, d, e, f] = matrixAt(picture.frame, index);
  return [a * scale, b * scale, c * scale, d * scale, e * scale + view.x, f * scale + view.y];
}

/** Letters reach beyond their line by so many sizes at most. */
const LETTERS = 0.5;
/** A line is at most so many sizes long for each of its letters, however wide they are. */
const WIDEST_LETTER = 1.4;

/** How far words reach beyond their box, px. */
function wordsReach({ layer, frame, index, width, height }: Subject): number {
  const { source } = layer;
  if (source.type !== 'text') return 0;
  const lines = source.text.split('\n');
  const longest = lines.reduce((most, line) => Math.max(most, line.length), 0);
  const spacing = Math.max(0, valueAt(frame, index, 'letterSpacing') + Math.max(0, source.wordSpacing ?? 0));
  const long = longest * (source.size * WIDEST_LETTER + spacing);
  return Math.max(0, long - width, lines.length * lineStep(source) - height) + source.size * LETTERS;
}

/** How far a layer itself is seen beyond its box, px of the layer. */
function reachOf(subject: Subject, effects: Effects | null): number {
  const { frame, index } = subject;
  // A mitre reaches four half widths out.
  const stroke = valueAt(frame, index, 'stroke.width') * 2;
  const border = hasBorder(subject) ? valueAt(frame, index, 'border.width') * 4 : 0;
  return stroke + border + wordsReach(subject) + effectsReach(effects);
}

/** The part of a surface where a layer's box and what is around it lies; whole pixels, within the surface. */
function patchOf(
  [a, b, c, d, e, f]: readonly [...Linear, number, number],
  { width, height }: Subject,
  reach: number,
  { canvas }: Context,
): Patch {
  const [xs, ys] = [
    [-reach, width + reach],
    [-reach, height + reach],
  ];
  const across = xs.flatMap((x) => ys.map((y) => a * x + c * y + e));
  const down = xs.flatMap((x) => ys.map((y) => b * x + d * y + f));
  const [left, top] = [
    Math.max(0, Math.floor(Math.min(...across)) - 1),
    Math.max(0, Math.floor(Math.min(...down)) - 1),
  ];
  const [right, bottom] = [
    Math.min(canvas.width, Math.ceil(Math.max(...across)) + 1),
    Math.min(canvas.height, Math.ceil(Math.max(...down)) + 1),
  ];
  return { x: left, y: top, width: Math.max(0, right - left), height: Math.max(0, bottom - top) };
}

function wholeOf({ canvas }: Context): Patch {
  return { x: 0, y: 0, width: canvas.width, height: canvas.height };
}

/** Makes a painter over the surfaces of where it runs. */
export function createPainter(surfaces: Surfaces): Painter {
  const contents = createContents(surfaces);
  const known = new WeakMap<CompiledScene, Plan>();
  const moments = createMoments();

  const drawOwn = (brush: Brush, index: number): void => {
    const { context, picture } = brush;
    const subject = subjectAt(picture.frame, picture.compiled.layers[index], index);
    if (subject.layer.source.type === 'none') return;
    const matrix = onSurface(brush, index);
    const [a, b, c, d] = matrix;
    const linear: Linear = [a, b, c, d];
    const effects = effectsOf(subject);
    if (!effects) {
      context.setTransform(...matrix);
      contents.draw(context, subject);
      return contents.drawBorder(context, subject);
    }
    const patch = patchOf(matrix, subject, reachOf(subject, effects), context);
    if (patch.width === 0 || patch.height === 0) return;
    // Fill and stroke are one thing to a blur and a shadow, so they are put together first.
    const surface = surfaces.take(context.canvas.width, context.canvas.height, patch);
    surface.setTransform(...matrix);
    contents.draw(surface, subject);
    if (effects.tint !== null) tintSurface(surface, effects.tint, patch);
    if (effects.inner) shadeInside(surfaces, surface, effects.inner, linear, patch);
    if (hasBorder(subject)) {
      surface.setTransform(...matrix);
      contents.drawBorder(surface, subject);
    }
    drawWithEffects(surfaces, context, surface, effects, linear, patch);
    surfaces.give(surface);
  };

  /** What a layer and its parts give, put together on a surface of its own before it meets what lies behind. */
  const drawTogether = (brush: Brush, plan: Plan, index: number, opacity: number): void => {
    const { context, picture } = brush;
    const subject = subjectAt(picture.frame, picture.compiled.layers[index], index);
    const matrix = onSurface(brush, index);
    const isGroup = plan.children.has(index);
    const patch = isGroup ? wholeOf(context) : patchOf(matrix, subject, reachOf(subject, effectsOf(subject)), context);
    if (patch.width === 0 || patch.height === 0) return;
    const surface = surfaces.take(context.canvas.width, context.canvas.height, patch);
    drawInside({ ...brush, context: surface }, plan, index, 1);
    const { blend, matte, masks } = subject.layer.look;
    if (masks) cutByMasks(surfaces, surface, subject, matrix, patch);
    if (matte) cutBy(brush, plan, surface, matte, patch);
    context.globalAlpha = opacity;
    context.globalCompositeOperation = blend ?? 'source-over';
    drawPatch(context, surface, patch);
    context.globalCompositeOperation = 'source-over';
    surfaces.give(surface);
  };

  /** Leaves of a surface what another layer covers, or what it does not; a layer that is gone covers nothing. */
  const cutBy = (brush: Brush, plan: Plan, surface: Context, matte: Matte, patch: Patch): void => {
    const index = plan.places.get(matte.layer) ?? -1;
    const chain = [...(brush.mattes ?? []), index];
    const isCircle = index >= 0 && (brush.mattes ?? []).includes(index);
    const over = surfaces.take(surface.canvas.width, surface.canvas.height, patch);
    if (index >= 0 && !isCircle) drawLayer({ ...brush, context: over, mattes: chain, isMatte: true }, plan, index);
    if (matte.by === 'brightness') brightnessToAlpha(over, patch);
    surface.globalAlpha = 1;
    surface.globalCompositeOperation = matte.how === 'reveals' ? 'destination-in' : 'destination-out';
    drawPatch(surface, over, patch);
    surface.globalCompositeOperation = 'source-over';
    surfaces.give(over);
  };

  const drawInside = (brush: Brush, plan: Plan, index: number, opacity: number): void => {
    brush.context.globalAlpha = opacity;
    const inner: Brush = brush.isMatte ? { ...brush, isMatte: false } : brush;
    drawOwn(inner, index);
    for (const child of plan.children.get(index) ?? []) drawLayer(inner, plan, child);
  };

  /** A layer at many moments while the shutter is open, each as faint as they are many. */
  const drawMoving = (brush: Brush, plan: Plan, index: number, blur: MotionBlur): void => {
    const { context, picture } = brush;
    const { width, height } = context.canvas;
    const sum = surfaces.takeFine(width, height);
    const whole = wholeOf(context);
    sum.globalCompositeOperation = 'lighter';
    const times = shutterTimes(blur, picture.shutter ?? { at: 0, step: 0 });
    for (const time of times) {
      const moment = surfaces.take(width, height);
      const then: Picture = { compiled: picture.compiled, frame: moments.at(time) };
      drawLayer({ ...brush, context: moment, picture: then, isMoment: true }, plan, index);
      sum.globalAlpha = 1 / times.length;
      drawPatch(sum, moment, whole);
      surfaces.give(moment);
    }
    context.globalAlpha = 1;
    context.globalCompositeOperation = picture.compiled.layers[index].look.blend ?? 'source-over';
    drawPatch(context, sum, whole);
    context.globalCompositeOperation = 'source-over';
    surfaces.giveFine(sum);
  };

  const drawLayer = (brush: Brush, plan: Plan, index: number): void => {
    const { compiled, frame } = brush.picture;
    const layer = compiled.layers[index];
    const { motionBlur } = layer.look;
    if (motionBlur && brush.picture.shutter && !brush.isMoment && !layer.hidden && isSeen(layer)) {
      if (!brush.isMatte && plan.onlyMattes.has(index)) return;
      return drawMoving(brush, plan, index, motionBlur);
    }
    const opacity = valueAt(frame, index, 'opacity');
    if (layer.hidden || !isSeen(layer) || frame.live[index] === 0 || opacity <= 0) return;
    if (!brush.isMatte && plan.onlyMattes.has(index)) return;
    const { blend, matte, masks } = layer.look;
    const isGroup = plan.children.has(index);
    const isSeeThrough = opacity < 1 && (isGroup || hasParts(subjectAt(frame, layer, index)));
    const isTogether = isSeeThrough || plan.apart.has(index) || blend !== undefined || matte !== undefined;
    if (isTogether || masks !== undefined) drawTogether(brush, plan, index, opacity);
    else drawInside(brush, plan, index, opacity);
  };

  return {
    paint: (context, picture, view) => {
      const plan = known.get(picture.compiled) ?? planOf(picture.compiled);
      known.set(picture.compiled, plan);
      moments.begin(picture.compiled);
      context.save();
      for (const index of plan.children.get(-1) ?? []) drawLayer({ context, picture, view }, plan, index);
      context.restore();
    },
  };
}
