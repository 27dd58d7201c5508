import { channelOf, clampToChannel, type ChannelId } from '../../basics/channel';
import { HOLD, LINEAR, reverseEasing, type Easing } from '../../basics/easing';
import type { Columns } from '../formula';
import { frameTicks, ticksFromSeconds, toFrameGrid, type Rate, type Ticks } from '../../basics/time';
import type { CompiledEase, CompiledPreset, CompiledRow } from './compile';
import { createWriter } from './columns';
import type { Phase } from './preset';

/** Times of a preset's moments from its beginning, moment after moment, each for all layers. */
export interface MomentColumns {
  /** As the formulas ask for them, in seconds, stretched; not finite counts as 0. */
  readonly seconds: readonly Float64Array[];
  /** Where they land, in ticks. */
  readonly ticks: readonly Float64Array[];
  /** The latest of each layer, in ticks. */
  readonly lasts: Float64Array;
  /** By how much each layer's preset is stretched. */
  readonly factors: Float64Array;
}

/** Seconds from the preset's beginning to each moment, as the formulas ask for them. */
export function momentColumns({ moments }: CompiledPreset, columns: Columns): Float64Array[] {
  return moments.map((moment) => {
    const seconds = new Float64Array(columns.stride);
    moment.run(columns, 0, columns.stride, seconds);
    return seconds;
  });
}

/** The latest moment of each layer, in seconds. */
export function naturalLengths(asked: readonly Float64Array[], layers: number): Float64Array {
  const longest = new Float64Array(layers);
  for (const seconds of asked) {
    for (let i = 0; i < layers; i++) if (seconds[i] > longest[i]) longest[i] = seconds[i];
  }
  return longest;
}

/**
 * Times of moments in ticks: those asked for times a factor for each layer, on whole frames where the preset wants that.
 * `ends` are the ends of movements, which count for how long it lasts.
 */
export function placeMoments(
  asked: readonly Float64Array[],
  factors: Float64Array,
  { preset }: CompiledPreset,
  rate: Rate,
  ends: readonly Float64Array[] = [],
): MomentColumns {
  const lasts = new Float64Array(factors.length);
  const isOnGrid = preset.grid === 'frames';
  const timeOf = (second: number, i: number): Ticks => {
    const exact = ticksFromSeconds(second);
    const at = isOnGrid ? toFrameGrid(exact, rate) : exact;
    if (at > lasts[i]) lasts[i] = at;
    return at;
  };
  // Loops: what goes through a callback of a column is boxed, number by number.
  const seconds = asked.map((column) => {
    const scaled = new Float64Array(column.length);
    for (let i = 0; i < column.length; i++) scaled[i] = Number.isFinite(column[i]) ? column[i] * factors[i] : 0;
    return scaled;
  });
  const ticks = seconds.map((column) => {
    const times = new Float64Array(column.length);
    for (let i = 0; i < column.length; i++) times[i] = timeOf(column[i], i);
    return times;
  });
  for (const column of ends) for (let i = 0; i < column.length; i++) timeOf(column[i] * factors[i], i);
  return { seconds, ticks, lasts, factors };
}

/** One key that a preset makes, where several may fall together: time from its beginning, and the time asked for. */
interface AskedKey {
  readonly key: { readonly after: Ticks; readonly value: number; readonly ease: Easing; readonly slot: string };
  readonly asked: number;
}

type MadeKey = AskedKey['key'];

/** The easing of a cell or a movement on one layer: of a curve parameter, what the layer's value of it is. */
export function easeOf({ scope, curves }: CompiledPreset, ease: CompiledEase, columns: Columns, row: number): Easing {
  if (ease.type !== 'parameter') return ease;
  const place = scope.places.get(`@${ease.name}`) as number;
  const easing = curves.easings[columns.values[place * columns.stride + row]] ?? LINEAR;
  return ease.reversed === true ? reverseEasing(easing) : easing;
}

/** Free handles on a channel of shares are shares of the rest value, so that they fit layers of any rest pose. */
function fitHandles(ease: Easing, channel: ChannelId, rest: number): Easing {
  if (ease.type !== 'handles' || channelOf(channel).unit !== 'share' || rest === 1 || rest === 0) return ease;
  const { leave, arrive } = ease;
  return {
    type: 'handles',
    leave: { ...leave, value: leave.value * rest },
    arrive: { ...arrive, value: arrive.value * rest },
  };
}

/** Moments closer than this, in seconds, were asked for at one time. */
const SAME_TIME = 1e-6;

function groupByTime(made: readonly AskedKey[]): AskedKey[][] {
  const groups: AskedKey[][] = [];
  for (const entry of made) {
    const last = groups.at(-1);
    if (last && last[0].key.after === entry.key.after) last.push(entry);
    else groups.push([entry]);
  }
  return groups;
}

/** The keys of a jump, at a time where the value changes at once: the old value holds until the frame before. */
function jumpKeys(first: MadeKey, last: MadeKey, frame: Ticks, before: Ticks, after: Ticks): MadeKey[] {
  const held = { ...first, ease: HOLD };
  if (last.after - frame > before) return [{ ...held, after: last.after - frame }, last];
  return first.after === 0 && frame < after ? [held, { ...last, after: frame }] : [last];
}

/**
 * Keys in order of time, one at each. Several moments asked for at one time are a jump. Where they only share a frame
 * for want of frames, the first of a row keeps its place at the beginning, and later on the last one counts.
 */
