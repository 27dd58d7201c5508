import { clipTimeAt } from './clips';
import { CHANNEL_COUNT, CHANNELS, channelOf, type ChannelId } from '../../basics/channel';
import { LINEAR } from '../../basics/easing';
import { frameTicks, TICKS_PER_SECOND, type Rate, type Ticks } from '../../basics/time';
import type { Columns } from '../../formulas/formula';
import { restValue, type Layer, type Track } from '../layer';
import type { RunRecord, Scene } from '../scene';
import { sampleTrack } from './segment';
import { createChaser, type Chaser } from './chase';
import { arrivalsOf, keyTimesOf, lastAtOrBefore, type Timing } from './key-times';
import { orderCells, type CellProblem } from './rig-order';
import { unitsOf, type Room, type Unit } from './rig-units';

/** What rigs need of a scene besides its layers. */
export type Rigged = Pick<Scene, 'layers'> & Partial<Pick<Scene, 'runs' | 'rate' | 'width' | 'height'>>;

/** A channel of a layer that a rig cannot drive, since it depends on itself. */
export interface RigCircle {
  readonly cells: readonly { readonly layer: string; readonly channel: ChannelId }[];
}

/** A driven value that was not finite. */
export interface RigFault {
  readonly run: string;
  readonly layer: string;
  readonly channel: ChannelId;
}

/** The rigs of a scene, ready to drive frames. */
export interface CompiledRigs {
  /** Puts what rigs give over what the keys give. Allocates nothing once it has run. */
  readonly drive: (time: Ticks, values: Float64Array) => void;
  /** Puts the rest values of what rigs drive back. */
  readonly release: (values: Float64Array, rest: Float64Array) => void;
  /** Value of a channel of a layer at a time, with its rigs. */
  readonly valueAt: (layer: number, channel: ChannelId, time: Ticks) => number;
  /** Whether a rig drives a channel of a layer. */
  readonly drives: (layer: number, channel: ChannelId) => boolean;
  /** The channels of a layer that rigs drive. */
  readonly driven: (layer: number) => readonly ChannelId[];
  readonly circles: readonly RigCircle[];
  /** Driven values that were not finite when frames were last driven; what the keys give was drawn instead. */
  readonly faults: () => readonly RigFault[];
}

/** Rows of a unit whose values can be worked out together. */
interface Batch {
  readonly unit: Unit;
  readonly rows: Int32Array;
  /** The cell that each row drives. */
  readonly own: Int32Array;
  readonly columns: Columns;
  readonly out: Float64Array;
}

/** Deeper than this, values at other times are what the keys give: each step back reads one layer more. */
const MOST_DEPTH = 500;

function isDriving({ recipe, rig, off }: RunRecord): boolean {
  return recipe.operation === 'rig' && rig !== undefined && off !== true;
}

/** Each scene's rigs are compiled once, whoever asks: preview, sheet and curve look at the same scene. */
const known = new WeakMap<Rigged, CompiledRigs | null>();

/** The rigs of a scene; null where it has none that drives anything. */
export function compileRigs(scene: Rigged): CompiledRigs | null {
  const before = known.get(scene);
  if (before !== undefined) return before;
  const rigs = compileAll(scene);
  known.set(scene, rigs);
  return rigs;
}

function compileAll(scene: Rigged): CompiledRigs | null {
  const runs = (scene.runs ?? []).filter(isDriving);
  if (runs.length === 0) return null;
  const { layers } = scene;
  const indexById = new Map(layers.map((layer, index) => [layer.id, index]));
  const rate: Rate = scene.rate ?? { num: 25, den: 1 };
  const stage = { width: scene.width ?? 0, height: scene.height ?? 0, frame: frameTicks(rate) / TICKS_PER_SECOND };
  const units = runs.flatMap((run) => unitsOf(run, layers, indexById, stage));
  const cells = new Map<number, Unit[]>();
  const isKeysNow = createKeysNow(scene);
  for (const unit of units) {
    for (const layer of unit.layers) {
      if (isKeysNow(unit.run, layers[layer], unit.compiled.channel)) continue;
      const cell = layer * CHANNEL_COUNT + unit.slot;
      const known = cells.get(cell);
      if (known) known.push(unit);
      else cells.set(cell, [unit]);
    }
  }
  const order = orderCells(cells.keys(), (cell) => dependsOn(cell, cells.get(cell) ?? []));
  return createRigs(scene, cells, order, units);
}

