import { CHANNEL_COUNT, channelOf, type ChannelId } from '../../basics/channel';
import { HOLD, LINEAR } from '../../basics/easing';
import { frameTicks, TICKS_PER_SECOND, type Rate, type Ticks } from '../../basics/time';
import { evenPathOf } from '../../basics/motion';
import { restValue, type Key, type Layer, type Track } from '../layer';
import type { Scene } from '../scene';
import { compileScene } from './compile';
import { createFrame, sampleValues } from './frame';
import { compileRigs, type CompiledRigs, type Rigged } from './rigs';
import { createSegment, createTrackSampler } from './segment';

/** A moving value that is to become keys. */
export interface Bake {
  readonly value: (at: Ticks) => number;
  readonly from: Ticks;
  readonly to: Ticks;
  /** Times at which it may change its course at once: each gets a key. */
  readonly breaks: readonly Ticks[];
  /** Keys stand on multiples of this from `from` on, besides the breaks. */
  readonly step: Ticks;
  /** How far off they may be, in the channel's unit. */
  readonly tolerance: number;
}

/** Keys for a moving value, with how far off they are at worst, and when. */
export interface Baked {
  readonly keys: Track;
  readonly worst: number;
  readonly at: Ticks;
}

/** Looks within one step, so that what happens between two frames counts. */
const LOOKS = 4;
const INSET = TICKS_PER_SECOND / 2_000;

/** How many times as much as just beside it a value changes at once where it jumps, besides the tolerance. */
const ABRUPT = 4;

/** True where a value is another at a time than just beside it: before it with an inset below 0, else after it. */
function jumpsAt({ value, tolerance }: Bake, at: Ticks, inset: Ticks): boolean {
  const near = value(at + inset);
  return Math.abs(value(at) - near) > tolerance + ABRUPT * Math.abs(near - value(at + 2 * inset));
}

/**
 * A segment between two times with the value's own speeds just within its ends (Hermite form written as free handles). A
 * value that jumps as the segment is left or ends is held, so that nothing swings between two frames.
 */
function segmentBetween(bake: Bake, from: Ticks, to: Ticks): Key {
  const { value } = bake;
  const inset = Math.min(INSET, (to - from) / 4);
  const third = (to - from) / 3;
  const start = value(from);
  if (jumpsAt(bake, from, inset) || jumpsAt(bake, to, -inset)) return { at: from, value: start, ease: HOLD };
  const leave = ((value(from + inset) - start) / inset) * third;
  const arrive = -((value(to) - value(to - inset)) / inset) * third;
  const isStraight = Math.abs(leave) + Math.abs(arrive) < 1e-12 && Math.abs(value(to) - start) < 1e-12;
  return {
    at: from,
    value: start,
    ease: isStraight
      ? LINEAR
      : { type: 'handles', leave: { time: 1 / 3, value: leave }, arrive: { time: 1 / 3, value: arrive } },
  };
}

/** How far a segment is off at each of its looks, and how many there are. */
function missesOf({ value, step }: Bake, key: Key, to: Ticks) {
  const segment = createSegment(key.ease, key.value, value(to));
  const count = Math.max(2, Math.ceil(((to - key.at) / step) * LOOKS));
  const timeOf = (look: number): Ticks => Math.round(key.at + ((to - key.at) * look) / count);
  const missAt = (time: Ticks): number => Math.abs(segment.at((time - key.at) / (to - key.at)) - value(time));
  return { count, timeOf, missAt };
}

/** How far a segment is off at worst, and when. */
function missOf(bake: Bake, key: Key, to: Ticks): readonly [number, Ticks] {
  const { count, timeOf, missAt } = missesOf(bake, key, to);
  let [worst, at] = [0, key.at];
  for (let look = 1; look < count; look++) {
    const miss = missAt(timeOf(look));
    if (miss > worst) [worst, at] = [miss, timeOf(look)];
  }
  return [worst, at];
}

