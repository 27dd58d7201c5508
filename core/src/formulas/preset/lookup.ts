import type { Easing } from '../../basics/easing';

/** What a preset takes from the library besides itself. */
export interface Lookup {
  /** A curve, or a house value that is one; null where it is not there. */
  readonly curve: (id: string) => { readonly easing: Easing; readonly revision: number } | null;
  /** A house value as the text that a parameter's default would have; null where it is not there. */
  readonly houseText: (id: string) => { readonly text: string; readonly revision: number } | null;
}

/** A library with nothing in it: presets then keep the values that they took last. */
export const NO_LOOKUP: Lookup = { curve: () => null, houseText: () => null };