/** Whether what a rig gave to a channel was turned into keys by a later run. */
function createKeysNow({ runs = [] }: Rigged): (rig: string, layer: Layer, channel: ChannelId) => boolean {
  const places = new Map(runs.map(({ id }, place) => [id, place]));
  const turned = new Map(
    runs.flatMap(({ id, recipe, off }, place) =>
      recipe.operation === 'turn-into-keys' && off !== true ? [[id, place] as const] : [],
    ),
  );
  return (rig, layer, channel) =>
    turned.size > 0 &&
    (layer.tracks[channel]?.some(({ by }) => by !== undefined && (turned.get(by.run) ?? -1) > (places.get(rig) ?? 0)) ??
      false);
}

function dependsOn(cell: number, units: readonly Unit[]): number[] {
  const layer = Math.floor(cell / CHANNEL_COUNT);
  return units.flatMap(({ sources, rows }) =>
    [...sources.values()].map((column) => column[rows.get(layer) as number]).filter((other) => other >= 0),
  );
}

function createRigs(
  { layers }: Rigged,
  cells: ReadonlyMap<number, readonly Unit[]>,
  order: ReturnType<typeof orderCells>,
  units: readonly Unit[],
): CompiledRigs {
  const batches = batchesOf(cells, order, units);
  const timings = new Map<number, Timing | null>();
  const faults = new Map<string, RigFault>();
  let depth = 0;

  const timingOf = (cell: number): Timing | null => {
    const known = timings.get(cell);
    if (known !== undefined) return known;
    const keys = trackOf(layers, cell);
    const timing = keys ? { times: Float64Array.from(keys, ({ at }) => at), arrivals: arrivalsOf(keys) } : null;
    timings.set(cell, timing);
    return timing;
  };

  /** Writes the inputs of rows that change with time, but for those that come from other channels. */
  const writeTimes = (unit: Unit, columns: Columns, rows: Int32Array, time: Ticks): void => {
    const { values, stride } = columns;
    const { places, delays, begins } = unit;
    if (places.t >= 0) {
      const first = places.t * stride;
      for (let at = 0; at < rows.length; at++) {
        values[first + at] = (time - delays[rows[at]] - begins[rows[at]]) / TICKS_PER_SECOND;
      }
    }
    if (places.clock >= 0) {
      const first = places.clock * stride;
      for (let at = 0; at < rows.length; at++) values[first + at] = (time - delays[rows[at]]) / TICKS_PER_SECOND;
    }
    if (unit.readsKeyTimes) writeKeyTimes(unit, columns, rows, time);
    for (const { place, keys } of unit.keyedDials) {
      const first = place * stride;
      for (let at = 0; at < rows.length; at++) values[first + at] = sampleTrack(keys, time - delays[rows[at]]);
    }
  };

  /** `since`, `until` and `arrival` of rows: the time from the last and to the next key, and how fast that one was reached. */
  const writeKeyTimes = (unit: Unit, { values, stride }: Columns, rows: Int32Array, time: Ticks): void => {
    const { places, delays, begins, ends, cursors } = unit;
    const { starts, times, arrivals } = (unit.keyTimes.current ??= keyTimesOf(
      unit.layers.map((layer) => timingOf(layer * CHANNEL_COUNT + unit.slot)),
    ));
    const [since, until, arrival] = [places.since * stride, places.until * stride, places.arrival * stride];
    for (let at = 0; at < rows.length; at++) {
      const row = rows[at];
      const then = time - delays[row];
      const [first, end] = [starts[row], starts[row + 1]];
      const k = lastAtOrBefore(times, first, end, then, cursors[row]);
      cursors[row] = k;
      if (since >= 0)
        values[since + at] = (then - (k >= first ? times[k] : Math.min(then, begins[row]))) / TICKS_PER_SECOND;
      if (arrival >= 0) values[arrival + at] = k >= first ? arrivals[k] : 0;
      if (until >= 0) {
        const to = k + 1 < end ? times[k + 1] : Math.max(then, ends[row]);
        values[until + at] = (to - then) / TICKS_PER_SECOND;
      }
    }
  };

  const keysValue = (cell: number, time: Ticks): number => {
    const keys = trackOf(layers, cell);
    if (keys) return sampleTrack(keys, time);
    const [layer, id] = [layers[Math.floor(cell / CHANNEL_COUNT)], slotId(cell)];
    return (id === 'clip.time' ? clipTimeAt(layer, time) : null) ?? restValue(layer, id);
  };

  // For each cell the place of what drives it, so that a value is found without asking maps.
  const chains = [...cells].filter(([cell]) => !order.broken.has(cell)).map(([cell, own]) => chainOf(cell, own));
  const chainAt = new Int32Array(layers.length * CHANNEL_COUNT).fill(-1);
  chains.forEach(({ cell }, place) => (chainAt[cell] = place));

  const valueOf = (cell: number, time: Ticks): number => {
    const place = chainAt[cell];
    if (place < 0 || depth >= MOST_DEPTH) return keysValue(cell, time);
    const { units: own, rows } = chains[place];
    // What the keys give is worked out where something reads it, or where nothing else stands.
    let value = 0;
    let isKnown = false;
    depth++;
    for (let i = 0; i < own.length; i++) {
      if (!isKnown && own[i].readsKeyed) {
        value = keysValue(cell, time);
        isKnown = true;
      }
      const made = runOne(own[i], rows[i], time, value);
      if (made - made !== 0) continue;
      value = made;
      isKnown = true;
    }
    depth--;
    return isKnown ? value : keysValue(cell, time);
  };

  /** No row is worked out within itself, since what depends on itself is left out, so that each needs one room. */
  const roomOf = (unit: Unit, row: number): Room => {
    const known = unit.rooms[row];
    if (known) return known;
    const values = new Float64Array(unit.compiled.scope.size);
    for (const { place, at } of unit.statics) values[place] = at(row);
    const columns = { values, stride: 1 };
    const places = new Set(unit.statics.map(({ place }) => place));
    const run = unit.compiled.formula.createRow({ columns, row: 0, places });
    return (unit.rooms[row] = { columns, rows: Int32Array.of(row), run });
  };
  const runOne = (unit: Unit, row: number, time: Ticks, keyed: number): number => {
    const { reader: holder } = unit.compiled;
    const { columns, rows, run } = unit.rooms[row] ?? roomOf(unit, row);
    writeTimes(unit, columns, rows, time);
    if (unit.places.keyed >= 0) columns.values[unit.places.keyed] = keyed;
    for (const { place, cells: column } of unit.present) {
      columns.values[place] = column[row] < 0 ? keyed : valueOf(column[row], time);
    }
    holder.current = unit.reader.current;
    return run(columns, 0);
  };

  const sourceAt = (unit: Unit, source: number, row: number, time: Ticks): number => {
    const cell = unit.sourceCells[source]?.[row] ?? -1;
    return cell < 0 ? keysValue(unit.layers[row] * CHANNEL_COUNT + unit.slot, time) : valueOf(cell, time);
  };
  for (const unit of units) {
    const chaser: Chaser = createChaser((source, row, time) => sourceAt(unit, source, row, time));
    unit.reader.current = {
      follow: (source, row, clock, delay) =>
        sourceAt(unit, source, row, Math.round((clock - delay) * TICKS_PER_SECOND)),
      chase: (source, row, clock, pace, damping) =>
        chaser(source, row, layers[unit.layers[row]].span.in, Math.round(clock * TICKS_PER_SECOND), pace, damping),
    };
  }

  const drive = (time: Ticks, values: Float64Array): void => {
    if (faults.size > 0) faults.clear();
    for (const { unit, rows, own, columns, out } of batches) {
      const { stride, values: inputs } = columns;
      writeTimes(unit, columns, rows, time);
      if (unit.places.keyed >= 0) {
        const first = unit.places.keyed * stride;
        for (let at = 0; at < rows.length; at++) inputs[first + at] = values[own[at]];
      }
      for (const { place, cells: column } of unit.present) {
        const first = place * stride;
        for (let at = 0; at < rows.length; at++) {
          const cell = column[rows[at]];
          inputs[first + at] = values[cell < 0 ? own[at] : cell];
        }
      }
      unit.compiled.reader.current = unit.reader.current;
      unit.compiled.formula.run(columns, 0, rows.length, out);
      for (let at = 0; at < rows.length; at++) {
        const value = out[at];
        // Neither NaN nor infinite: only of these is the difference to itself nothing.
        if (value - value === 0) values[own[at]] = value;
        else noteFault(faults, unit, layers[unit.layers[rows[at]]].id);
      }
    }
  };
  const driven = Int32Array.from(chains, ({ cell }) => cell);
  return {
    drive,
    release: (values, rest) => {
      for (const cell of driven) values[cell] = rest[cell];
    },
    valueAt: (layer, channel, time) => valueOf(layer * CHANNEL_COUNT + channelOf(channel).slot, time),
    drives: (layer, channel) => chainAt[layer * CHANNEL_COUNT + channelOf(channel).slot] >= 0,
    driven: (layer) => {
      const first = layer * CHANNEL_COUNT;
      return CHANNELS.filter(({ slot }) => chainAt[first + slot] >= 0).map(({ id }) => id);
    },
    circles: order.problems.map((problem) => circleOf(layers, problem)),
    faults: () => [...faults.values()],
  };
}

