import type { Specimen } from './specimen';

/** One ghost of a trail: when it is taken, how faint it is, and how far aside and below it is drawn (share of size). */
export interface Ghost {
  readonly share: number;
  readonly alpha: number;
  readonly aside: number;
  readonly below: number;
}

const COUNT = 9;
const FAINTEST = 0.1;
/** Share of the width over which the ghosts of a layer that stays in its place are spread. */
const SPREAD = 0.62;
/** Ghosts of a travelling layer are taken closer together where it is fast: early in an entrance, late in an exit. */
const CROWDING = 2.2;

function cardGhost(specimen: Specimen, u: number): Ghost {
  const { isExit, travels } = specimen;
  const alpha = FAINTEST + (1 - FAINTEST) * (isExit ? 1 - u : u) ** 1.6;
  const crowded = isExit ? 1 - (1 - u) ** CROWDING : u ** CROWDING;
  return { share: travels ? crowded : u, alpha, aside: travels ? 0 : (u - 0.5) * SPREAD, below: 0 };
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
  const ghosts = Array.from({ length: COUNT }, (_, i) => cardGhost(specimen, i / (COUNT - 1)));
  return specimen.isExit ? ghosts.reverse() : ghosts;
}
