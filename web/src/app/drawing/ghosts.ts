import { CHANNELS, tracksOf, type ChannelFamily } from '@wexikine/core';
import type { Specimen } from './specimen';

/** One ghost of a trail: when it is taken, how faint it is, and how far aside and below it is drawn (share of size). */
export interface Ghost {
  readonly share: number;
  readonly alpha: number;
  readonly aside: number;
  readonly below: number;
}

/**
 * How a motion is told in one still picture: along its way; in its place, one shape in another, where it grows or
 * shrinks; in its place where it turns; or as frames side by side where it only fades or changes colour.
 */
export type Trail = 'way' | 'nested' | 'turned' | 'frames';

const GROWING: readonly ChannelFamily[] = ['scale', 'size'];
const TURNING: readonly ChannelFamily[] = ['rotation', 'position'];

/** How the motion of a specimen is told. */
export function trailOf({ scene, layers, travels }: Specimen): Trail {
  if (travels) return 'way';
  const layer = scene.layers.find(({ id }) => id === layers[0]);
  const families = new Set(
    (layer ? tracksOf(layer) : [])
      .filter(([, keys]) => keys.some(({ value }) => Math.abs(value - keys[0].value) > 1e-6))
      .map(([id]) => CHANNELS.find((channel) => channel.id === id)?.family),
  );
  if (GROWING.some((family) => families.has(family))) return 'nested';
  return TURNING.some((family) => families.has(family)) ? 'turned' : 'frames';
}

const COUNT = 9;
const FAINTEST = 0.1;
/** Ghosts of a travelling layer are taken closer together where it is fast: early in an entrance, late in an exit. */
const CROWDING = 2.2;
/** Shapes in one another add up to the plain one. */
const NESTED = 0.34;
const NESTED_COUNT = 6;
const FRAMES = 4;
/** How far apart frames stand, as a share of the width: wide enough that they never touch. */
const FRAME_STEP = 0.225;

function evenly(count: number, ghost: (u: number) => Ghost): Ghost[] {
  return Array.from({ length: count }, (_, i) => ghost(i / (count - 1)));
}

function cardGhosts(specimen: Specimen): Ghost[] {
  const { isExit } = specimen;
  const fading = (u: number): number => FAINTEST + (1 - FAINTEST) * (isExit ? 1 - u : u) ** 1.6;
  const drawn = (ghosts: Ghost[]): Ghost[] => (isExit ? ghosts.reverse() : ghosts);
  switch (trailOf(specimen)) {
    case 'way':
      return drawn(
        evenly(COUNT, (u) => {
          const share = isExit ? 1 - (1 - u) ** CROWDING : u ** CROWDING;
          return { share, alpha: fading(u), aside: 0, below: 0 };
        }),
      );
    case 'turned':
      return drawn(evenly(COUNT, (u) => ({ share: u, alpha: fading(u), aside: 0, below: 0 })));
    case 'nested':
      return evenly(NESTED_COUNT, (u) => {
        const share = isExit ? 1 - (1 - u) ** CROWDING : u ** CROWDING;
        return { share, alpha: NESTED, aside: 0, below: 0 };
      });
    case 'frames':
      return evenly(FRAMES, (share) => ({
        share,
        alpha: 1,
        aside: (share - 0.5) * FRAME_STEP * (FRAMES - 1),
        below: 0,
      }));
  }
}

/** The ghosts of a specimen in the order in which they are drawn: the plainest last. */
export function ghostsOf(specimen: Specimen): Ghost[] {
  if (specimen.kind === 'line') {
    const whole = specimen.isExit ? 0 : 1;
    return [
      { share: whole, alpha: 0.22, aside: 0, below: 0 },
      { share: 0.45, alpha: 1, aside: 0, below: 0 },
    ];
  }
  if (specimen.kind === 'word') {
    return [0.12, 0.35, 1].map((share, i) => ({ share, alpha: 1, aside: 0, below: (i - 1) * 0.29 }));
  }
  if (specimen.kind === 'row' || specimen.kind === 'scene') return [{ share: 0.5, alpha: 1, aside: 0, below: 0 }];
  return cardGhosts(specimen);
}
