import { isSeen, matrixAt, type CompiledScene, type Layer, type MotionBlur } from '@wexikine/core';
import { drawSheet, growth, type Brush, type Linear, type Matrix, type Patch, type Picture, type Sheet } from './brush';
import type { View } from './brush';
import { createContents, hasBorder, subjectAt, type Subject } from './contents';
import { drawInTwo, effectsOf, filterOf, hasParts, tintSheet, type Effects } from './effects';
import { createGrounds } from './grounds';
import { createKept } from './kept';
import { valueAt } from './look';
import { brightnessToAlpha, clipByMasks, cutByMasks } from './masks';
import { createMoments, shutterTimes } from './motion-blur';
import { planOf, type Plan } from './plan';
import { patchOf, seenBox, united } from './reach';
import { createShadows, drawThrough, reachInside, shadeInside } from './shadows';
import { smear } from './smear';
import type { Context, Surfaces } from './surfaces';

/** Draws sampled frames on a canvas. Make one and keep it: it remembers outlines, shadows and what stands still. */
export interface Painter {
  /** Draws a frame over what is there, each layer in its place; hidden layers and guides are left out. */
  paint: (context: Context, picture: Picture, view: View) => void;
}

type Matte = NonNullable<Layer['look']['matte']>;

const NOTHING: Patch = { x: 0, y: 0, width: 0, height: 0 };

/** The matrix of a layer on the canvas. */
function onCanvas({ picture, view }: Brush, index: number): Matrix {
  const { scale } = view;
  const [a, b, c, d, e, f] = matrixAt(picture.frame, index);
  return [a * scale, b * scale, c * scale, d * scale, e * scale + view.x, f * scale + view.y];
}

/** All of the canvas; and around it where a shadow falls into a layer, which does not end where the canvas does. */
function boundsFor({ bounds }: Brush, { inner }: Effects, [a, b, c, d]: Matrix): Patch {
  if (!inner) return bounds;
  const room = reachInside(inner, [a, b, c, d]);
  const { x, y, width, height } = bounds;
  return { x: x - room, y: y - room, width: width + 2 * room, height: height + 2 * room };
}

function isEmpty({ width, height }: Patch): boolean {
  return width === 0 || height === 0;
}

