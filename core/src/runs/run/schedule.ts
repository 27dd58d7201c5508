import { progressOf } from '../../basics/easing';
import type { Hang } from '../../formulas/preset';
import type { PresetRecipe, Spacing } from '../../scene/recipe';
import type { Layer } from '../../scene/layer';
import type { Scene } from '../../scene/scene';
import type { Finding } from '../finding';
import { maximum, problemsOf, readMoment, readTime } from '../order';
import { frameTicks, toFrameGrid, type Rate, type Ticks } from '../../basics/time';

/** What one layer brings to the timing of a run. */
export interface Entrant {
  readonly layer: Layer;
  readonly place: number;
  /** Length that its preset would have, before the run's own length is solved for. */
  readonly lasts: Ticks;
}

/** The times of a recipe, read for one scene. */
export interface Timing {
  readonly recipe: PresetRecipe;
  readonly hang: Hang;
  readonly rate: Rate;
  /** Scene time of the first start; null where every layer starts from its own in or out point. */
  readonly base: Ticks | null;
  /** Scene time at which the last one is to end; null where nothing is solved for. */
  readonly finish: Ticks | null;
  readonly gap: Ticks;
  readonly window: Ticks;
  readonly apart: Ticks;
  readonly hold: Ticks;
  /** Times of the cues at or after the start, ascending. */
  readonly cues: readonly Ticks[];
  readonly sceneLength: Ticks;
  /** Starts land on whole frames where the preset's moments do. */
  readonly isOnGrid: boolean;
}

/** Reads start, spacing and length of a recipe. */
export function createTiming(
  recipe: PresetRecipe,
  hang: Hang,
  scene: Scene,
  isOnGrid: boolean,
): { timing: Timing; problems: Finding[] } {
  const { start, spacing, length } = recipe;
  const { rate } = scene;
  const base = start.by === 'time' || start.by === 'cue' ? readMoment(start, scene, 'Start') : null;
  const solved = [start, spacing, length].filter((field) => field.by === 'finish');
  const finish = solved.length > 0 ? readTime(solved[0].at, rate, 'Finish') : null;
  const gap = spacing.by === 'gap' || spacing.by === 'relay' ? readTime(spacing.gap, rate, 'Gap') : null;
  const total = spacing.by === 'total' ? readTime(spacing.total, rate, 'Spread over') : null;
  const apart = spacing.by === 'rows' ? readTime(spacing.apart, rate, 'From row to row') : null;
  const hold = spacing.by === 'rows' ? readTime(spacing.hold, rate, 'From one to its replacement') : null;
  const window = length.by === 'fit' ? readTime(length.window, rate, 'Window') : null;
  const problems = problemsOf([base, finish, gap, total, apart, hold, window]);
  if (solved.length > 1) {
    const message = 'Only one of start, gap and length can follow from the finish. Fix the others.';
    problems.push({ code: 'bad-field', field: 'Finish', text: solved[1].at, message });
  }
  const cues = scene.cues.map(({ at }) => at).filter((at) => at >= (base?.ticks ?? 0));
  if (spacing.by === 'cues' && cues.length === 0) problems.push({ code: 'no-cues', at: base?.ticks ?? 0 });
  const timing: Timing = {
    recipe,
    hang,
    rate,
    base: base?.ticks ?? null,
    finish: finish?.ticks ?? null,
    gap: gap?.ticks ?? total?.ticks ?? 0,
    window: window?.ticks ?? 0,
    apart: apart?.ticks ?? 0,
    hold: hold?.ticks ?? 0,
    cues: cues.sort((a, b) => a - b),
    sceneLength: scene.length,
    isOnGrid,
  };
  return { timing, problems };
}

/** True where layers are to start one after another by their places in the order. */
export function isStaggered({ recipe, gap }: Timing): boolean {
  const { spacing } = recipe;
  return spacing.by === 'gap' || spacing.by === 'total' ? gap !== 0 : true;
}

function snap({ isOnGrid, rate }: Timing, ticks: number): Ticks {
  return isOnGrid ? toFrameGrid(Math.round(ticks), rate) : Math.round(ticks);
}

/** Where a layer would start without any offset. */
function hookOf({ base, hang }: Timing, { layer, lasts }: Entrant): Ticks {
  if (base !== null) return base;
  return hang === 'out' ? layer.span.out - lasts : layer.span.in;
}

type Offsets = (place: number) => number;

/** Longest length at each place. */
function lengthsByPlace(entrants: readonly Entrant[]): number[] {
  const lengths: number[] = [];
  for (const { place, lasts } of entrants) lengths[place] = Math.max(lengths[place] ?? 0, lasts);
  return Array.from(lengths, (length) => length ?? 0);
}