/** What drives a cell, in the order of the runs, each with the row of the cell's layer. */
interface Chain {
  readonly cell: number;
  readonly units: readonly Unit[];
  readonly rows: Int32Array;
}

function chainOf(cell: number, units: readonly Unit[]): Chain {
  const layer = Math.floor(cell / CHANNEL_COUNT);
  return { cell, units, rows: Int32Array.from(units, ({ rows }) => rows.get(layer) as number) };
}

/** What a channel of a layer does with its rigs, as a track with a key at every `step` from one time to another. */
export function drivenTrack(
  { valueAt }: Pick<CompiledRigs, 'valueAt'>,
  layer: number,
  channel: ChannelId,
  [from, to]: readonly [Ticks, Ticks],
  step: Ticks,
): Track {
  const times = [from];
  for (let at = from + step; at < to; at += step) times.push(at);
  if (to > from) times.push(to);
  return times.map((at) => ({ at, value: valueAt(layer, channel, at), ease: LINEAR }));
}

function noteFault(faults: Map<string, RigFault>, { run, compiled: { channel } }: Unit, layer: string): void {
  const name = `${run} ${layer} ${channel}`;
  if (!faults.has(name)) faults.set(name, { run, layer, channel });
}

function slotId(cell: number): ChannelId {
  return CHANNELS[cell % CHANNEL_COUNT].id;
}

