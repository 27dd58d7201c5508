import { channelOf, type ChannelId } from '../channel';
import { HOLD, LINEAR, reverseEasing, type Easing } from '../easing';
import { FRAME_PLACE } from '../formula';
import { frameTicks, TICKS_PER_SECOND, ticksFromSeconds, toFrameGrid, type Rate, type Ticks } from '../time';
import type { Box } from '../transform';
import {
  curveIndex,
  type CompiledEase,
  type CompiledParameter,
  type CompiledPreset,
  type CompiledRow,
} from './compile';
import type { Parameter, Phase } from './preset';
import { inputValues, type ParameterValue } from './value';

/** What the formulas of a preset can know of one layer in a run. Lengths in px, `length` in ticks. */
export interface Circumstances {
  readonly rate: Rate;
  readonly place: number;
  readonly count: number;
  readonly share: number;
  readonly seed: number;
  readonly layer: {
    readonly width: number;
    readonly height: number;
    readonly length: Ticks;
    readonly left: number;
    readonly right: number;
    readonly top: number;
    readonly bottom: number;
    readonly x: number;
    readonly y: number;
  };
  readonly frame: { readonly width: number; readonly height: number };
}

/** The inputs of a preset's formulas, filled with the circumstances; parameters, rest and here are still 0. */
export function createInputs(compiled: CompiledPreset, facts: Circumstances): Float64Array {
  const inputs = new Float64Array(compiled.scope.size);
  inputs[FRAME_PLACE] = frameTicks(facts.rate) / TICKS_PER_SECOND;
  const set = (name: string, value: number): void => void (inputs[compiled.scope.places.get(name) as number] = value);
  const { layer, frame } = facts;
  set('place', facts.place);
  set('count', facts.count);
  set('share', facts.share);
  set('seed', facts.seed);
  set('layer.width', layer.width);
  set('layer.height', layer.height);
  set('layer.length', layer.length / TICKS_PER_SECOND);
  set('layer.left', layer.left);
  set('layer.right', layer.right);
  set('layer.top', layer.top);
  set('layer.bottom', layer.bottom);
  set('layer.x', layer.x);
  set('layer.y', layer.y);
  set('frame.width', frame.width);
  set('frame.height', frame.height);
  return inputs;
}

/** Writes a parameter's value into the inputs; `boxOf` gives a layer's upright box in the rest pose, of null its own. */
export function setParameter(
  { scope, curves }: CompiledPreset,
  inputs: Float64Array,
  parameter: Parameter,
  value: ParameterValue,
  boxOf: (layer: string | null) => Box,
): void {
  const set = (name: string, number: number): void => void (inputs[scope.places.get(`@${name}`) as number] = number);
  if (typeof value === 'object' && 'curve' in value) return set(parameter.name, curveIndex(curves, value.curve));
  for (const [name, number] of inputValues(parameter, value, boxOf)) set(name, number);
}

/** A value brought within the hard limits of a parameter. */
export function limitParameter({ min, max }: CompiledParameter, value: number, inputs: Float64Array): number {
  const low = min === null ? -Infinity : min.evaluate(inputs);
  const high = max === null ? Infinity : max.evaluate(inputs);
  return Math.min(high, Math.max(low, value));
}

/** Seconds from the preset's beginning to each moment, in the order of the moments. */
export function momentSeconds(compiled: CompiledPreset, inputs: Float64Array): number[] {
  return compiled.moments.map((moment) => moment.evaluate(inputs));
}

/** One key that a preset makes: time from its beginning, value, easing and the slot that it comes from. */
export interface MadeKey {
  readonly after: Ticks;
  readonly value: number;
  readonly ease: Easing;
  readonly slot: string;
}

export interface MadeRow {
  readonly channel: ChannelId;
  readonly keys: readonly MadeKey[];
  /** Slots whose formula gave no finite number; the rest value stands in. */
  readonly broken: readonly string[];
  /** Slots that fell onto the frame of a later one, for want of frames, and were left out. */
  readonly merged: readonly string[];
}

