import { progressOf, reverseEasing } from '../../basics/easing';
import { randomAt, seedFromText } from '../../basics/random';
import { frameTicks, TICKS_PER_SECOND, ticksFromSeconds, toFrameGrid, type Rate, type Ticks } from '../../basics/time';
import type { AdjustStep, Pivot } from '../../scene/recipe';
import type { Phase } from '../../formulas/preset';
import type { Key, LayerSpan } from '../../scene/layer';
import { mapEntries, mapPicked, momentsOf, type Entries, type Entry } from './picked';

/** What a step knows of one layer. */
export interface StepLayer {
  readonly id: string;
  readonly span: LayerSpan;
  readonly rate: Rate;
  readonly seed: number;
  /** Value of one of the step's numbers: seconds, px, degrees, shares, plain. */
  readonly number: (name: string) => number;
  /** Times of the scene's cues, and of the pivot where it is one for all. */
  readonly cues: readonly Ticks[];
  readonly at: Ticks | null;
  /** The phase of the run that made a key; null for keys of others and of hands. */
  readonly phaseOf: (key: Key) => Phase | null;
}

type StepOf<T extends AdjustStep['type']> = Extract<AdjustStep, { type: T }>;

/** Picked keys at other times, all of one moment alike. */
function retimed(entries: Entries, timeOf: (at: Ticks) => number): Entries {
  return mapPicked(entries, (key) => ({ ...key, at: Math.round(timeOf(key.at)) }));
}

function pivotTime(pivot: Pivot, times: readonly Ticks[], { span, at }: StepLayer): Ticks {
  const [first, last] = [times[0], times[times.length - 1]];
  switch (pivot.by) {
    case 'first':
      return first;
    case 'last':
      return last;
    case 'middle':
      return (first + last) / 2;
    case 'in':
      return span.in;
    case 'out':
      return span.out;
    case 'time':
    case 'cue':
      return at ?? first;
  }
}

function ends(entries: Entries): readonly [Ticks, Ticks, Ticks[]] | null {
  const times = momentsOf(entries);
  return times.length === 0 ? null : [times[0], times[times.length - 1], times];
}

/** t + by. */
export function shift(entries: Entries, layer: StepLayer): Entries {
  const by = ticksFromSeconds(layer.number('by'));
  return retimed(entries, (at) => at + by);
}

/** From where to where the picked keys of a layer reach that runs of one phase made; null without any. */
function blockOf(entries: Entries, phase: Phase, { phaseOf }: StepLayer): readonly [Ticks, Ticks] | null {
  let [first, last] = [Infinity, -Infinity];
  for (const list of entries.values()) {
    for (const { key, isPicked } of list) {
      if (!isPicked || phaseOf(key) !== phase) continue;
      first = Math.min(first, key.at);
      last = Math.max(last, key.at);
    }
  }
  return first > last ? null : [first, last];
}

/**
 * A change of times under which entrances keep their length behind where they then begin, and exits theirs before where
 * they then end; what lies between takes up the difference. Where there would be no room between the two, or they
 * overlap, all is changed alike.
 */
function keepingEnds(entries: Entries, timeOf: (at: Ticks) => number, layer: StepLayer): (at: Ticks) => number {
  const times = momentsOf(entries);
  const [first, last] = [times[0], times[times.length - 1]];
  const [begins, after] = blockOf(entries, 'entrance', layer) ?? [first, first];
  const [before, stops] = blockOf(entries, 'exit', layer) ?? [last, last];
  const landed = timeOf(begins) + after - begins;
  // Where all is one block, nothing is left to take the change up.
  if (after === last) return (at) => landed - (after - at);
  const leaves = timeOf(stops) - (stops - before);
  if (before === first) return (at) => leaves + (at - before);
  if (after > before || landed > leaves) return timeOf;
  return (at) => {
    if (at <= after) return landed - (after - at);
    if (at >= before) return leaves + (at - before);
    return landed + ((at - after) / (before - after)) * (leaves - landed);
  };
}

function stretchedBy(
  entries: Entries,
  { keepsEnds }: { readonly keepsEnds?: true | undefined },
  layer: StepLayer,
  timeOf: (at: Ticks) => number,
): Entries {
  return retimed(entries, keepsEnds === true ? keepingEnds(entries, timeOf, layer) : timeOf);
}

/** p + (t − p) · to. */
export function stretch(entries: Entries, step: StepOf<'stretch'>, layer: StepLayer): Entries {
  const found = ends(entries);
  if (!found) return entries;
  const about = pivotTime(step.pivot, found[2], layer);
  const to = Math.max(0, layer.number('to'));
  return stretchedBy(entries, step, layer, (at) => about + (at - about) * to);
}

/** Stretched about the pivot so that first to last last so long. */
export function fit(entries: Entries, step: StepOf<'fit'>, layer: StepLayer): Entries {
  const found = ends(entries);
  if (!found) return entries;
  const [first, last, times] = found;
  if (last === first) return entries;
  const to = ticksFromSeconds(Math.max(0, layer.number('length'))) / (last - first);
  const about = pivotTime(step.pivot, times, layer);
  return stretchedBy(entries, step, layer, (at) => about + (at - about) * to);
}

