import { shuffled } from '../../basics/random';
import { boundsAt, compileScene, restFrame, type CompiledScene, type Frame } from '../../scene/sample';
import type { Scene } from '../../scene/scene';
import type { Finding } from '../finding';
import { centreOf, type Box, type Point } from '../../basics/transform';
import type { Order } from '../../scene/recipe';

/** Centres closer than this on screen, in pixels, count as level and start together. */
const LEVEL = 0.5;

const collator = new Intl.Collator('en', { numeric: true });

/**
 * Natural sorting, "row 2" before "row 10". Texts that only look alike to it, such as "row 1" and "row 01", have an
 * order too, so that only equal ones are equal.
 */
function compareTexts(a: string, b: string): number {
  return collator.compare(a, b) || (a < b ? -1 : a > b ? 1 : 0);
}

/** Ranks of texts, equal ones alike; an accent may be written in one sign or in two (Unicode NFC). */
function ranksOf(texts: readonly string[], compare: (a: string, b: string) => number): number[] {
  const rankOf = new Map<string, number>();
  for (const [rank, text] of [...new Set(texts)].sort(compare).entries()) rankOf.set(text, rank);
  return texts.map((text) => rankOf.get(text) ?? 0);
}

/** A scene with its rest pose, from which orders by place are read. */
export interface Staging {
  readonly scene: Scene;
  readonly compiled: CompiledScene;
  readonly rest: Frame;
}

/** Of each scene the staging that was made last: a dry run is planned many times over one scene. */
const stagings = new WeakMap<Scene, Staging>();

const boxesOfStagings = new WeakMap<Staging, readonly Box[]>();

/** Upright boxes of all layers in the rest pose; worked out once for each staging. */
function boxesOf(staging: Staging): readonly Box[] {
  const known = boxesOfStagings.get(staging) ?? staging.scene.layers.map((_, index) => boundsAt(staging.rest, index));
  boxesOfStagings.set(staging, known);
  return known;
}

/** Samples the rest pose of a scene; once for each scene, which never changes. */
export function createStaging(scene: Scene): Staging {
  const known = stagings.get(scene);
  if (known) return known;
  const compiled = compileScene(scene);
  const staging = { scene, compiled, rest: restFrame(compiled) };
  stagings.set(scene, staging);
  return staging;
}

function ranksByNumber(numbers: readonly number[]): number[] {
  const sorted = Int32Array.from(numbers, (_, i) => i).sort((a, b) => numbers[a] - numbers[b] || a - b);
  const ranks: number[] = new Array<number>(numbers.length);
  let rank = -1;
  let level = -Infinity;
  for (const i of sorted) {
    if (numbers[i] - level > LEVEL) {
      rank++;
      level = numbers[i];
    }
    ranks[i] = rank;
  }
  return ranks;
}