export interface RowFacts {
  readonly rest: number;
  readonly here: number;
}

/** Times of a preset's moments from its beginning: as its formulas ask for them, and where they land. */
export interface MomentTimes {
  readonly seconds: readonly number[];
  readonly ticks: readonly Ticks[];
  /** Length of a frame. */
  readonly frame: Ticks;
}

function rowIsOn(compiled: CompiledPreset, row: CompiledRow, inputs: Float64Array): boolean {
  return row.when === null || inputs[compiled.scope.places.get(`@${row.when}`) as number] !== 0;
}

function easeOf({ scope, curves }: CompiledPreset, ease: CompiledEase, inputs: Float64Array): Easing {
  if (ease.type !== 'parameter') return ease;
  const easing = curves.easings[inputs[scope.places.get(`@${ease.name}`) as number]] ?? LINEAR;
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

/** A key with the time in seconds that its moment was asked for. */
interface AskedKey {
  readonly key: MadeKey;
  readonly asked: number;
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
function layOut(made: readonly AskedKey[], frame: Ticks, phase: Phase): { keys: MadeKey[]; merged: string[] } {
  if (made.every(({ key }, i) => i === 0 || key.after > made[i - 1].key.after)) {
    return { keys: made.map(({ key }) => key), merged: [] };
  }
  const groups = groupByTime(made);
  const keys: MadeKey[] = [];
  const merged: string[] = [];
  groups.forEach((group, g) => {
    const [first, last] = [group[0], group[group.length - 1]];
    if (first === last) return void keys.push(first.key);
    const isAsked = last.asked - first.asked <= SAME_TIME;
    if (!isAsked) merged.push(...group.slice(0, -1).map(({ key }) => key.slot));
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

function makeRow(
  compiled: CompiledPreset,
  row: CompiledRow,
  inputs: Float64Array,
  { seconds, ticks, frame }: MomentTimes,
  { rest, here }: RowFacts,
): MadeRow {
  inputs[compiled.scope.places.get('rest') as number] = rest;
  inputs[compiled.scope.places.get('here') as number] = here;
  const broken: string[] = [];
  const made = row.cells.map(({ moment, value, ease, slot }) => {
    const result = value.evaluate(inputs);
    if (!Number.isFinite(result)) broken.push(slot);
    const own = fitHandles(easeOf(compiled, ease, inputs), row.channel, rest);
    const key: MadeKey = { after: ticks[moment], value: Number.isFinite(result) ? result : rest, ease: own, slot };
    return { key, asked: seconds[moment] };
  });
  made.sort((a, b) => a.key.after - b.key.after);
  const { keys, merged } = layOut(made, frame, compiled.preset.phase);
  return { channel: row.channel, keys, broken, merged };
}

/**
 * Times of the moments from the preset's beginning: the formulas' seconds times `factor`, in ticks on whole frames
 * where the preset asks for it. A time that is not finite counts as 0.
 */
export function momentTimes(
  asked: readonly number[],
  factor: number,
  compiled: CompiledPreset,
  rate: Rate,
): MomentTimes {
  const seconds = asked.map((second) => (Number.isFinite(second) ? second * factor : 0));
  const ticks = seconds.map((second) => {
    const exact = ticksFromSeconds(second);
    return compiled.preset.grid === 'frames' ? toFrameGrid(exact, rate) : exact;
  });
  return { seconds, ticks, frame: frameTicks(rate) };
}

/** The keys of every row that has cells and is switched on. */
export function makeRows(
  compiled: CompiledPreset,
  inputs: Float64Array,
  times: MomentTimes,
  factsOf: (channel: ChannelId) => RowFacts,
): MadeRow[] {
  return compiled.rows
    .filter((row) => row.cells.length > 0 && rowIsOn(compiled, row, inputs))
    .map((row) => makeRow(compiled, row, inputs, times, factsOf(row.channel)));
}