/** Whether a segment stays within the tolerance; the middle is looked at first, where most that do not are off. */
function isClose(bake: Bake, key: Key, to: Ticks): boolean {
  const { count, timeOf, missAt } = missesOf(bake, key, to);
  const isOff = (look: number): boolean => missAt(timeOf(look)) > bake.tolerance;
  if (isOff(count >> 1)) return false;
  for (let look = 1; look < count; look++) if (isOff(look)) return false;
  return true;
}

/** Remembers values: a fit looks at the same times again and again. */
function remembering(value: (at: Ticks) => number): (at: Ticks) => number {
  const known = new Map<Ticks, number>();
  return (at) => {
    const before = known.get(at);
    if (before !== undefined) return before;
    const made = value(at);
    known.set(at, made);
    return made;
  };
}

/** Times between which segments may end: the breaks, and every step in between. */
function stepsOf({ from, to, breaks, step }: Bake): { readonly times: Ticks[]; readonly isBreak: Set<Ticks> } {
  const isBreak = new Set([from, to, ...breaks.filter((at) => at > from && at < to)]);
  const times = new Set(isBreak);
  for (let at = from + step; at < to; at += step) times.add(at);
  return { times: [...times].sort((a, b) => a - b), isBreak };
}

/** A key of a fit, with how far its segment is off at worst, and when. */
interface FitKey {
  readonly key: Key;
  readonly miss: number;
  readonly when: Ticks;
}

/**
 * As few keys as go, but for the last: from each one the longest segment that stays within the tolerance, looked for by
 * doubling and halving. One step is always taken, so that there are never more keys than steps.
 */
function* fitted(bake: Bake): Generator<FitKey> {
  const { times, isBreak } = stepsOf(bake);
  let i = 0;
  while (i < times.length - 1) {
    let most = i + 1;
    while (most < times.length - 1 && !isBreak.has(times[most])) most++;
    const fits = (j: number): boolean => isClose(bake, segmentBetween(bake, times[i], times[j]), times[j]);
    let [low, high] = [i + 1, i + 1];
    while (high < most && fits(Math.min(most, i + (high - i) * 2))) {
      high = Math.min(most, i + (high - i) * 2);
      low = high;
    }
    high = Math.min(most, i + (high - i) * 2);
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (fits(middle)) low = middle;
      else high = middle - 1;
    }
    const key = segmentBetween(bake, times[i], times[low]);
    const [miss, when] = missOf(bake, key, times[low]);
    yield { key, miss, when };
    i = low;
  }
}

function bakedOf({ value, from, to }: Bake, fit: readonly FitKey[]): Baked {
  const worst = fit.reduce((most, one) => (one.miss > most.miss ? one : most), { miss: 0, when: from });
  const last: Key = { at: to, value: value(to), ease: LINEAR };
  return { keys: withoutStill([...fit.map(({ key }) => key), last]), worst: worst.miss, at: worst.when };
}

/** A moving value as few keys, at most one a step. */
export function bakeTrack(given: Bake): Baked {
  const bake = { ...given, value: remembering(given.value) };
  return bakedOf(bake, [...fitted(bake)]);
}

/** A moving value as fewer keys than so many; null, soon, where it needs as many. */
export function bakeInFewer(given: Bake, count: number): Baked | null {
  const bake = { ...given, value: remembering(given.value) };
  const fit: FitKey[] = [];
  // Only straight keys can still turn out to be none, where the value rests; the last one comes besides.
  let sure = 1;
  for (const one of fitted(bake)) {
    fit.push(one);
    if (one.key.ease.type !== 'linear' && ++sure >= count) return null;
  }
  const baked = bakedOf(bake, fit);
  return baked.keys.length < count ? baked : null;
}

