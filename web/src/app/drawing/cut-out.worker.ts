import { cutHere } from '@wexikine/paint/cutting';
import type { CutOutRequest } from './cut-out-messages';

/** Cuts pictures out beside the page. */
addEventListener('message', ({ data }: MessageEvent<CutOutRequest>) => {
  const { id, picture, how, isView } = data;
  cutHere(picture, how, isView).then(
    (bitmap) => postMessage({ id, bitmap }, { transfer: [bitmap] }),
    (error: unknown) => postMessage({ id, problem: String(error) }),
  );
});
