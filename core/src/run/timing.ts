import type { Hang } from '../preset';
import type { Layer } from '../scene';
import { describeEntryProblem, parseTimeEntry, type Rate, type Ticks } from '../time';
import type { Finding } from './finding';
import type { Recipe } from './recipe';

/** Where the times of a recipe begin and how they are spaced, in ticks. */
export interface Timing {
  /** Scene time of the first start; null where every layer starts from its own in or out point. */
  readonly base: Ticks | null;
  /** From one place to the next; may be a fraction where a total is spread. */
  readonly gap: number;
  readonly places: number;
  readonly moves: Recipe['moves'];
  readonly hang: Hang;
}

/** A time field as ticks, or the finding that says what is wrong with it. */
export function readTime(text: string, rate: Rate, field: string): { ticks: Ticks; problem: Finding | null } {
  const result = parseTimeEntry(text, rate);
  if (result.ok) return { ticks: result.entry.ticks, problem: null };
  const message = describeEntryProblem(result.problem, rate);
  return { ticks: 0, problem: { code: 'bad-field', field, text, message } };
}

/** Reads start and spacing of a recipe for a number of places. */
export function createTiming(
  recipe: Recipe,
  hang: Hang,
  places: number,
  rate: Rate,
): { timing: Timing; problems: Finding[] } {
  const start = recipe.start.by === 'time' ? readTime(recipe.start.at, rate, 'Start') : null;
  const { spacing } = recipe;
  const spaced =
    spacing.by === 'gap' ? readTime(spacing.gap, rate, 'Gap') : readTime(spacing.total, rate, 'Spread over');
  const gap = spacing.by === 'gap' ? spaced.ticks : spaced.ticks / Math.max(1, places - 1);
  const problems = [start?.problem, spaced.problem].filter((problem) => problem !== null && problem !== undefined);
  return { timing: { base: start?.ticks ?? null, gap, places, moves: recipe.moves, hang }, problems };
}

export interface Start {
  /** Scene time at which the preset begins on this layer. */
  readonly start: Ticks;
  /** By how much the whole layer moves. */
  readonly moved: Ticks;
}

/**
 * Start of the preset on one layer. Exits without a stated time end at their layer's out point; moving keys, the last
 * one ends there and the ones before it earlier, so that nothing leaves its span.
 */
export function startOf(timing: Timing, place: number, layer: Layer, length: Ticks): Start {
  const offset = Math.round(place * timing.gap);
  const isExit = timing.hang === 'out';
  if (timing.moves === 'layers') return moveLayer(timing, offset, layer, length, isExit);
  if (timing.base !== null) return { start: timing.base + offset, moved: 0 };
  if (!isExit) return { start: layer.span.in + offset, moved: 0 };
  const back = Math.round((timing.places - 1 - place) * timing.gap);
  return { start: layer.span.out - length - back, moved: 0 };
}

function moveLayer(timing: Timing, offset: Ticks, layer: Layer, length: Ticks, isExit: boolean): Start {
  const hook = isExit ? layer.span.out - length : layer.span.in;
  const start = (timing.base ?? hook) + offset;
  return { start, moved: start - hook };
}