/** Makes a painter over the surfaces of where it runs. */
export function createPainter(surfaces: Surfaces): Painter {
  const contents = createContents(surfaces);
  const known = new WeakMap<CompiledScene, Plan>();
  const moments = createMoments();
  const throwShadows = createShadows(surfaces, contents);
  const kept = { own: createKept(surfaces), together: createKept(surfaces) };

  const sheetFor = (patch: Patch): Sheet => ({ context: surfaces.take(patch.width, patch.height), patch });
  const subjectOf = ({ picture }: Brush, index: number): Subject => {
    const layer = picture.compiled.layers[index];
    const subject = subjectAt(picture.frame, layer, index);
    return picture.keptView === layer.id ? { ...subject, isKeptView: true } : subject;
  };
  const effectsFor = (plan: Plan, subject: Subject): Effects | null =>
    plan.hasEffects[subject.index] === 1 ? effectsOf(subject) : null;

  const place = ({ context }: Sheet, [a, b, c, d, e, f]: Matrix, { x, y }: Patch): void =>
    context.setTransform(a, b, c, d, e - x, f - y);

  /** Contents and border, straight onto a sheet. */
  const drawPlain = (onto: Sheet, subject: Subject, matrix: Matrix): void => {
    place(onto, matrix, onto.patch);
    contents.draw(onto.context, subject);
    contents.drawBorder(onto.context, subject);
  };

  /** A layer that is changed once it is drawn, and so is drawn on a sheet of its own first. */
  const drawChanged = (onto: Sheet, subject: Subject, effects: Effects, matrix: Matrix, patch: Patch): void => {
    const [a, b, c, d] = matrix;
    const linear: Linear = [a, b, c, d];
    // Fill and stroke are one thing to a blur and a shadow, so they are put together first.
    const sheet = sheetFor(patch);
    place(sheet, matrix, patch);
    contents.draw(sheet.context, subject);
    if (effects.tint !== null) tintSheet(sheet, effects.tint);
    if (effects.inner) shadeInside(surfaces, sheet, effects.inner, linear);
    if (hasBorder(subject)) {
      place(sheet, matrix, patch);
      contents.drawBorder(sheet.context, subject);
    }
    if (effects.two) drawInTwo(sheet, effects.two);
    const { streak, shadows } = effects;
    if (streak) smear(surfaces, sheet, a * streak.x + c * streak.y, b * streak.x + d * streak.y);
    const filter = filterOf(effects, growth(linear)) ?? 'none';
    if (shadows.length === 0) drawThrough(surfaces, onto, sheet, filter, null, linear);
    let from = sheet;
    // Each further shadow is thrown by all that is above it, as in a chain of filters.
    shadows.forEach((shadow, i) => {
      const next = i === shadows.length - 1 ? onto : sheetFor(patch);
      drawThrough(surfaces, next, from, i === 0 ? filter : 'none', shadow, linear);
      surfaces.give(from.context);
      from = next;
    });
    if (shadows.length === 0) surfaces.give(sheet.context);
  };

  const drawEffects = (onto: Sheet, subject: Subject, effects: Effects, matrix: Matrix, patch: Patch): void => {
    const { shadows, streak, tint, two, inner } = effects;
    const isClear = streak === null && filterOf(effects, 1) === null;
    const isThrown =
      isClear && shadows.length > 0 && throwShadows(onto, subject, shadows, seenBox(subject, effects), matrix);
    const rest = isThrown ? { ...effects, shadows: [] } : effects;
    if (isClear && tint === null && two === null && inner === null && rest.shadows.length === 0)
      drawPlain(onto, subject, matrix);
    else drawChanged(onto, subject, rest, matrix, patch);
  };

  /** A layer alone, without what it holds. */
  const drawOwn = (brush: Brush, plan: Plan, index: number): void => {
    const subject = subjectOf(brush, index);
    if (subject.layer.source.type === 'none') return;
    const matrix = onCanvas(brush, index);
    const effects = effectsFor(plan, subject);
    if (!effects || subject.isKeptView) return drawPlain(brush, subject, matrix);
    const patch = patchOf(matrix, seenBox(subject, effects), boundsFor(brush, effects, matrix));
    if (isEmpty(patch)) return;
    const before = kept.own.find(brush, [index]);
    if (before.is === 'kept') return drawSheet(brush, before.sheet);
    if (before.is === 'moving') return drawEffects(brush, subject, effects, matrix, patch);
    const sheet = sheetFor(patch);
    drawEffects(sheet, subject, effects, matrix, patch);
    kept.own.keep(subject.layer, sheet);
    drawSheet(brush, sheet);
  };

  /** The part of the canvas where a layer and what it holds lies. */
  const patchAround = (brush: Brush, plan: Plan, index: number): Patch => {
    const subject = subjectOf(brush, index);
    // Where it is while the shutter is open is not looked up here.
    if (subject.layer.look.motionBlur && brush.picture.shutter && !brush.isMoment) return brush.bounds;
    const own =
      subject.layer.source.type === 'none'
        ? NOTHING
        : patchOf(onCanvas(brush, index), seenBox(subject, effectsFor(plan, subject)), brush.bounds);
    return (plan.children.get(index) ?? []).reduce((all, child) => united(all, patchAround(brush, plan, child)), own);
  };

  /** What a layer and its parts give, put together on a sheet of its own before it meets what lies behind. */
  const putTogether = (brush: Brush, plan: Plan, index: number): { sheet: Sheet; isKept: boolean } | null => {
    const before = kept.together.find(brush, plan.membersOf(index));
    if (before.is === 'kept') return { sheet: before.sheet, isKept: true };
    const patch = patchAround(brush, plan, index);
    if (isEmpty(patch)) return null;
    const isKept = before.is === 'still';
    const sheet = sheetFor(patch);
    const inner: Brush = { ...brush, ...sheet, isInside: isKept || brush.isInside };
    drawInside(inner, plan, index, 1);
    const subject = subjectOf(brush, index);
    const { matte, masks } = subject.layer.look;
    if (masks) cutByMasks(surfaces, sheet, subject, onCanvas(brush, index));
    if (matte) cutBy(inner, plan, sheet, matte);
    if (isKept) kept.together.keep(subject.layer, sheet);
    return { sheet, isKept };
  };

  const drawTogether = (brush: Brush, plan: Plan, index: number, opacity: number): void => {
    const together = putTogether(brush, plan, index);
    if (!together) return;
    const { context } = brush;
    context.globalAlpha = opacity;
    context.globalCompositeOperation = brush.picture.compiled.layers[index].look.blend ?? 'source-over';
    drawSheet(brush, together.sheet);
    context.globalCompositeOperation = 'source-over';
    if (!together.isKept) surfaces.give(together.sheet.context);
  };

  /** Leaves of a sheet what another layer covers, or what it does not; a layer that is gone covers nothing. */
  const cutBy = (brush: Brush, plan: Plan, sheet: Sheet, matte: Matte): void => {
    const index = plan.places.get(matte.layer) ?? -1;
    const chain = [...(brush.mattes ?? []), index];
    const isCircle = index >= 0 && (brush.mattes ?? []).includes(index);
    const over = sheetFor(sheet.patch);
    if (index >= 0 && !isCircle) drawLayer({ ...brush, ...over, mattes: chain, isMatte: true }, plan, index);
    if (matte.by === 'brightness') brightnessToAlpha(over);
    sheet.context.globalAlpha = 1;
    sheet.context.globalCompositeOperation = matte.how === 'reveals' ? 'destination-in' : 'destination-out';
    drawSheet(sheet, over);
    sheet.context.globalCompositeOperation = 'source-over';
    surfaces.give(over.context);
  };

  const drawInside = (brush: Brush, plan: Plan, index: number, opacity: number): void => {
    brush.context.globalAlpha = opacity;
    const inner: Brush = brush.isMatte ? { ...brush, isMatte: false } : brush;
    drawOwn(inner, plan, index);
    for (const child of plan.children.get(index) ?? []) drawLayer(inner, plan, child);
  };

  /** Draws a layer where its masks are outlines that a canvas can be clipped by; false where they are not. */
  const drawClipped = (brush: Brush, plan: Plan, index: number, opacity: number): boolean => {
    const { context } = brush;
    context.save();
    const isClipped = clipByMasks(surfaces, brush, subjectOf(brush, index), onCanvas(brush, index));
    if (isClipped) drawInside(brush, plan, index, opacity);
    context.restore();
    return isClipped;
  };

  /** A layer at many moments while the shutter is open, each as faint as they are many. */
  const drawMoving = (brush: Brush, plan: Plan, index: number, blur: MotionBlur, amount: number): void => {
    const { context, picture } = brush;
    const { compiled } = picture;
    const times = shutterTimes(blur, picture.shutter ?? { at: 0, step: 0 }, amount);
    const brushes = times.map((time): Brush => ({
      ...brush,
      picture: { compiled, frame: moments.at(time) },
      isMoment: true,
    }));
    const patch = brushes.reduce((all, one) => united(all, patchAround(one, plan, index)), NOTHING);
    if (isEmpty(patch)) return;
    const sum: Sheet = { context: surfaces.takeFine(patch.width, patch.height), patch };
    sum.context.globalCompositeOperation = 'lighter';
    for (const one of brushes) {
      const moment = sheetFor(patch);
      drawLayer({ ...one, ...moment }, plan, index);
      sum.context.globalAlpha = 1 / times.length;
      drawSheet(sum, moment);
      surfaces.give(moment.context);
    }
    context.globalAlpha = 1;
    context.globalCompositeOperation = compiled.layers[index].look.blend ?? 'source-over';
    drawSheet(brush, sum);
    context.globalCompositeOperation = 'source-over';
    surfaces.giveFine(sum.context);
  };

  const drawLayer = (brush: Brush, plan: Plan, index: number): void => {
    const { compiled, frame, shutter } = brush.picture;
    const layer = compiled.layers[index];
    if (layer.hidden || !isSeen(layer) || (!brush.isMatte && plan.onlyMattes.has(index))) return;
    const { blend, matte, masks, motionBlur } = layer.look;
    if (motionBlur && shutter && !brush.isMoment) {
      const amount = valueAt(frame, index, 'motion.blur');
      if (amount > 0) return drawMoving(brush, plan, index, motionBlur, amount);
    }
    const opacity = valueAt(frame, index, 'opacity');
    if (frame.live[index] === 0 || opacity <= 0) return;
    const isSeeThrough = opacity < 1 && isOfParts(brush, plan, index);
    if (isSeeThrough || plan.apart.has(index) || blend !== undefined || matte !== undefined) {
      return drawTogether(brush, plan, index, opacity);
    }
    if (masks === undefined) return drawInside(brush, plan, index, opacity);
    if (!drawClipped(brush, plan, index, opacity)) drawTogether(brush, plan, index, opacity);
  };

  const isOfParts = (brush: Brush, plan: Plan, index: number): boolean => {
    const subject = subjectOf(brush, index);
    return plan.children.has(index) || hasParts(subject, effectsFor(plan, subject));
  };

  const drawOutermost = createGrounds(surfaces, drawLayer);

  return {
    paint: (context, picture, view) => {
      const plan = known.get(picture.compiled) ?? planOf(picture.compiled);
      known.set(picture.compiled, plan);
      moments.begin(picture.compiled);
      const { width, height } = context.canvas;
      const bounds: Patch = { x: 0, y: 0, width, height };
      context.save();
      drawOutermost({ context, patch: bounds, bounds, picture, view }, plan);
      context.restore();
    },
  };
}
