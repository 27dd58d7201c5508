/** A direction, degrees clockwise from the right, and a distance, px. */
export interface Way {
  readonly direction: number;
  readonly distance: number;
}

const DEGREES = 180 / Math.PI;

/** The way that leads so far across and down; one that leads nowhere points down, as shadows do. */
export function wayOf(x: number, y: number): Way {
  const distance = Math.hypot(x, y);
  return { direction: distance === 0 ? 90 : (Math.atan2(y, x) * DEGREES + 360) % 360, distance };
}

const round = (value: number): number => Math.round(value * 1_000) / 1_000 + 0;

/** How far across and down a way leads, px to three places. A distance below nothing counts as nothing. */
export function toward({ direction, distance }: Way): { readonly x: number; readonly y: number } {
  const long = Math.max(0, distance);
  return { x: round(Math.cos(direction / DEGREES) * long), y: round(Math.sin(direction / DEGREES) * long) };
}