function relayOffsets(entrants: readonly Entrant[], gap: Ticks): Offsets {
  const starts: number[] = [];
  let at = 0;
  lengthsByPlace(entrants).forEach((length, place) => {
    starts[place] = at;
    at += length + gap;
  });
  return (place) => starts[place];
}

/** Offsets along the cues; beyond the last one they go on as the last two are apart, or wrapped with the first cue again. */
function cueOffsets(cues: readonly Ticks[], isWrapped: boolean): Offsets {
  if (isWrapped && cues.length > 0) return (place) => cues[place % cues.length] - cues[0];
  const [last, before] = [cues[cues.length - 1] ?? 0, cues[cues.length - 2]];
  const step = before === undefined ? 0 : last - before;
  return (place) => (cues[place] ?? last + step * (place - cues.length + 1)) - (cues[0] ?? 0);
}

function offsetsOf(timing: Timing, spacing: Spacing, entrants: readonly Entrant[], lastPlace: number): Offsets {
  switch (spacing.by) {
    case 'gap':
      return (place) => place * timing.gap;
    case 'total': {
      const curve = progressOf(spacing.curve);
      return (place) => (lastPlace === 0 ? 0 : curve(place / lastPlace) * timing.gap);
    }
    case 'relay':
      return relayOffsets(entrants, timing.gap);
    case 'cues':
      return cueOffsets(timing.cues, spacing.wrap === true);
    case 'rows': {
      const offset = (place: number): Ticks =>
        (place % spacing.rows) * timing.apart + Math.floor(place / spacing.rows) * timing.hold;
      return spacing.wrap === true ? wrapped(offset, timing, entrants, lastPlace) : offset;
    }
    case 'finish':
      return gapToFinish(timing, entrants);
  }
}

/** Offsets that begin again with the first place after the last one that is over before the scene is. */
function wrapped(offset: Offsets, timing: Timing, entrants: readonly Entrant[], lastPlace: number): Offsets {
  const lengths = lengthsByPlace(entrants);
  const first = entrants.reduce((least, entrant) => Math.min(least, hookOf(timing, entrant)), Infinity);
  let fitting = 0;
  while (fitting <= lastPlace && first + offset(fitting) + lengths[fitting] <= timing.sceneLength) fitting++;
  return fitting === 0 ? offset : (place) => offset(place % fitting);
}

/** The widest gap with which nobody ends after the finish. */
function gapToFinish(timing: Timing, entrants: readonly Entrant[]): Offsets {
  const { finish, rate, isOnGrid } = timing;
  let gap = Infinity;
  for (const entrant of entrants) {
    if (entrant.place === 0) continue;
    gap = Math.min(gap, ((finish ?? 0) - hookOf(timing, entrant) - entrant.lasts) / entrant.place);
  }
  gap = Number.isFinite(gap) ? Math.max(0, gap) : 0;
  const frame = frameTicks(rate);
  const whole = isOnGrid && gap >= frame ? Math.floor(gap / frame) * frame : gap;
  return (place) => place * whole;
}

/** One length for all that fills the window, or lands the last one at the finish. */
function solvedLength(timing: Timing, entrants: readonly Entrant[], lastPlace: number): number {
  const { recipe, finish, window, gap, rate } = timing;
  const first = entrants.reduce((least, entrant) => Math.min(least, hookOf(timing, entrant)), Infinity);
  const room = recipe.length.by === 'fit' ? window : (finish ?? 0) - first;
  const frame = frameTicks(rate);
  const down = (ticks: number): number => Math.floor(ticks / frame + 1e-9) * frame;
  if (recipe.spacing.by === 'relay') return down((room - lastPlace * gap) / (lastPlace + 1));
  const offsets = offsetsOf(timing, recipe.spacing, entrants, lastPlace);
  return down(room - maximum(entrants.map(({ place }) => snap(timing, offsets(place)))));
}

/** When a preset begins on one layer, and for how long. */
export interface Slot {
  /** Scene time at which the preset begins on this layer. */
  readonly start: Ticks;
  /** By how much the whole layer moves. */
  readonly moved: Ticks;
  readonly lasts: Ticks;
}

/** When it begins on each layer, and what cannot be met. */
export interface Schedule {
  readonly slots: readonly Slot[];
  readonly problems: readonly Finding[];
  /** Scene time at which the last one ends. */
  readonly finish: Ticks;
}

