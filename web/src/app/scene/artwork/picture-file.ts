import { cleanDrawing } from './drawing-file';

/** A file as a picture that a layer can show, or why it cannot be. */
export type BroughtFile =
  | { readonly name: string; readonly href: string; readonly width: number; readonly height: number }
  | { readonly name: string; readonly problem: string };

/** Files larger than this are refused before they are read, bytes. */
const MOST_BYTES = 60_000_000;
/** Letters of one embedded picture at most. */
export const MOST_LETTERS = 3_900_000;
/** Longest side that a picture is kept with, px: more is not seen in a frame of usual size. */
const LONGEST = 2_560;
const QUALITIES = [0.92, 0.85, 0.75, 0.6];
const SMALLER = 0.7;
const MOST_PIXELS = 120_000_000;

function nameOf({ name }: File): string {
  return (
    name
      .replace(/\.[^.]*$/, '')
      .replace(/[<>]/g, '')
      .trim()
      .slice(0, 200) || 'Picture'
  );
}

function toBase64(bytes: Uint8Array): string {
  const parts: string[] = [];
  for (let i = 0; i < bytes.length; i += 32_768) parts.push(String.fromCharCode(...bytes.subarray(i, i + 32_768)));
  return btoa(parts.join(''));
}

async function readDrawing(file: File, name: string, most: number): Promise<BroughtFile> {
  const drawing = cleanDrawing(await file.text());
  if (!drawing) return { name, problem: 'it is not a whole SVG file' };
  const href = `data:image/svg+xml;base64,${toBase64(new TextEncoder().encode(drawing.text))}`;
  if (href.length > most)
    return { name, problem: 'the drawing is too large. Simplify it, or bring it in as a picture' };
  return { name, href, width: drawing.width, height: drawing.height };
}

async function encoded(bitmap: ImageBitmap, width: number, height: number, most: number): Promise<string | null> {
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d');
  if (!context) return null;
  context.imageSmoothingQuality = 'high';
  context.drawImage(bitmap, 0, 0, width, height);
  for (const quality of QUALITIES) {
    const blob = await canvas.convertToBlob({ type: 'image/webp', quality });
    if ((blob.size * 4) / 3 + 40 > most) continue;
    return `data:${blob.type};base64,${toBase64(new Uint8Array(await blob.arrayBuffer()))}`;
  }
  return null;
}

async function readBitmap(file: File, name: string, most: number): Promise<BroughtFile> {
  // Its orientation is that of the camera's note, as the browser shows it.
  const bitmap = await createImageBitmap(file).catch(() => null);
  if (!bitmap) return { name, problem: 'it is no picture that this browser can read' };
  const { width, height } = bitmap;
  if (width * height > MOST_PIXELS) return { name, problem: 'it has more than 120 million pixels' };
  for (let longest = LONGEST; longest > 200; longest *= SMALLER) {
    const share = Math.min(1, longest / Math.max(width, height));
    const href = await encoded(
      bitmap,
      Math.max(1, Math.round(width * share)),
      Math.max(1, Math.round(height * share)),
      most,
    );
    if (href) return { name, href, width, height };
  }
  return { name, problem: 'it cannot be made small enough' };
}

/**
 * Reads a file as a picture: PNG, JPEG, WebP, AVIF, GIF (its first frame) or SVG, whatever its name says. It is made small
 * enough for so many letters of text.
 */
export async function readPictureFile(file: File, most = MOST_LETTERS): Promise<BroughtFile> {
  const name = nameOf(file);
  if (file.size === 0) return { name, problem: 'it is empty' };
  if (file.size > MOST_BYTES) return { name, problem: 'it is larger than 60 MB' };
  const begin = await file.slice(0, 1_000).text();
  const isDrawing = /^\s*(<\?xml|<!--|<!doctype svg|<svg)/i.test(begin.replace(/^\ufeff/, ''));
  return isDrawing ? readDrawing(file, name, most) : readBitmap(file, name, most);
}