function ranksByName(names: readonly string[]): number[] {
  return ranksOf(
    names.map((name) => name.normalize('NFC')),
    compareTexts,
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

/** Ranks of pairs of numbers, the first of which counts more. */
function ranksByPair(pairs: readonly (readonly [number, number])[]): number[] {
  const sorted = pairs.map((pair, i) => ({ pair, i }));
  sorted.sort((a, b) => a.pair[0] - b.pair[0] || a.pair[1] - b.pair[1] || a.i - b.i);
  const ranks: number[] = [];
  let rank = -1;
  let last: readonly [number, number] | null = null;
  for (const { pair, i } of sorted) {
    if (last?.[0] !== pair[0] || pair[1] - last[1] > LEVEL) {
      rank++;
      last = pair;
    }
    ranks[i] = rank;
  }
  return ranks;
}

/** Numbers the rows of boxes: a box belongs to a row while its middle lies within the height of the row's first. */
function rowNumbers(spans: readonly (readonly [number, number])[]): number[] {
  const middles = spans.map(([from, to]) => (from + to) / 2);
  const numbers: number[] = [];
  let row = -1;
  let end = -Infinity;
  for (const i of middles.map((_, index) => index).sort((a, b) => middles[a] - middles[b] || a - b)) {
    if (middles[i] > end) {
      row++;
      end = Math.max(middles[i] + LEVEL, spans[i][1]);
    }
    numbers[i] = row;
  }
  return numbers;
}

function ranksByGrid(boxes: readonly Box[], { lead, snaking }: Extract<Order, { by: 'grid' }>): number[] {
  const isRows = lead === 'rows';
  const across = boxes.map((box): [number, number] => (isRows ? [box.top, box.bottom] : [box.left, box.right]));
  const along = boxes.map(({ left, right, top, bottom }) => (isRows ? (left + right) / 2 : (top + bottom) / 2));
  const rows = rowNumbers(across);
  return ranksByPair(rows.map((row, i) => [row, snaking === true && row % 2 === 1 ? -along[i] : along[i]]));
}

/** Ranks of the values of a data column: numbers first, by size, then texts; those without a value share the end. */
function ranksByData(values: readonly string[]): number[] {
  const isNumber = (text: string): boolean => text !== '' && Number.isFinite(Number(text));
  const group = (text: string): number => (text === '' ? 2 : isNumber(text) ? 0 : 1);
  // Numbers that are written differently, "1" and "1.0", are one value.
  const plain = values.map((value) => (isNumber(value) ? String(Number(value)) : value.normalize('NFC')));
  const compare = (a: string, b: string): number =>
    group(a) - group(b) || (group(a) === 0 ? Number(a) - Number(b) : compareTexts(a, b));
  return ranksOf(plain, compare);
}

function ranksByHand(ids: readonly string[], listed: readonly string[]): number[] {
  const places = new Map(listed.map((id, place) => [id, place]));
  const sorted = ids.map((id, i) => ({ place: places.get(id) ?? listed.length + i, i }));
  sorted.sort((a, b) => a.place - b.place);
  const ranks: number[] = [];
  sorted.forEach(({ i }, rank) => (ranks[i] = rank));
  return ranks;
}

const RADIANS = Math.PI / 180;

function forwardRanks(staging: Staging, picked: readonly number[], order: Order): number[] {
  const boxes = (): Box[] => picked.map((index) => boxesOf(staging)[index]);
  const numbersOf = (numberOf: (centre: Point) => number): number[] =>
    picked.map((index) => numberOf(centreOf(boxesOf(staging)[index])));
  const { layers, width, height } = staging.scene;
  switch (order.by) {
    case 'layered':
      return picked.map((_, i) => i);
    case 'name':
      return ranksByName(picked.map((index) => layers[index].name));
    case 'across':
      return ranksByNumber(numbersOf(({ x }) => x));
    case 'down':
      return ranksByNumber(numbersOf(({ y }) => y));
    case 'angle': {
      const [cos, sin] = [Math.cos(order.degrees * RADIANS), Math.sin(order.degrees * RADIANS)];
      return ranksByNumber(numbersOf(({ x, y }) => x * cos + y * sin));
    }
    case 'out-from':
      return ranksByNumber(numbersOf(({ x, y }) => Math.hypot(x - order.x * width, y - order.y * height)));
    case 'grid':
      return ranksByGrid(boxes(), order);
    case 'in-point':
      return ranksByNumber(picked.map((index) => layers[index].span.in));
    case 'shuffled':
      return ranksByShuffle(picked.length, order.seed);
    case 'data':
      return ranksByData(picked.map((index) => String(layers[index].data[order.column] ?? '').trim()));
    case 'hand':
      return ranksByHand(
        picked.map((index) => layers[index].id),
        order.layers,
      );
  }
}

/**
 * The place of each picked layer in the order: 0 for those that start first. Equal ones share a place, and no place
 * is left empty. `picked` are layer indices; the result runs parallel to it.
 */
export function placesOf(staging: Staging, picked: readonly number[], order: Order): number[] {
  const ranks = forwardRanks(staging, picked, order);
  const last = maximum(ranks);
  const turned = order.reversed === true ? ranks.map((rank) => last - rank) : ranks;
  const { blocks } = order;
  return blocks === undefined ? turned : turned.map((rank) => Math.floor(rank / blocks));
}

/**
 * That all layers of a run share one place in its order, as those do from top to bottom that stand side by side; a run
 * that is to go from one to the next then does nothing of the kind. Blocks as large as the run are meant so.
 */
export function findOnePlace(
  ids: readonly string[],
  places: readonly number[],
  { blocks }: Order,
  of: 'starts' | 'looks',
): Finding[] {
  if (blocks !== undefined || places.length < 2 || maximum(places) > 0) return [];
  return [{ code: 'one-place', layers: ids, of }];
}

/** The picked layers in their order, those of one place as layered. */
export function inOrder(picked: readonly number[], places: readonly number[]): number[] {
  return picked
    .map((index, i) => ({ index, place: places[i] }))
    .sort((a, b) => a.place - b.place || a.index - b.index)
    .map(({ index }) => index);
}

/** Greatest of many numbers; spreading ten thousand arguments would be slow. 0 for none. */
export function maximum(numbers: readonly number[]): number {
  return numbers.reduce((most, number) => Math.max(most, number), 0);
}
