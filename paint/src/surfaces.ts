import { pictureSize } from '@wexikine/core';

/** What the painter draws on: a page's canvas, an OffscreenCanvas in a worker, or a canvas on the server. */
export type Context = CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D;

/** Something that can be drawn as a picture. */
export type PictureSource = CanvasImageSource & { readonly width: number; readonly height: number };

/** What a painter needs from where it runs. */
export interface Surfaces {
  /** A cleared offscreen context of at least this size in device pixels. */
  take: (width: number, height: number) => Context;
  /** Gives a context back for the next `take`. */
  give: (context: Context) => void;
  /** A loaded picture, or null while it loads or when it cannot be read. */
  picture: (href: string) => PictureSource | null;
  /** An SVG path as a Path2D in pixels. */
  path: (d: string) => Path2D;
}

async function loadBitmap(href: string): Promise<PictureSource> {
  const response = await fetch(href);
  return createImageBitmap(await response.blob());
}

/** An SVG picture: bitmaps cannot be made of one, so it is kept as the page's own image, in its own size. */
async function loadDrawing(href: string): Promise<PictureSource> {
  const image = new Image();
  image.src = href;
  await image.decode();
  const size = pictureSize(href) ?? { width: image.naturalWidth, height: image.naturalHeight };
  image.width = size.width;
  image.height = size.height;
  return image;
}

/** Surfaces for a browser page or worker; `onLoad` is called when a picture has arrived. */
export function createSurfaces(onLoad: () => void = () => undefined): Surfaces {
  const free: Context[] = [];
  const paths = new Map<string, Path2D>();
  const pictures = new Map<string, PictureSource | null>();
  const load = async (href: string): Promise<void> => {
    pictures.set(href, await (href.startsWith('data:image/svg') ? loadDrawing(href) : loadBitmap(href)));
    onLoad();
  };
  return {
    take: (width, height) => takeContext(free.pop(), Math.ceil(width), Math.ceil(height)),
    give: (context) => void free.push(context),
    picture: (href) => {
      const known = pictures.get(href);
      if (known !== undefined) return known;
      pictures.set(href, null);
      load(href).catch(() => pictures.set(href, null));
      return null;
    },
    path: (d) => {
      const known = paths.get(d) ?? new Path2D(d);
      paths.set(d, known);
      return known;
    },
  };
}

function takeContext(context: Context | undefined, width: number, height: number): Context {
  const made = context ?? (new OffscreenCanvas(width, height).getContext('2d') as OffscreenCanvasRenderingContext2D);
  if (made.canvas.width < width || made.canvas.height < height) {
    made.canvas.width = Math.max(made.canvas.width, width);
    made.canvas.height = Math.max(made.canvas.height, height);
  } else {
    made.setTransform(1, 0, 0, 1, 0, 0);
    made.clearRect(0, 0, made.canvas.width, made.canvas.height);
  }
  return made;
}
