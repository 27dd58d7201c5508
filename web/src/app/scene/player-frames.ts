/** How playing goes on at its end: from the beginning, not at all, or backwards and on again. */
export const PLAY_MODES = ['loop', 'once', 'to-and-fro'] as const;
/** How playing goes on at its end. */
export type PlayMode = (typeof PLAY_MODES)[number];

/** Frames that are played: from the first to the last of them. */
export interface PlayedFrames {
  readonly first: number;
  readonly last: number;
}

/** The frame that is shown after so many frames of playing from one of them, and whether playing is over. */
export function playedFrame(
  from: number,
  passed: number,
  { first, last }: PlayedFrames,
  mode: PlayMode,
): { readonly frame: number; readonly isOver: boolean } {
  const count = last - first + 1;
  const start = Math.min(last, Math.max(first, from)) - first;
  const at = start + passed;
  if (count <= 1) return { frame: first, isOver: mode === 'once' };
  switch (mode) {
    case 'once':
      return at >= count ? { frame: last, isOver: true } : { frame: first + at, isOver: false };
    case 'loop':
      return { frame: first + (at % count), isOver: false };
    case 'to-and-fro': {
      // There and back, the ends shown once each.
      const round = 2 * (count - 1);
      const place = at % round;
      return { frame: first + (place < count ? place : round - place), isOver: false };
    }
  }
}
