/** One flight of something that bounces: when it leaves the floor (seconds), how long it flies (s), how high (px). */
export interface Flight {
  readonly from: number;
  readonly length: number;
  readonly height: number;
}

/** What a bounce obeys. */
export interface BounceLaw {
  /** Pull to the floor, px per second squared, > 0. */
  readonly gravity: number;
  /** Share of the speed that a contact gives back, 0 ≤ e < 1. */
  readonly restitution: number;
}

/** Flights lower than this, in px, are not seen. */
const LOWEST = 0.25;
/** With a restitution near 1 there would be thousands; what is left after so many is left out. */
export const MOST_FLIGHTS = 60;

/** Why something would not bounce and come to rest; null where it does. */
export function bounceTrouble({ gravity, restitution }: BounceLaw): 'no-gravity' | 'never-rests' | null {
  if (!(gravity > 0) || !Number.isFinite(gravity)) return 'no-gravity';
  return restitution >= 0 && restitution < 1 ? null : 'never-rests';
}

/** Seconds that a fall from a height (px, ≥ 0) takes, √(2h ÷ g). Source: any mechanics handbook. */
export function fallTime(height: number, gravity: number): number {
  return Math.sqrt((2 * Math.max(0, height)) / gravity);
}

/** Speed in px per second at which something arrives that fell from a height, √(2gh). Source: any mechanics handbook. */
export function arrivalSpeed(height: number, gravity: number): number {
  return Math.sqrt(2 * gravity * Math.max(0, height));
}

/**
 * The flights of something that leaves the floor at a speed (px/s): each lasts 2v ÷ g and is v² ÷ 2g high, and v
 * shrinks by the restitution. Ends before flights too low to be seen; none where the law has trouble.
 * Source: any mechanics handbook.
 */
export function bounceFlights(law: BounceLaw, speed: number): Flight[] {
  const { gravity, restitution } = law;
  if (bounceTrouble(law) !== null) return [];
  const flights: Flight[] = [];
  let [from, v] = [0, Math.abs(speed)];
  while (flights.length < MOST_FLIGHTS) {
    const [length, height] = [(2 * v) / gravity, (v * v) / (2 * gravity)];
    if (!(height >= LOWEST)) break;
    flights.push({ from, length, height });
    from += length;
    v *= restitution;
  }
  return flights;
}

/** Seconds until the last of some flights has landed. */
export function flightsEnd(flights: readonly Flight[]): number {
  const last = flights.at(-1);
  return last ? last.from + last.length : 0;
}
