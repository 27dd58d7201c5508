import { endingOf, FILE_TYPES, MOST_FILE_BYTES } from '@wexikine/core';
import { keepFile } from '../../files/keep-file';
import type { BroughtFile } from './messages';

/** Longest side that a picture is kept with, px: more is not seen in a frame of usual size. */
const LONGEST = 4_096;
/** Larger files of photographs are packed anew. */
const KEPT_AS_IT_IS = 12 * 1024 * 1024;
const QUALITIES = [0.92, 0.8, 0.6];
const MOST_PIXELS = 150_000_000;

async function packed(bitmap: ImageBitmap, width: number, height: number): Promise<Blob | null> {
  const context = new OffscreenCanvas(width, height).getContext('2d');
  if (!context) return null;
  context.imageSmoothingQuality = 'high';
  context.drawImage(bitmap, 0, 0, width, height);
  for (const quality of QUALITIES) {
    const blob = await context.canvas.convertToBlob({ type: 'image/webp', quality });
    if (blob.size <= MOST_FILE_BYTES) return blob;
  }
  return null;
}

/** Reads a picture, turned as its camera noted, and keeps it: as it is, or made smaller where it is more than is ever seen. */
export async function readPicture(file: Blob, name: string): Promise<BroughtFile> {
  const problem = (text: string): BroughtFile => ({ type: 'problem', name, problem: text });
  const bitmap = await createImageBitmap(file).catch(() => null);
  if (!bitmap) return problem('it is no picture that this browser can read');
  try {
    const { width, height } = bitmap;
    if (width * height > MOST_PIXELS) return problem('it has more than 150 million pixels');
    const ending = endingOf(new Uint8Array(await file.slice(0, 64).arrayBuffer()));
    const longest = Math.max(width, height);
    const isKept =
      ending !== null && FILE_TYPES[ending].kind === 'picture' && longest <= LONGEST && file.size <= KEPT_AS_IT_IS;
    const share = Math.min(1, LONGEST / longest);
    const [w, h] = [width, height].map((side) => Math.max(1, Math.round(side * share)));
    const blob = isKept ? file : await packed(bitmap, w, h);
    if (!blob) return problem('it cannot be made small enough');
    return { type: 'picture', name, href: await keepFile(blob, name, { width: w, height: h }), width: w, height: h };
  } finally {
    bitmap.close();
  }
}
