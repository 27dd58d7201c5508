import { shuffled } from '../random';
import { boundsAt, type CompiledScene, type Frame } from '../sample';
import type { Scene } from '../scene';
import { centreOf, type Point } from '../transform';
import type { Order } from './recipe';

/** Centres closer than this on screen, in pixels, count as level and start together. */
const LEVEL = 0.5;

const natural = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });

/** A scene with its rest pose, from which orders by place are read. */
export interface Staging {
  readonly scene: Scene;
  readonly compiled: CompiledScene;
  readonly rest: Frame;
}

function ranksByNumber(numbers: readonly number[]): number[] {
  const sorted = numbers.map((number, i) => ({ number, i })).sort((a, b) => a.number - b.number || a.i - b.i);
  const ranks: number[] = [];
  let rank = -1;
  let level = -Infinity;
  for (const { number, i } of sorted) {
    if (number - level > LEVEL) {
      rank++;
      level = number;
    }
    ranks[i] = rank;
  }
  return ranks;
}

function ranksByName(names: readonly string[]): number[] {
  const sorted = [...names].sort(natural.compare);
  const distinct = sorted.filter((name, i) => i === 0 || natural.compare(name, sorted[i - 1]) !== 0);
  const rankOf = new Map(distinct.map((name, rank) => [name.toLocaleLowerCase('en'), rank]));
  return names.map(
    (name) =>
      rankOf.get(name.toLocaleLowerCase('en')) ?? distinct.findIndex((other) => natural.compare(name, other) === 0),
  );
}

function ranksByShuffle(count: number, seed: number): number[] {
  const ranks: number[] = [];
  shuffled(
    Array.from({ length: count }, (_, i) => i),
    seed,
  ).forEach((index, rank) => (ranks[index] = rank));
  return ranks;
}

function forwardRanks(staging: Staging, picked: readonly number[], order: Order): number[] {
  const centres = (): Point[] => picked.map((index) => centreOf(boundsAt(staging.rest, index)));
  switch (order.by) {
    case 'layered':
      return picked.map((_, i) => i);
    case 'name':
      return ranksByName(picked.map((index) => staging.scene.layers[index].name));
    case 'across':
      return ranksByNumber(centres().map(({ x }) => x));
    case 'down':
      return ranksByNumber(centres().map(({ y }) => y));
    case 'out-from': {
      const { width, height } = staging.scene;
      return ranksByNumber(centres().map(({ x, y }) => Math.hypot(x - order.x * width, y - order.y * height)));
    }
    case 'shuffled':
      return ranksByShuffle(picked.length, order.seed);
  }
}

/**
 * The place of each picked layer in the order: 0 for those that start first. Equal ones share a place, and no place
 * is left empty. `picked` are layer indices; the result runs parallel to it.
 */
export function placesOf(staging: Staging, picked: readonly number[], order: Order): number[] {
  const ranks = forwardRanks(staging, picked, order);
  if (order.reversed !== true) return ranks;
  const last = maximum(ranks);
  return ranks.map((rank) => last - rank);
}

/** Greatest of many numbers; spreading ten thousand arguments would be slow. 0 for none. */
export function maximum(numbers: readonly number[]): number {
  return numbers.reduce((most, number) => Math.max(most, number), 0);
}
