/** Frames of a moving picture that are wanted from a time in it on, seconds. */
export interface ClipRequest {
  readonly address: string;
  /** Where it is served. */
  readonly url: string;
  readonly at: number;
  /** How much of what follows is wanted, too. */
  readonly ahead: number;
  /** Longest side that frames need, px. */
  readonly longest: number;
}

/** What the worker gives back: a frame and when it is shown, that a frame is the last one, or why there are none. */
export type ClipAnswer = { readonly address: string } & (
  | { readonly start: number; readonly end: number; readonly longest: number; readonly bitmap: ImageBitmap }
  | { readonly last: number }
  | { readonly problem: string }
);