function trackOf(layers: readonly Layer[], cell: number): Track | undefined {
  return layers[Math.floor(cell / CHANNEL_COUNT)].tracks[slotId(cell)];
}

function circleOf(layers: readonly Layer[], cells: CellProblem): RigCircle {
  return {
    cells: cells.map((cell) => ({ layer: layers[Math.floor(cell / CHANNEL_COUNT)].id, channel: slotId(cell) })),
  };
}

/** Rows of units that depend on nothing later, level by level, and in the order of the runs within a level. */
function batchesOf(
  cells: ReadonlyMap<number, readonly Unit[]>,
  { levels, broken }: ReturnType<typeof orderCells>,
  units: readonly Unit[],
): Batch[] {
  const rows = new Map<number, Map<Unit, number[]>>();
  for (const [cell, chain] of cells) {
    if (broken.has(cell)) continue;
    const level = levels.get(cell) ?? 0;
    const ofLevel = rows.get(level) ?? new Map<Unit, number[]>();
    rows.set(level, ofLevel);
    for (const unit of chain) {
      const own = ofLevel.get(unit) ?? [];
      own.push(unit.rows.get(Math.floor(cell / CHANNEL_COUNT)) as number);
      ofLevel.set(unit, own);
    }
  }
  const places = new Map(units.map((unit, i) => [unit, i]));
  return [...rows.keys()]
    .sort((a, b) => a - b)
    .flatMap((level) =>
      [...(rows.get(level) ?? [])]
        .sort(([a], [b]) => (places.get(a) ?? 0) - (places.get(b) ?? 0))
        .map(([unit, own]) => batchOf(unit, own)),
    );
}

function batchOf(unit: Unit, rows: readonly number[]): Batch {
  const { size } = unit.compiled.scope;
  const columns = { values: new Float64Array(size * rows.length), stride: rows.length };
  for (const { place, at } of unit.statics) {
    rows.forEach((row, i) => (columns.values[place * rows.length + i] = at(row)));
  }
  const own = Int32Array.from(rows, (row) => unit.layers[row] * CHANNEL_COUNT + unit.slot);
  return { unit, rows: Int32Array.from(rows), own, columns, out: new Float64Array(rows.length) };
}
