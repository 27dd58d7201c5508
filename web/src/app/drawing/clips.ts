import { servedAt, type Clips, type PictureSource } from '@wexikine/paint';
import type { ClipAnswer, ClipRequest } from './clip-messages';
import { createClipWorker } from './clip-worker.factory';

/** Longest sides that frames are kept with, px. */
const LEVELS = [256, 512, 1024, 2048, 4096];
/** Pixels of all frames together that are kept, at four bytes each. */
export const MOST_FRAME_PIXELS = 32 * 1024 * 1024;
/** How much of what follows is asked for, and how little of it is left when more is; seconds in the clip. */
const AHEAD = 0.6;
const LEFT = 0.3;
/** Times that differ by less are one. */
const CLOSE = 1e-4;

interface Shown {
  readonly start: number;
  end: number;
  readonly bitmap: ImageBitmap;
}

/** The frames of one moving picture that are at hand, in their order. */
interface Film {
  level: number;
  frames: Shown[];
  asked: ClipRequest | null;
  /** When it was drawn last, and at which time in it. */
  used: number;
  at: number;
  isBroken: boolean;
}

const pixelsOf = ({ bitmap }: Shown): number => bitmap.width * bitmap.height;

/** The frame that is shown at a time, else the one before it, else the first. */
export function frameAtTime<T extends { readonly start: number; readonly end: number }>(
  frames: readonly T[],
  at: number,
): { readonly frame: T | null; readonly isRight: boolean } {
  let before: T | null = null;
  for (const frame of frames) {
    if (frame.start > at + CLOSE) break;
    before = frame;
  }
  if (!before) return { frame: frames[0] ?? null, isRight: false };
  return { frame: before, isRight: at < before.end - CLOSE || Math.abs(at - before.start) <= CLOSE };
}

/** Until when frames follow each other without a gap, from the one at a time on. */
export function heldUntil(frames: readonly { readonly start: number; readonly end: number }[], at: number): number {
  let until = at;
  for (const { start, end } of frames) if (start <= until + CLOSE && end > until) until = end;
  return until;
}

/** Frames of moving pictures, decoded in a worker ahead of when they are drawn, within a bound of memory. */
export function createClips(onLoad: () => void, createWorker = createClipWorker): Clips {
  const films = new Map<string, Film>();
  let worker: Worker | null = null;
  let clock = 0;

  /** Frames that are furthest from where their clips are drawn go first, and clips that were not drawn for longest. */
  const shrink = (): void => {
    const all = [...films.values()].flatMap((film) => film.frames.map((shown) => ({ film, shown })));
    let pixels = all.reduce((sum, { shown }) => sum + pixelsOf(shown), 0);
    if (pixels <= MOST_FRAME_PIXELS) return;
    const away = ({ film, shown }: (typeof all)[number]): number =>
      (clock - film.used) * 1e6 + Math.abs(shown.start - film.at);
    for (const entry of all.sort((a, b) => away(b) - away(a))) {
      if (pixels <= MOST_FRAME_PIXELS) return;
      pixels -= pixelsOf(entry.shown);
      entry.film.frames = entry.film.frames.filter((one) => one !== entry.shown);
      entry.shown.bitmap.close();
    }
  };

  const receive = (data: ClipAnswer): void => {
    const film = films.get(data.address);
    if (!film) return;
    if ('problem' in data) film.isBroken = true;
    else if ('last' in data)
      film.frames.filter(({ start }) => start === data.last).forEach((one) => (one.end = Infinity));
    else if (data.longest !== film.level) data.bitmap.close();
    else {
      const { start, end, bitmap } = data;
      film.frames.filter((one) => one.start === start).forEach((one) => one.bitmap.close());
      film.frames = [...film.frames.filter((one) => one.start !== start), { start, end, bitmap }].sort(
        (a, b) => a.start - b.start,
      );
      shrink();
    }
    onLoad();
  };

  const ask = (film: Film, wanted: ClipRequest): void => {
    if (film.isBroken) return;
    const { asked } = film;
    if (asked?.at === wanted.at && asked.longest === wanted.longest) return;
    film.asked = wanted;
    if (!worker) {
      worker = createWorker();
      worker.addEventListener('message', ({ data }: MessageEvent<ClipAnswer>) => receive(data));
    }
    worker.postMessage(wanted);
  };

  return {
    frame: (address, seconds, longest): PictureSource | null => {
      const level = LEVELS.find((one) => one >= longest) ?? LEVELS[LEVELS.length - 1];
      const film = films.get(address) ?? { level, frames: [], asked: null, used: 0, at: 0, isBroken: false };
      films.set(address, film);
      [film.used, film.at] = [++clock, seconds];
      if (level > film.level) {
        // Frames that are too small stand in until larger ones come.
        film.level = level;
        film.asked = null;
        film.frames.forEach((one) => (one.end = one.start));
      }
      const { frame, isRight } = frameAtTime(film.frames, seconds);
      const until = isRight ? heldUntil(film.frames, seconds) : seconds;
      if (!isRight || until - seconds < LEFT) {
        // What is there already is not asked for again.
        const at = isRight && Number.isFinite(until) ? until : seconds;
        ask(film, { address, url: servedAt(address), at, ahead: AHEAD, longest: film.level });
      }
      return frame?.bitmap ?? null;
    },
  };
}
