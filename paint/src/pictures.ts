import { pictureSize } from '@wexikine/core';
import type { PictureSource } from './picture-source';
import { servedAt } from './served';

/** Longest sides that pictures are kept with, px: one is at most twice as long as it is drawn. */
const LEVELS = [256, 512, 1024, 2048, 4096];
/** Pixels of all pictures together that are kept, at four bytes each. */
export const MOST_PIXELS = 96 * 1024 * 1024;

interface Kept {
  readonly source: PictureSource | null;
  /** Longest side that was asked for; as large as it is, where it is less. */
  readonly level: number;
  readonly isLoading: boolean;
  /** When it was drawn last, counted. */
  used: number;
}

/** Downloads what is served, or reads what stands in a data: address. */
async function fetched(address: string): Promise<Blob> {
  const response = await fetch(servedAt(address));
  if (!response.ok) throw new Error(`There is no picture at ${address.slice(0, 80)}.`);
  return response.blob();
}

/** A bitmap as the browser decodes it, turned as the camera noted, no longer than is needed. */
async function loadBitmap(address: string, level: number): Promise<PictureSource> {
  const whole = await createImageBitmap(await fetched(address));
  const longest = Math.max(whole.width, whole.height);
  if (longest <= level) return whole;
  const share = level / longest;
  const [resizeWidth, resizeHeight] = [whole.width, whole.height].map((side) => Math.max(1, Math.round(side * share)));
  const small = await createImageBitmap(whole, { resizeWidth, resizeHeight, resizeQuality: 'high' });
  whole.close();
  return small;
}

/** An SVG picture: bitmaps cannot be made of one, so it is kept as the page's own image, in its own size. */
async function loadDrawing(address: string): Promise<PictureSource> {
  const image = new Image();
  image.src = servedAt(address);
  await image.decode();
  const size = pictureSize(address) ?? { width: image.naturalWidth, height: image.naturalHeight };
  image.width = size.width;
  image.height = size.height;
  return image;
}

function isDrawing(address: string): boolean {
  return address.startsWith('data:image/svg') || address.endsWith('.svg');
}

function pixelsOf({ source }: Kept): number {
  return source && !('decode' in source) ? source.width * source.height : 0;
}

/** Drops what was not drawn for longest until the rest fits; what is drawn now always stays. */
function shrink(kept: Map<string, Kept>, now: number): void {
  let pixels = 0;
  for (const one of kept.values()) pixels += pixelsOf(one);
  if (pixels <= MOST_PIXELS) return;
  for (const [address, one] of [...kept].sort((a, b) => a[1].used - b[1].used)) {
    if (pixels <= MOST_PIXELS || one.used >= now) return;
    pixels -= pixelsOf(one);
    kept.delete(address);
    if (one.source && 'close' in one.source) one.source.close();
  }
}

/** Pictures as large as they are drawn, within a bound of memory; `onLoad` is called when one has arrived. */
export function createPictures(onLoad: () => void): (address: string, longest: number) => PictureSource | null {
  const kept = new Map<string, Kept>();
  let clock = 0;
  const load = async (address: string, level: number): Promise<void> => {
    const source = isDrawing(address) ? await loadDrawing(address) : await loadBitmap(address, level);
    const before = kept.get(address);
    kept.set(address, {
      source,
      level: isDrawing(address) ? Infinity : level,
      isLoading: false,
      used: before?.used ?? clock,
    });
    shrink(kept, clock);
    onLoad();
  };
  return (address, longest) => {
    const known = kept.get(address);
    clock++;
    if (known) known.used = clock;
    const level = LEVELS.find((one) => one >= longest) ?? Infinity;
    const isEnough = known !== undefined && (known.level >= level || known.isLoading);
    if (isEnough) return known.source;
    kept.set(address, { source: known?.source ?? null, level: known?.level ?? 0, isLoading: true, used: clock });
    load(address, level).catch(() =>
      kept.set(address, { source: known?.source ?? null, level: Infinity, isLoading: false, used: clock }),
    );
    return known?.source ?? null;
  };
}
