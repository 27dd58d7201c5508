import { ownFamily } from '@wexikine/core';
import { createPictures, type PictureSource } from './pictures';
import type { Patch } from './brush';
import { servedAt } from './served';

/** What the painter draws on: a page's canvas, an OffscreenCanvas in a worker, or a canvas on the server. */
export type Context = CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D;

/** What a painter needs from where it runs. */
export interface Surfaces {
  /**
   * An offscreen context of at least this size in device pixels, at its plainest, cleared where `patch` says: outside of it
   * something may be left from before. Without a patch all of it is clear.
   */
  take: (width: number, height: number, patch?: Patch) => Context;
  /** A cleared context of at least this size that adds up in half precision, so that many faint pictures make a whole one. */
  takeFine: (width: number, height: number) => Context;
  giveFine: (context: Context) => void;
  /** Gives a context back for the next `take`. */
  give: (context: Context) => void;
  /**
   * A picture that is at least so long on its longer side, px, or as large as it is; null while it loads or when it cannot
   * be read. What is known in another size stands in meanwhile.
   */
  picture: (address: string, longest: number) => PictureSource | null;
  /** The family that a font's file is set as. */
  family: (address: string) => string;
  /** An SVG path as a Path2D in pixels. */
  path: (d: string) => Path2D;
}

/** Fonts of one's own, each loaded when it is first drawn; until then the browser's own stands in. */
function createFonts(onLoad: () => void): Surfaces['family'] {
  const asked = new Set<string>();
  return (address) => {
    const family = ownFamily(address);
    if (asked.has(address)) return family;
    asked.add(address);
    const fonts =
      typeof document === 'undefined' ? (globalThis as unknown as { fonts: FontFaceSet }).fonts : document.fonts;
    const face = new FontFace(family, `url("${servedAt(address)}")`, { weight: '1 1000' });
    (fonts as unknown as { add: (face: FontFace) => void }).add(face);
    face.load().then(onLoad, () => undefined);
    return family;
  };
}

/** Surfaces for a browser page or worker; `onLoad` is called when a picture or a font has arrived. */
export function createSurfaces(onLoad: () => void = () => undefined): Surfaces {
  const free: Context[] = [];
  const fine: Context[] = [];
  const paths = new Map<string, Path2D>();
  return {
    take: (width, height, patch) => takeContext(free.pop(), Math.ceil(width), Math.ceil(height), patch),
    give: (context) => void free.push(context),
    takeFine: (width, height) =>
      takeContext(fine.pop() ?? fineContext(), Math.ceil(width), Math.ceil(height), undefined),
    giveFine: (context) => void fine.push(context),
    picture: createPictures(onLoad),
    family: createFonts(onLoad),
    path: (d) => {
      const known = paths.get(d) ?? new Path2D(d);
      paths.set(d, known);
      return known;
    },
  };
}

/** Sixteen-bit floating point where the browser has it (HTML, canvas color type), else eight bit. */
function fineContext(): Context {
  const settings = { colorType: 'float16' } as CanvasRenderingContext2DSettings;
  return new OffscreenCanvas(1, 1).getContext('2d', settings) as OffscreenCanvasRenderingContext2D;
}

function sizeOf({ canvas }: Context): { readonly width: number; readonly height: number } {
  return { width: canvas.width, height: canvas.height };
}

function takeContext(context: Context | undefined, width: number, height: number, patch: Patch | undefined): Context {
  const made = context ?? (new OffscreenCanvas(width, height).getContext('2d') as OffscreenCanvasRenderingContext2D);
  if (made.canvas.width < width || made.canvas.height < height) {
    made.canvas.width = Math.max(made.canvas.width, width);
    made.canvas.height = Math.max(made.canvas.height, height);
  } else {
    made.setTransform(1, 0, 0, 1, 0, 0);
    const { x, y, width: w, height: h } = patch ?? { x: 0, y: 0, ...sizeOf(made) };
    made.clearRect(x, y, w, h);
  }
  made.globalAlpha = 1;
  made.globalCompositeOperation = 'source-over';
  made.filter = 'none';
  return made;
}
