import type { Cutting, PictureSource } from '@wexikine/paint';
import type { CutOutAnswer, CutOutRequest } from './cut-out-messages';
import { createCutOutWorker } from './cut-out-worker.factory';

/** A bitmap of its own of what is drawn as a picture: one can be sent, a page's image cannot. */
async function bitmapOf(picture: PictureSource): Promise<ImageBitmap> {
  return createImageBitmap(picture, { resizeWidth: picture.width, resizeHeight: picture.height });
}

/** Cuts pictures out in a worker, which starts with the first of them. */
export function createCutting(): Cutting {
  const waiting = new Map<number, { resolve: (bitmap: ImageBitmap) => void; reject: (error: Error) => void }>();
  let worker: Worker | null = null;
  let last = 0;
  const start = (): Worker => {
    const made = createCutOutWorker();
    made.addEventListener('message', ({ data }: MessageEvent<CutOutAnswer>) => {
      const asked = waiting.get(data.id);
      waiting.delete(data.id);
      if ('bitmap' in data) asked?.resolve(data.bitmap);
      else asked?.reject(new Error(data.problem));
    });
    return made;
  };
  return async (picture, how, isView) => {
    const bitmap = await bitmapOf(picture);
    worker ??= start();
    const id = ++last;
    const answer = new Promise<ImageBitmap>((resolve, reject) => waiting.set(id, { resolve, reject }));
    worker.postMessage({ id, picture: bitmap, how, isView } satisfies CutOutRequest, [bitmap]);
    return answer;
  };
}