/** Without keys between two that are the same: a value that rests needs its ends alone. */
function withoutStill(keys: readonly Key[]): Key[] {
  const isAlike = (a: Key | undefined, b: Key): boolean =>
    a !== undefined && Math.abs(a.value - b.value) < 1e-9 && a.ease.type === 'linear';
  return keys.filter((key, i) => {
    const next = keys[i + 1];
    return !(
      isAlike(keys[i - 1], key) &&
      key.ease.type === 'linear' &&
      next &&
      Math.abs(next.value - key.value) < 1e-9
    );
  });
}

/** How a tolerance of so many px counts on a channel: as degrees, and as per cent where it is a share. */
export function toleranceFor(channel: ChannelId, within: number): number {
  const { unit } = channelOf(channel);
  return unit === 'px' || unit === 'deg' ? within : within / 100;
}

/** Key times of a layer's channel and of the dials that are keyed, at which what a rig gives may turn. */
export function breaksOf(scene: Pick<Scene, 'runs'>, layer: Layer): Ticks[] {
  const own = Object.values(layer.tracks).flatMap((keys) => keys.map(({ at }) => at));
  const dials = scene.runs.flatMap(({ rig, layers }) =>
    rig && layers.includes(layer.id)
      ? rig.inputs.flatMap((input) => ('keys' in input ? input.keys.map(({ at }) => at) : []))
      : [],
  );
  return [...own, ...dials];
}

/** What rigs give to a channel of a layer, as keys within a tolerance. */
export function bakeChannel(
  scene: Pick<Scene, 'runs'>,
  rigs: Pick<CompiledRigs, 'valueAt'>,
  [layer, index]: readonly [Layer, number],
  channel: ChannelId,
  { step, within }: { readonly step: Ticks; readonly within: number },
): Baked {
  const { in: from, out } = layer.span;
  return bakeTrack({
    value: (at) => rigs.valueAt(index, channel, at),
    from,
    to: out,
    breaks: breaksOf(scene, layer),
    step,
    tolerance: toleranceFor(channel, within),
  });
}

/** A channel of a layer, by its index. */
export type DrivenCell = readonly [layer: number, channel: ChannelId];

/**
 * Values of driven channels at every look of a fit, worked out frame by frame for all layers at once, which costs a
 * small part of asking for one value after the other; other times are asked for one by one.
 */
export function tabulate(
  scene: Rigged,
  rigs: CompiledRigs,
  cells: readonly DrivenCell[],
  [from, to]: readonly [Ticks, Ticks],
  step: Ticks,
): (layer: number, channel: ChannelId, at: Ticks) => number {
  const compiled = compileScene(scene);
  const frame = createFrame(compiled);
  const look = step / LOOKS;
  const offsets = Number.isInteger(look) ? [0, INSET, 2 * INSET, look - 2 * INSET, look - INSET] : [];
  const count = offsets.length === 0 ? 0 : Math.floor((to - from) / look) + 1;
  const columns = new Map<number, Float64Array>();
  const slotOf = (layer: number, channel: ChannelId): number => layer * CHANNEL_COUNT + channelOf(channel).slot;
  for (const [layer, channel] of cells) columns.set(slotOf(layer, channel), new Float64Array(count * offsets.length));
  for (let i = 0; i < count; i++) {
    offsets.forEach((offset, k) => {
      sampleValues(compiled, from + i * look + offset, frame);
      for (const [slot, column] of columns) column[i * offsets.length + k] = frame.values[slot];
    });
  }
  return (layer, channel, at) => {
    const column = columns.get(slotOf(layer, channel));
    const i = Math.floor((at - from) / look);
    const k = offsets.indexOf(at - from - i * look);
    return column === undefined || k < 0 || i < 0 || i >= count
      ? rigs.valueAt(layer, channel, at)
      : column[i * offsets.length + k];
  };
}

