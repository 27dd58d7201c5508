import { cutOut, showKept, type CutOut } from '@wexikine/core';
import type { PictureSource } from './picture-source';

/** Cuts a picture out, or makes the view of what is kept of it; in a worker where there is one. */
export type Cutting = (picture: PictureSource, how: CutOut, isView: boolean) => Promise<ImageBitmap>;

/** Cuts a picture out where it is called. */
export async function cutHere(picture: PictureSource, how: CutOut, isView: boolean): Promise<ImageBitmap> {
  const { width, height } = picture;
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d', { willReadFrequently: true }) as OffscreenCanvasRenderingContext2D;
  context.drawImage(picture, 0, 0, width, height);
  const image = context.getImageData(0, 0, width, height);
  cutOut(image.data, how);
  if (isView) showKept(image.data);
  context.putImageData(image, 0, 0);
  return Promise.resolve(canvas.transferToImageBitmap());
}
