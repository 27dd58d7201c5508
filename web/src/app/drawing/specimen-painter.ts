import {
  compileScene,
  createFrame,
  sampleFrame,
  transformPoint,
  restValue,
  type Ticks,
  boundsAt,
  type Box,
} from '@wexikine/core';
import type { createPainter } from '@wexikine/paint';
import { ghostsOf, trailOf } from './ghosts';
import type { Specimen } from './specimen';

type Context = CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D;
type Painter = ReturnType<typeof createPainter>;

/** Draws a specimen at a time, or its whole motion as a trail. */
export interface SpecimenPainter {
  readonly drawAt: (context: Context, time: Ticks, alpha?: number) => void;
  readonly drawTrail: (context: Context) => void;
  /** Places of a layer's anchor over the specimen's time, in pixels of the canvas, one a frame. */
  readonly pathOf: (layer: string, context: Context, frame: Ticks) => readonly (readonly [number, number])[];
}

/** Where a motion is looked at to know what it takes up, and the room that is left around it, in pixels. */
const LOOKS = Array.from({ length: 13 }, (_, i) => i / 12);
const AIR = 8;
/** Share of the width and height that is left out on each side of a motion in one place. */
const NEAR = 0.24;

/** Most ghosts of a path; longer ones are taken further apart. */
const MOST_PLACES = 240;

/** Prepares a specimen for drawing; `painter` is the page's own. */
export function createSpecimenPainter(painter: Painter, specimen: Specimen): SpecimenPainter {
  const { scene, from, to } = specimen;
  const compiled = compileScene(scene);
  const frame = createFrame(compiled);
  const index = new Map(scene.layers.map(({ id }, i) => [id, i]));
  const last = Math.max(...specimen.layers.map((id) => scene.layers[index.get(id) ?? 0].span.out), 1) - 1;
  let surface: OffscreenCanvas | null = null;

  const ghosts = ghostsOf(specimen);
  let framing: Box | null = null;

  /** A motion in one place is looked at from nearer than one that goes somewhere. */
  const room = (): Box => {
    const isInPlace = specimen.kind === 'card' && ['nested', 'turned'].includes(trailOf(specimen));
    const [x, y] = isInPlace ? [scene.width * NEAR, scene.height * NEAR] : [0, 0];
    return { left: x, top: y, right: scene.width - x, bottom: scene.height - y };
  };

  /** What the whole motion takes up, in pixels of the specimen: the frame, and more where it goes beyond. */
  const takenUp = (): Box => {
    if (framing) return framing;
    let box = room();
    if (specimen.kind !== 'row' && specimen.kind !== 'scene') {
      for (const { share, aside, below } of [...ghosts, ...LOOKS.map((one) => ({ share: one, aside: 0, below: 0 }))]) {
        sampleFrame(compiled, Math.min(from + (to - from) * share, last), frame);
        for (const id of specimen.layers) {
          const { left, top, right, bottom } = boundsAt(frame, index.get(id) ?? 0);
          const [x, y] = [aside * scene.width, below * scene.height];
          box = {
            left: Math.min(box.left, left + x - AIR),
            top: Math.min(box.top, top + y - AIR),
            right: Math.max(box.right, right + x + AIR),
            bottom: Math.max(box.bottom, bottom + y + AIR),
          };
        }
      }
    }
    return (framing = box);
  };

  /** Fits all of the motion into a canvas, so that nothing of it is cut off. */
  const viewOf = ({ canvas: { width, height } }: Context, aside: number, below: number) => {
    const { left, top, right, bottom } = takenUp();
    const scale = Math.min(width / (right - left), height / (bottom - top));
    const x = (width - (left + right) * scale) / 2 + aside * scene.width * scale;
    return { scale, x, y: (height - (top + bottom) * scale) / 2 + below * scene.height * scale };
  };

  const paint = (context: Context, time: Ticks, aside = 0, below = 0): void => {
    // Before sampling: to know its view, the whole motion is looked at in the same frame.
    const view = viewOf(context, aside, below);
    sampleFrame(compiled, Math.min(time, last), frame);
    painter.paint(context, { compiled, frame }, view);
  };

  /** Through a surface of its own, since the painter sets opacities itself. */
  const paintFaint = (context: Context, time: Ticks, alpha: number, aside = 0, below = 0): void => {
    const { width, height } = context.canvas;
    if (surface?.width !== width || surface.height !== height) surface = new OffscreenCanvas(width, height);
    const own = surface.getContext('2d');
    if (!own) return;
    own.setTransform(1, 0, 0, 1, 0, 0);
    own.clearRect(0, 0, width, height);
    paint(own, time, aside, below);
    context.globalAlpha = alpha;
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.drawImage(surface, 0, 0);
    context.globalAlpha = 1;
  };

  return {
    drawAt: (context, time, alpha = 1) => {
      if (alpha >= 1) paint(context, time);
      else paintFaint(context, time, alpha);
    },
    drawTrail: (context) => {
      for (const ghost of ghosts) {
        paintFaint(context, from + (to - from) * ghost.share, ghost.alpha, ghost.aside, ghost.below);
      }
    },
    pathOf: (id, context, step) => {
      const at = index.get(id);
      if (at === undefined) return [];
      const layer = scene.layers[at];
      const anchor = {
        x: restValue(layer, 'anchor.x') * restValue(layer, 'size.x'),
        y: restValue(layer, 'anchor.y') * restValue(layer, 'size.y'),
      };
      const { scale, x, y } = viewOf(context, 0, 0);
      const stride = Math.max(step, Math.ceil((to - from) / MOST_PLACES));
      const places: (readonly [number, number])[] = [];
      for (let time = from; time <= to; time += stride) {
        sampleFrame(compiled, time, frame);
        const m = frame.matrices.subarray(at * 6, at * 6 + 6);
        const place = transformPoint([m[0], m[1], m[2], m[3], m[4], m[5]], anchor);
        places.push([x + place.x * scale, y + place.y * scale]);
      }
      return places;
    },
  };
}