function layOut(made: readonly AskedKey[], frame: Ticks, phase: Phase): { keys: MadeKey[]; merged: boolean } {
  const groups = groupByTime(made);
  const keys: MadeKey[] = [];
  let merged = false;
  groups.forEach((group, g) => {
    const [first, last] = [group[0], group[group.length - 1]];
    if (first === last) return void keys.push(first.key);
    const isAsked = last.asked - first.asked <= SAME_TIME;
    if (!isAsked) merged = true;
    const isWhole = groups.length === 1;
    if (isWhole && first.key.after === 0 && phase === 'entrance') return void keys.push(last.key);
    if (isWhole || isAsked) {
      const after = groups[g + 1]?.[0].key.after ?? Infinity;
      return void keys.push(...jumpKeys(first.key, last.key, frame, keys.at(-1)?.after ?? -1, after));
    }
    keys.push(g === 0 ? first.key : last.key);
  });
  return { keys, merged };
}

/** What the cells of a channel start from, layer by layer. */
export interface RowFacts {
  readonly rest: (row: number) => number;
  /** Value that the layer has there as the preset begins. */
  readonly here: (row: number) => number;
}

/** A key that a preset makes, in scene time. */
export interface PresetKey {
  readonly at: Ticks;
  readonly value: number;
  readonly ease: Easing;
  readonly by: Origin;
}

/** Which run made a key, and what the key is in its preset. */
interface Origin {
  readonly run: string;
  readonly slot: string;
}

/** The keys of one channel on all layers. */
export interface MadeRow {
  readonly channel: ChannelId;
  /** Keys of a layer whose preset begins at a time, with the channel's limits kept; none where the row is switched off. */
  readonly keysOf: (row: number, start: Ticks) => PresetKey[];
  /** Slots whose formula gave no finite number on a layer; the rest value stands in. */
  readonly brokenOn: (row: number) => readonly string[];
  /** True where keys fell onto the frame of a later one on a layer, for want of frames, and were left out. */
  readonly isMergedOn: (row: number) => boolean;
}

/** Marks of a run's keys by slot, the same one for the same slot. */
export type Mark = (slot: string) => Origin;

/** Works out one row of a preset on all layers: each cell's formula once over all of them. */
export function makeRow(
  compiled: CompiledPreset,
  row: CompiledRow,
  columns: Columns,
  moments: MomentColumns,
  { facts, rate, mark }: { readonly facts: RowFacts; readonly rate: Rate; readonly mark: Mark },
): MadeRow {
  const { stride } = columns;
  const { channel, cells } = row;
  const [writeRest, writeHere] = [createWriter(compiled, columns, 'rest'), createWriter(compiled, columns, 'here')];
  const rests = new Float64Array(stride);
  for (let i = 0; i < stride; i++) {
    rests[i] = facts.rest(i);
    writeRest(i, rests[i]);
    writeHere(i, facts.here(i));
  }
  const isOn = row.when === null ? null : (compiled.scope.places.get(`@${row.when}`) as number) * stride;
  const values = cells.map(({ value }) => {
    const out = new Float64Array(stride);
    value.run(columns, 0, stride, out);
    return out;
  });
  const marks = cells.map(({ slot }) => mark(slot));
  const broken = new Map<number, string[]>();
  values.forEach((column, c) => {
    for (let i = 0; i < stride; i++) {
      if (Number.isFinite(column[i])) continue;
      broken.set(i, [...(broken.get(i) ?? []), cells[c].slot]);
      column[i] = rests[i];
    }
  });
  const merged = new Set<number>();
  const easeIn = (c: number, i: number): Easing => {
    const { ease } = cells[c];
    const own = ease.type === 'parameter' ? easeOf(compiled, ease, columns, i) : ease;
    return own.type === 'handles' ? fitHandles(own, channel, rests[i]) : own;
  };
  const frame = frameTicks(rate);
  const isApart = (i: number): boolean => {
    for (let c = 1; c < cells.length; c++) {
      if (!(moments.ticks[cells[c].moment][i] > moments.ticks[cells[c - 1].moment][i])) return false;
    }
    return true;
  };
  const laidOut = (i: number, start: Ticks): PresetKey[] => {
    const asked = cells.map(({ moment, slot }, c): AskedKey => ({
      key: { after: moments.ticks[moment][i], value: values[c][i], ease: easeIn(c, i), slot },
      asked: moments.seconds[moment][i],
    }));
    asked.sort((a, b) => a.key.after - b.key.after);
    const isInOrder = asked.every(({ key }, c) => c === 0 || key.after > asked[c - 1].key.after);
    const laid = isInOrder
      ? { keys: asked.map(({ key }) => key), merged: false }
      : layOut(asked, frame, compiled.preset.phase);
    if (laid.merged) merged.add(i);
    return laid.keys.map(({ after, value, ease, slot }) => ({
      at: start + after,
      value: clampToChannel(channel, value),
      ease,
      by: mark(slot),
    }));
  };
  const keysOf = (i: number, start: Ticks): PresetKey[] => {
    if (isOn !== null && columns.values[isOn + i] === 0) return [];
    if (!isApart(i)) return laidOut(i, start);
    const keys = new Array<PresetKey>(cells.length);
    for (let c = 0; c < cells.length; c++) {
      keys[c] = {
        at: start + moments.ticks[cells[c].moment][i],
        value: clampToChannel(channel, values[c][i]),
        ease: easeIn(c, i),
        by: marks[c],
      };
    }
    return keys;
  };
  const isShown = (i: number): boolean => isOn === null || columns.values[isOn + i] !== 0;
  return {
    channel,
    keysOf,
    brokenOn: (i) => (isShown(i) ? (broken.get(i) ?? NONE) : NONE),
    isMergedOn: (i) => merged.has(i),
  };
}

const NONE: readonly string[] = [];
