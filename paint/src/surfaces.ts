import { axesText, drawnFamily } from '@wexikine/core';
import { LRUCache } from 'lru-cache';
import { createCutOuts, type CutOutAsked } from './cut-outs';
import { cutHere, type Cutting } from './cutting';
import { createPictures } from './pictures';
import type { PictureSource } from './picture-source';
import { servedAt } from './served';

/** What the painter draws on: a page's canvas, an OffscreenCanvas in a worker, or a canvas on the server. */
export type Context = CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D;

/** What a painter needs from where it runs. */
export interface Surfaces {
  /** A cleared offscreen context of at least this size in device pixels, at its plainest. */
  take: (width: number, height: number) => Context;
  /** The same that adds up in half precision, so that many faint pictures make a whole one. */
  takeFine: (width: number, height: number) => Context;
  /** Gives a context back for the next `take`. */
  give: (context: Context) => void;
  giveFine: (context: Context) => void;
  /** What is drawn on a context that was taken, as a bitmap, which is quicker to draw from; the context is given back. */
  pictureOf: (context: Context) => ImageBitmap;
  /** How many pictures and fonts have arrived: what was drawn before one of them may look otherwise now. */
  arrived: () => number;
  /**
   * A picture that is at least so long on its longer side, px, or as large as it is; null while it loads or when it cannot
   * be read. What is known in another size stands in meanwhile.
   */
  picture: (address: string, longest: number) => PictureSource | null;
  /**
   * The frame of a moving picture at a time in it, seconds, as long as a picture would be; another one near it stands in while it
   * is decoded, null where none is at hand.
   */
  clip: Clips['frame'];
  /** How many frames of moving pictures have arrived. */
  framesArrived: () => number;
  /** A picture that is cut out; null while it is worked out for the first time. */
  cutOut: (asked: CutOutAsked) => PictureSource | null;
  /** The family that a font's file is set as, where it stands so on its axes. */
  family: (address: string, axes?: Readonly<Record<string, number>>) => string;
  /** An SVG path as a Path2D in pixels. */
  path: (d: string) => Path2D;
}

/** Where the frames of moving pictures come from: what decodes them runs where it may take its time. */
export interface Clips {
  readonly frame: (address: string, seconds: number, longest: number) => PictureSource | null;
}

const NO_CLIPS: Clips = { frame: () => null };

/** Fonts of one's own, each loaded when it is first drawn; until then the browser's own stands in. */
function createFonts(onLoad: () => void): Surfaces['family'] {
  const asked = new Set<string>();
  const fonts =
    typeof document === 'undefined' ? (globalThis as unknown as { fonts?: FontFaceSet }).fonts : document.fonts;
  fonts?.addEventListener('loadingdone', onLoad);
  return (address, axes) => {
    const settings = axesText(axes);
    const family = drawnFamily(address, settings);
    if (asked.has(family)) return family;
    asked.add(family);
    const face = new FontFace(family, `url("${servedAt(address)}")`, {
      weight: '1 1000',
      ...(settings === '' ? {} : { variationSettings: settings }),
    } as FontFaceDescriptors);
    (fonts as unknown as { add: (face: FontFace) => void }).add(face);
    face.load().catch(() => undefined);
    return family;
  };
}

/** Outlines that lie ready. */
const MOST_PATHS = 4_000;
/** Sides of surfaces are whole steps of so many px, so that one serves again for a layer that grows. */
const STEP = 64;
/** Pixels of the surfaces that lie ready, at four bytes each. */
const MOST_READY = 8 * 1024 * 1024;

/** Surfaces that lie ready by their size. Small ones are quick: a canvas that is drawn from is copied whole when it changes. */
function createPool(settings?: CanvasRenderingContext2DSettings): Pick<Surfaces, 'take' | 'give'> {
  const ready = new Map<string, Context[]>();
  let pixels = 0;
  const whole = (side: number): number => Math.max(STEP, Math.ceil(side / STEP) * STEP);
  return {
    take: (width, height) => {
      const [w, h] = [whole(width), whole(height)];
      const context = ready.get(`${w} ${h}`)?.pop();
      if (!context) return new OffscreenCanvas(w, h).getContext('2d', settings) as OffscreenCanvasRenderingContext2D;
      pixels -= w * h;
      plain(context);
      context.clearRect(0, 0, w, h);
      return context;
    },
    give: (context) => {
      const { width, height } = context.canvas;
      if (pixels + width * height > MOST_READY) {
        ready.clear();
        pixels = 0;
      }
      pixels += width * height;
      const name = `${width} ${height}`;
      const list = ready.get(name);
      if (list) list.push(context);
      else ready.set(name, [context]);
    },
  };
}

/** Sets back what a drawing may have left. */
function plain(context: Context): void {
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.globalAlpha = 1;
  context.globalCompositeOperation = 'source-over';
  context.filter = 'none';
  context.setLineDash([]);
}

/**
 * Surfaces for a browser page or worker; `onLoad` is called when a picture or a font has arrived. `cutting` cuts pictures out,
 * where they are not to be cut out on this thread; without `clips` moving pictures are not drawn.
 */
export function createSurfaces(
  onLoad: () => void = () => undefined,
  cutting: Cutting = cutHere,
  clips: (onLoad: () => void) => Clips = () => NO_CLIPS,
): Surfaces {
  let arrived = 0;
  let frames = 0;
  const onArrival = (): void => {
    arrived++;
    onLoad();
  };
  // Sixteen-bit floating point where the browser has it (HTML, canvas color type), else eight bit.
  const fine = createPool({ colorType: 'float16' } as CanvasRenderingContext2DSettings);
  const pool = createPool();
  const paths = new LRUCache<string, Path2D>({ max: MOST_PATHS });
  return {
    ...pool,
    takeFine: fine.take,
    giveFine: fine.give,
    pictureOf: (context) => {
      const picture = (context.canvas as OffscreenCanvas).transferToImageBitmap();
      pool.give(context);
      return picture;
    },
    arrived: () => arrived,
    framesArrived: () => frames,
    clip: clips(() => {
      frames++;
      onLoad();
    }).frame,
    picture: createPictures(onArrival),
    cutOut: createCutOuts(cutting, onArrival),
    family: createFonts(onArrival),
    path: (d) => {
      const known = paths.get(d) ?? new Path2D(d);
      paths.set(d, known);
      return known;
    },
  };
}
