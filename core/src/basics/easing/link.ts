import type { CurveLink, Easing } from './easing';

/** An easing without what it says of the library's curve that it was taken from. */
export function unlinked(easing: Easing): Easing {
  if (!('curve' in easing)) return easing;
  const { curve: _curve, ...own } = easing;
  return own;
}

/** The link of an easing to a curve of the library; null where it has none. */
export function linkOf(easing: Easing): CurveLink | null {
  return 'curve' in easing ? (easing.curve ?? null) : null;
}
