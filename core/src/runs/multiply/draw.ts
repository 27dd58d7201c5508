import { randomAt } from '../../basics/random';
import type { MultiplyRecipe } from '../../scene/recipe';

/** What is drawn for a copy; each has numbers of its own, so that one choice never moves another. */
export const DRAWN = [
  'x',
  'y',
  'endX',
  'endY',
  'start',
  'life',
  'source',
  'scale',
  'endScale',
  'turn',
  'endTurn',
  'opacity',
  'endOpacity',
  'colour',
  'outline',
  'in',
  'out',
] as const;
/** What is drawn for a copy. */
export type Drawn = (typeof DRAWN)[number];

const GROUPS: Readonly<Record<Drawn, 'place' | 'time' | 'look'>> = {
  x: 'place',
  y: 'place',
  endX: 'place',
  endY: 'place',
  start: 'time',
  life: 'time',
  source: 'look',
  scale: 'look',
  endScale: 'look',
  turn: 'look',
  endTurn: 'look',
  opacity: 'look',
  endOpacity: 'look',
  colour: 'look',
  outline: 'look',
  in: 'look',
  out: 'look',
};

/** Gives the number in [0, 1) that is drawn for a copy; the same on every machine, and however many copies there are. */
export type Draw = (copy: number, what: Drawn) => number;

/** Draws by a recipe's seed, and by its own ones for places, times and looks. */
export function createDraw({ seed, seeds }: Pick<MultiplyRecipe, 'seed' | 'seeds'>): Draw {
  return (copy, what) => randomAt(seeds?.[GROUPS[what]] ?? seed, copy * DRAWN.length + DRAWN.indexOf(what));
}

/** A number between two. */
export function between([from, to]: readonly [number, number], share: number): number {
  return from + (to - from) * share;
}

/** The place in a list that a draw falls on, each as often as its weight says. The list is not empty. */
export function weighted(weights: readonly number[], share: number): number {
  const all = weights.reduce((sum, weight) => sum + weight, 0);
  let left = share * all;
  const found = weights.findIndex((weight) => (left -= weight) < 0);
  return found < 0 ? weights.length - 1 : found;
}