/** The table of all that rigs drive on some layers, over the time in which any of these is there. */
export function tabulateDriven(
  scene: Rigged,
  rigs: CompiledRigs,
  layers: Iterable<number>,
  step: Ticks,
): (layer: number, channel: ChannelId, at: Ticks) => number {
  const cells = [...layers].flatMap((layer) => rigs.driven(layer).map((channel): DrivenCell => [layer, channel]));
  const spans = cells.map(([layer]) => scene.layers[layer].span);
  const from = spans.reduce((least, span) => Math.min(least, span.in), Infinity);
  const to = spans.reduce((most, span) => Math.max(most, span.out), 0);
  return tabulate(scene, rigs, cells, [Number.isFinite(from) ? from : 0, to], step);
}

/** Tolerance, in px, with which formats that cannot carry formulas get keys instead. */
export const EXPORT_WITHIN = 0.25;

/** A layer whose path has become keys of its position, and of its rotation where it turns along. */
function withoutPath(layer: Layer, index: number, { valueAt }: Pick<CompiledRigs, 'valueAt'>, step: Ticks): Layer {
  const even = layer.path ? evenPathOf(layer.path.d) : null;
  const { path, ...rest } = layer;
  if (!even || !path) return { ...rest, path: null };
  const { 'path.distance': distance, ...tracks } = layer.tracks;
  const out = new Float64Array(3);
  const bakeOf = (channel: ChannelId, part: number): Key[] => {
    const value = (at: Ticks): number => {
      even.write(valueAt(index, 'path.distance', at) * even.length, out, 0);
      return valueAt(index, channel, at) + out[part];
    };
    const breaks = [...(distance ?? []), ...(layer.tracks[channel] ?? [])].map(({ at }) => at);
    const { in: from, out: to } = layer.span;
    return [...bakeTrack({ value, from, to, breaks, step, tolerance: toleranceFor(channel, EXPORT_WITHIN) }).keys];
  };
  const moved = { ...tracks, 'position.x': bakeOf('position.x', 0), 'position.y': bakeOf('position.y', 1) };
  return {
    ...rest,
    path: null,
    tracks: path.turns ? { ...moved, rotation: bakeOf('rotation', 2) } : moved,
  };
}

/** A scene in which motion paths stand as keys; the same one without any. */
function withoutPaths(scene: Scene, step: Ticks): Scene {
  if (scene.layers.every(({ path }) => !path)) return scene;
  const samplers = new Map<Track, (at: Ticks) => number>();
  const valueAt: CompiledRigs['valueAt'] = (index, channel, at) => {
    const layer = scene.layers[index];
    const keys = layer.tracks[channel];
    if (!keys || keys.length === 0) return restValue(layer, channel);
    const sampler = samplers.get(keys) ?? createTrackSampler(keys);
    samplers.set(keys, sampler);
    return sampler(at);
  };
  const layers = scene.layers.map((layer, index) =>
    layer.path ? withoutPath(layer, index, { valueAt }, step) : layer,
  );
  return { ...scene, layers };
}

/**
 * A scene in which what rigs give and what motion paths add stands as keys, for formats that can carry neither; the same
 * one without any.
 */
export function bakedScene(scene: Scene, rate: Rate = scene.rate): Scene {
  const step = frameTicks(rate);
  return withoutPaths(withoutRigs(scene, step), step);
}

function withoutRigs(scene: Scene, step: Ticks): Scene {
  const rigs = compileRigs(scene);
  if (!rigs) return scene;
  const valueAt = tabulateDriven(scene, rigs, scene.layers.keys(), step);
  const layers = scene.layers.map((layer, index): Layer => {
    const driven = rigs.driven(index);
    if (driven.length === 0) return layer;
    const tracks = { ...layer.tracks };
    for (const channel of driven) {
      tracks[channel] = [
        ...bakeChannel(scene, { valueAt }, [layer, index], channel, { step, within: EXPORT_WITHIN }).keys,
      ];
    }
    return { ...layer, tracks };
  });
  return { ...scene, layers, runs: scene.runs.filter(({ rig }) => rig === undefined) };
}