/** Stretched and shifted so that they fill the time from … to; one moment alone goes to its beginning. */
export function fillWindow(entries: Entries, step: StepOf<'window'>, layer: StepLayer): Entries {
  const found = ends(entries);
  if (!found) return entries;
  const [first, last] = found;
  const [from, to] = [ticksFromSeconds(layer.number('from')), ticksFromSeconds(layer.number('to'))];
  const factor = last === first ? 0 : Math.max(0, to - from) / (last - first);
  return stretchedBy(entries, step, layer, (at) => from + (at - first) * factor);
}

/** first + last − t; what lies between picked neighbours is played backwards. */
export function reverse(entries: Entries): Entries {
  const found = ends(entries);
  if (!found) return entries;
  const sum = found[0] + found[1];
  return new Map(
    [...entries].map(([channel, list]) => {
      const turned = list.map((entry, i): Entry => {
        if (!entry.isPicked) return entry;
        const before = list[i - 1];
        // It now leaves by the easing by which it was reached; the first, now the last, by the last one's.
        const last = list.findLast(({ isPicked }) => isPicked) ?? entry;
        const ease = before?.isPicked ? reverseEasing(before.key.ease) : last.key.ease;
        return { ...entry, key: { ...entry.key, at: sum - entry.key.at, ease } };
      });
      return [channel, turned];
    }),
  );
}

/** The layer’s picked keys moved so that the first one stands at a time that was worked out for all layers together. */
export function startAt(entries: Entries, start: Ticks): Entries {
  const found = ends(entries);
  return found ? retimed(entries, (at) => at - found[0] + start) : entries;
}

/** Moments at even distances between first and last. */
export function spreadTimes(entries: Entries): Entries {
  const found = ends(entries);
  if (!found) return entries;
  const [first, last, times] = found;
  const place = new Map(times.map((at, i) => [at, i]));
  const gap = times.length > 1 ? (last - first) / (times.length - 1) : 0;
  return retimed(entries, (at) => first + (place.get(at) ?? 0) * gap);
}

/** first + (last − first) · ease(u), never before the moment before it. */
export function retime(entries: Entries, { ease }: StepOf<'retime'>): Entries {
  const found = ends(entries);
  if (!found) return entries;
  const [first, last, times] = found;
  if (last === first) return entries;
  const progress = progressOf(ease);
  const placed = new Map<Ticks, Ticks>();
  let before = first;
  for (const at of times) {
    const wanted = at === last ? last : Math.round(first + (last - first) * progress((at - first) / (last - first)));
    before = Math.min(last, Math.max(before, wanted));
    placed.set(at, before);
  }
  return retimed(entries, (at) => placed.get(at) ?? at);
}

/** t ± time · random, one draw for each moment of a layer. */
export function jitterTimes(entries: Entries, layer: StepLayer): Entries {
  const reach = ticksFromSeconds(layer.number('time'));
  if (reach === 0) return entries;
  const place = new Map(momentsOf(entries).map((at, i) => [at, i]));
  const own = seedFromText(layer.id);
  return retimed(entries, (at) => at + reach * (randomAt(layer.seed + own, place.get(at) ?? 0) * 2 - 1));
}

/** The nearest frame. */
export function wholeFrames(entries: Entries, { rate }: StepLayer): Entries {
  return retimed(entries, (at) => toFrameGrid(at, rate));
}

/** Keys of frame n at another rate stand on frame n of this one. */
export function conform(entries: Entries, layer: StepLayer): Entries {
  const then = layer.number('rate');
  if (!(then > 0)) return entries;
  const frame = frameTicks(layer.rate);
  return retimed(entries, (at) => Math.round((at / TICKS_PER_SECOND) * then) * frame);
}

/** The nearest cue, the earlier one of two as near. */
export function toCues(entries: Entries, { cues }: StepLayer): Entries {
  if (cues.length === 0) return entries;
  return retimed(entries, (at) =>
    cues.reduce((best, cue) => (Math.abs(cue - at) < Math.abs(best - at) ? cue : best), cues[0]),
  );
}

/** All keys from a time on later by so much; taken out, what lies between goes, but for the last pose before the cut. */
export function moveLater(entries: Entries, layer: StepLayer): Entries {
  const [from, by] = [ticksFromSeconds(layer.number('at')), ticksFromSeconds(layer.number('by'))];
  const moved = mapEntries(entries, (entry) =>
    entry.key.at >= from ? { ...entry, key: { ...entry.key, at: entry.key.at + by } } : entry,
  );
  if (by >= 0) return moved;
  return new Map(
    [...moved].map(([channel, list]) => {
      const original = entries.get(channel) ?? [];
      return [channel, list.filter((entry, i) => original[i].key.at < from || entry.key.at >= from)];
    }),
  );
}