/** Entrants with the length that the recipe solves for. */
function withLengths(
  timing: Timing,
  entrants: readonly Entrant[],
  lastPlace: number,
): { entrants: readonly Entrant[]; problem: Finding | null } {
  const { by } = timing.recipe.length;
  if (by !== 'fit' && by !== 'finish') return { entrants, problem: null };
  const lasts = solvedLength(timing, entrants, lastPlace);
  const frame = frameTicks(timing.rate);
  if (lasts >= frame) return { entrants: entrants.map(({ layer, place }) => ({ layer, place, lasts })), problem: null };
  const least = entrants.map(({ layer, place }) => ({ layer, place, lasts: frame }));
  const soonest = endOf(placeAll(timing, least, lastPlace));
  const met =
    by === 'fit'
      ? { field: 'Window' as const, wanted: timing.window, nearest: soonest - firstStart(timing, least) }
      : { field: 'Finish' as const, wanted: timing.finish ?? 0, nearest: soonest };
  return { entrants: least, problem: { code: 'cannot-meet', ...met, why: 'frames' } };
}

function firstStart(timing: Timing, entrants: readonly Entrant[]): Ticks {
  return entrants.reduce((least, entrant) => Math.min(least, hookOf(timing, entrant)), Infinity);
}

function endOf(slots: readonly Slot[]): Ticks {
  return slots.reduce((latest, { start, lasts }) => Math.max(latest, start + lasts), -Infinity);
}

/**
 * Exits without a stated time end at their layer's out point; moving keys, the last one ends there and the ones before
 * it earlier, so that nothing leaves its span.
 */
function placeAll(timing: Timing, entrants: readonly Entrant[], lastPlace: number): Slot[] {
  const { recipe, base, hang } = timing;
  const offsets = offsetsOf(timing, recipe.spacing, entrants, lastPlace);
  const most = maximum(entrants.map(({ place }) => snap(timing, offsets(place))));
  const own = base === null && recipe.start.by === 'layer';
  return entrants.map((entrant) => {
    const { layer, place, lasts } = entrant;
    const offset = snap(timing, offsets(place));
    const hook = hang === 'out' ? layer.span.out - lasts : layer.span.in;
    if (recipe.spacing.by === 'cues') return slotAt(timing, (timing.cues[0] ?? 0) + offset, hook, lasts);
    if (recipe.moves === 'layers') return slotAt(timing, (base ?? hook) + offset, hook, lasts);
    const start = own && hang === 'out' ? hook - (most - offset) : hookOf(timing, entrant) + offset;
    return { start, moved: 0, lasts };
  });
}

function slotAt({ recipe }: Timing, start: Ticks, hook: Ticks, lasts: Ticks): Slot {
  return { start, moved: recipe.moves === 'layers' ? start - hook : 0, lasts };
}

/** Moves everything so that the last one ends at the finish. */
function startToFinish(timing: Timing, entrants: readonly Entrant[], lastPlace: number): Schedule {
  const slots = placeAll({ ...timing, base: 0 }, entrants, lastPlace);
  const by = snap(timing, (timing.finish ?? 0) - endOf(slots));
  const moved = slots.map((slot) => ({
    ...slot,
    start: slot.start + by,
    moved: timing.recipe.moves === 'layers' ? slot.moved + by : 0,
  }));
  const first = moved.reduce((least, { start }) => Math.min(least, start), Infinity);
  if (first >= 0) return { slots: moved, problems: [], finish: endOf(moved) };
  const nearest = endOf(slots);
  const problem: Finding = {
    code: 'cannot-meet',
    field: 'Finish',
    wanted: timing.finish ?? 0,
    nearest,
    why: 'before-scene',
  };
  return { slots, problems: [problem], finish: nearest };
}

/** When each layer of a run starts and how long its preset lasts. Slots run parallel to the entrants. */
export function createSchedule(timing: Timing, given: readonly Entrant[]): Schedule {
  const lastPlace = maximum(given.map(({ place }) => place));
  const { entrants, problem } = withLengths(timing, given, lastPlace);
  if (timing.recipe.start.by === 'finish') return startToFinish(timing, entrants, lastPlace);
  const slots = placeAll(timing, entrants, lastPlace);
  const finish = endOf(slots);
  const problems = problem ? [problem] : [];
  if (timing.recipe.spacing.by === 'finish' && timing.finish !== null && finish > timing.finish) {
    problems.push({ code: 'cannot-meet', field: 'Finish', wanted: timing.finish, nearest: finish, why: 'longer' });
  }
  const { spacing } = timing.recipe;
  if (spacing.by === 'cues' && spacing.wrap !== true && lastPlace >= timing.cues.length && timing.cues.length > 0) {
    problems.push({ code: 'cues-run-out', cues: timing.cues.length, places: lastPlace + 1 });
  }
  return { slots, problems, finish };
}
