import type { CutOut } from '@wexikine/core';

/** A picture that the worker is to cut out. */
export interface CutOutRequest {
  readonly id: number;
  readonly picture: ImageBitmap;
  readonly how: CutOut;
  readonly isView: boolean;
}

/** What it gives back. */
export type CutOutAnswer = { readonly id: number } & ({ readonly bitmap: ImageBitmap } | { readonly problem: string });
