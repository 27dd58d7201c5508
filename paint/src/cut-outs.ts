import type { CutOut } from '@wexikine/core';
import { LRUCache } from 'lru-cache';
import type { Cutting } from './cutting';
import type { PictureSource } from './picture-source';

/** What is asked of pictures that are cut out. */
export interface CutOutAsked {
  /** The layer that shows it: what it showed last stands in while something is worked out. */
  readonly layer: string;
  readonly address: string;
  readonly picture: PictureSource;
  readonly how: CutOut;
  readonly isView: boolean;
}

/** Pixels of all pictures that are kept cut out, at four bytes each. */
const MOST_PIXELS = 32 * 1024 * 1024;

/**
 * Pictures that are cut out, each worked out once and kept within a bound of memory. One is worked out at a time, and of what
 * waits for a layer only the newest. Null while there is none yet; `onReady` is called when one has come.
 */
export function createCutOuts(cutting: Cutting, onReady: () => void): (asked: CutOutAsked) => PictureSource | null {
  const ready = new LRUCache<string, ImageBitmap>({
    maxSize: MOST_PIXELS,
    sizeCalculation: ({ width, height }) => Math.max(1, width * height),
    dispose: (bitmap) => bitmap.close(),
  });
  const failed = new Set<string>();
  const shown = new Map<string, string>();
  const waiting = new Map<string, { readonly key: string; readonly asked: CutOutAsked }>();
  let isBusy = false;

  const next = (): void => {
    const first = waiting.entries().next().value;
    if (isBusy || !first) return;
    const [layer, { key, asked }] = first;
    waiting.delete(layer);
    isBusy = true;
    cutting(asked.picture, asked.how, asked.isView)
      .then((bitmap) => {
        ready.set(key, bitmap);
        onReady();
      })
      .catch(() => failed.add(key))
      .finally(() => {
        isBusy = false;
        next();
      });
  };

  return (asked) => {
    const { layer, address, picture, how, isView } = asked;
    const key = JSON.stringify([address, picture.width, picture.height, how, isView]);
    const found = ready.get(key);
    if (found) {
      shown.set(layer, key);
      return found;
    }
    if (!failed.has(key)) {
      waiting.set(layer, { key, asked });
      next();
    }
    const before = shown.get(layer);
    return before?.startsWith(JSON.stringify([address]).slice(0, -1)) ? (ready.get(before) ?? null) : null;
  };
}
