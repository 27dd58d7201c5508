import { compileScene, createFrame, sampleFrame, transformPoint, restValue, type Ticks } from '@wexikine/core';
import type { createPainter } from '@wexikine/paint';
import { ghostsOf } from './ghosts';
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

  const viewOf = ({ canvas: { width, height } }: Context, aside: number, below: number) => {
    const scale = Math.min(width / scene.width, height / scene.height);
    const x = (width - scene.width * scale) / 2 + aside * width;
    return { scale, x, y: (height - scene.height * scale) / 2 + below * height };
  };

  const paint = (context: Context, time: Ticks, aside = 0, below = 0): void => {
    sampleFrame(compiled, Math.min(time, last), frame);
    painter.paint(context, { compiled, frame }, viewOf(context, aside, below));
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
      for (const ghost of ghostsOf(specimen)) {
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
