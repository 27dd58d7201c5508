import { CHANNEL_COUNT, CHANNELS, channelOf, type ChannelId } from '../../basics/channel';
import { frameTicks, TICKS_PER_SECOND, type Rate, type Ticks } from '../../basics/time';
import { compileRig, draftRigSchema, KNOWN_ROLES, type CompiledRigFormula, type Rig } from '../../formulas/rig';
import { FRAME_PLACE, ROW_NAME, type Columns, type PastReader, type RunRow } from '../../formulas/formula';
import { restValue, type Layer, type Track } from '../layer';
import { valueIn, type RunRecord, type Scene, type UsedRig } from '../scene';
import { createSegment, sampleTrack } from './segment';
import { createChaser, type Chaser } from './chase';
import { orderCells, type CellProblem } from './rig-order';

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

/** One formula of one run: a program, its layers, and where each of its inputs comes from. */
interface Unit {
  readonly run: string;
  readonly rig: UsedRig;
  readonly compiled: CompiledRigFormula;
  readonly slot: number;
  /** Layer index by row. */
  readonly layers: readonly number[];
  /** Row of each layer index. */
  readonly rows: ReadonlyMap<number, number>;
  readonly delays: readonly Ticks[];
  /** For each source that is read: the cell by row. */
  readonly sources: ReadonlyMap<string, Int32Array>;
  /** Sources whose present value is an input. */
  readonly present: readonly { readonly place: number; readonly cells: Int32Array }[];
  readonly statics: readonly Static[];
  /** Places of what changes with time among the inputs; −1 for what is not read. */
  readonly places: Readonly<Record<(typeof LIVE)[number], number>>;
  readonly readsKeyTimes: boolean;
  readonly keyedDials: readonly { readonly place: number; readonly keys: Track }[];
  /** The key that was last found of each row, a memo that never changes a result. */
  readonly cursors: Int32Array;
  /** Times of each row's keys, once they were asked for. */
  readonly timings: Timing[];
  readonly runners: RunRow[];
}

/** Inputs that change with time. */
const LIVE = ['t', 'clock', 'keyed', 'since', 'until', 'arrival'] as const;

/** An input that does not change with time. */
interface Static {
  readonly place: number;
  readonly at: (row: number) => number;
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

const bodies = new WeakMap<object, Rig | null>();

/** The rig of a record; null where it is none. Each body is looked at once. */
function rigIn({ body }: UsedRig): Rig | null {
  const known = bodies.get(body);
  if (known !== undefined) return known;
  const read = draftRigSchema.safeParse(body);
  const rig = read.success ? read.data : null;
  bodies.set(body, rig);
  return rig;
}

/** Speeds at which each key of a track is reached, in the channel's unit per second. */
function arrivalsOf(keys: Track): Float64Array {
  return Float64Array.from(keys, (key, i) => {
    const before = keys[i - 1];
    if (!before) return 0;
    const seconds = (key.at - before.at) / TICKS_PER_SECOND;
    if (before.ease.type === 'linear') return (key.value - before.value) / seconds;
    return createSegment(before.ease, before.value, key.value).slope(1) / seconds;
  });
}

/** The times of a layer's keys on a channel, for `since`, `until` and `arrival`. */
interface Timing {
  readonly times: Float64Array;
  readonly arrivals: Float64Array;
}

const NO_KEYS: Timing = { times: new Float64Array(0), arrivals: new Float64Array(0) };

/** Place of the last time at or before another one, −1 before the first; mostly it is where it was, or the next. */
function lastAtOrBefore(times: Float64Array, time: Ticks, cursor: number): number {
  const next = cursor + 1;
  const isAfter = cursor < 0 || (cursor < times.length && times[cursor] <= time);
  if (isAfter && (next >= times.length || times[next] > time)) return Math.min(cursor, times.length - 1);
  let [low, high] = [-1, times.length - 1];
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (times[middle] <= time) low = middle;
    else high = middle - 1;
  }
  return low;
}

function isDriving({ recipe, rig, off }: RunRecord): boolean {
  return recipe.operation === 'rig' && rig !== undefined && off !== true;
}

/** The rigs of a scene; null where it has none that drives anything. */
export function compileRigs(scene: Rigged): CompiledRigs | null {
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

interface Stage {
  readonly width: number;
  readonly height: number;
  readonly frame: number;
}

/** The formulas of a run for the channels that it drives. */
function unitsOf(run: RunRecord, layers: readonly Layer[], indexById: ReadonlyMap<string, number>, stage: Stage) {
  const used = run.rig as UsedRig;
  const rig = rigIn(used);
  if (!rig) return [];
  const members = run.layers.flatMap((id, place) => {
    const index = indexById.get(id);
    return index === undefined ? [] : [{ index, place }];
  });
  const driven = new Set(used.channels);
  return compileRig(rig)
    .formulas.filter(({ channel }) => driven.has(channel))
    .map((compiled) => {
      const leaders = new Set(namedRoles(compiled).map((role) => indexById.get(used.roles?.[role] ?? '')));
      // Who is followed keeps its own keys.
      const led = members.filter(({ index }) => !leaders.has(index));
      return unitOf(run, used, compiled, led, layers, indexById, stage);
    });
}

/** The named roles that a formula reads. */
function namedRoles({ sources, formula }: CompiledRigFormula): string[] {
  const isKnown = (role: string): boolean => (KNOWN_ROLES as readonly string[]).includes(role);
  return sources.flatMap(({ name, role }) =>
    role !== null && !isKnown(role) && formula.reads.has(name) ? [role] : [],
  );
}

interface Member {
  readonly index: number;
  /** Where the layer stands in the run's list. */
  readonly place: number;
}

function unitOf(
  run: RunRecord,
  rig: UsedRig,
  compiled: CompiledRigFormula,
  members: readonly Member[],
  layers: readonly Layer[],
  indexById: ReadonlyMap<string, number>,
  stage: Stage,
): Unit {
  const placeOf = (row: number): number => valueIn(rig.places, members[row].place) ?? 0;
  const inOrder = members.map((_, row) => row).sort((a, b) => placeOf(a) - placeOf(b));
  const before = new Map(inOrder.map((row, i) => [row, inOrder[i - 1] ?? -1]));
  const roleLayer = (role: string, row: number): number => {
    if (role === 'each') return members[row].index;
    if (role === 'before') return members[before.get(row) ?? -1]?.index ?? -1;
    return indexById.get(rig.roles?.[role] ?? '') ?? -1;
  };
  const { formula, scope, sources } = compiled;
  const read = sources.filter(({ name, role }) => role !== null && formula.reads.has(name));
  const last = members.reduce((most, _, row) => Math.max(most, placeOf(row)), 0);
  const cellsOf = new Map(
    read.map(({ name, role, channel }) => [
      name,
      Int32Array.from(members, (_, row) => {
        const layer = roleLayer(role as string, row);
        return layer < 0 ? -1 : layer * CHANNEL_COUNT + channelOf(channel).slot;
      }),
    ]),
  );
  const placeNamed = (name: string): number => {
    const place = scope.places.get(name) ?? -1;
    return formula.inputs.has(place) ? place : -1;
  };
  const places = Object.fromEntries(LIVE.map((name) => [name, placeNamed(name)])) as Unit['places'];
  return {
    run: run.id,
    rig,
    compiled,
    slot: channelOf(compiled.channel).slot,
    layers: members.map(({ index }) => index),
    rows: new Map(members.map(({ index }, row) => [index, row])),
    delays: members.map((_, row) => placeOf(row) * rig.later),
    sources: cellsOf,
    present: [...cellsOf].flatMap(([name, cells]) => {
      const place = placeNamed(name);
      return place < 0 ? [] : [{ place, cells }];
    }),
    places,
    readsKeyTimes: places.since >= 0 || places.until >= 0 || places.arrival >= 0,
    keyedDials: rig.inputs.flatMap((input) => {
      const place = 'keys' in input ? placeNamed(input.name) : -1;
      return 'keys' in input && place >= 0 ? [{ place, keys: input.keys }] : [];
    }),
    cursors: new Int32Array(members.length).fill(-1),
    timings: [],
    statics: staticsOf(scope.places, {
      run,
      rig,
      members,
      layers,
      stage,
      placeOf,
      roleLayer,
      last,
      channel: compiled.channel,
    }),
    runners: [],
  };
}

interface Facts {
  readonly run: RunRecord;
  readonly rig: UsedRig;
  readonly members: readonly Member[];
  readonly layers: readonly Layer[];
  readonly stage: Stage;
  readonly placeOf: (row: number) => number;
  readonly roleLayer: (role: string, row: number) => number;
  readonly last: number;
  readonly channel: ChannelId;
}

/** Where inputs come from that do not change with time. */
function staticsOf(places: ReadonlyMap<string, number>, facts: Facts): Static[] {
  const { run, rig, members, layers, stage, placeOf, last, channel } = facts;
  const layerOf = (row: number): Layer => layers[members[row].index];
  const known: Readonly<Partial<Record<string, (row: number) => number>>> = {
    [ROW_NAME]: (row) => row,
    place: placeOf,
    count: () => members.length,
    share: (row) => (last === 0 ? 0 : placeOf(row) / last),
    seed: () => run.recipe.seed,
    rest: (row) => restValue(layerOf(row), channel),
    'layer.width': (row) => restValue(layerOf(row), 'size.x') * Math.abs(restValue(layerOf(row), 'scale.x')),
    'layer.height': (row) => restValue(layerOf(row), 'size.y') * Math.abs(restValue(layerOf(row), 'scale.y')),
    'layer.length': (row) => (layerOf(row).span.out - layerOf(row).span.in) / TICKS_PER_SECOND,
    'frame.width': () => stage.width,
    'frame.height': () => stage.height,
  };
  const restOf = (name: string): ((row: number) => number) | undefined => {
    const role = /^(\w+)\.rest$/.exec(name)?.[1];
    if (role === undefined) return undefined;
    return (row) => restValue(layers[facts.roleLayer(role, row)] ?? layerOf(row), channel);
  };
  const inputs = rig.inputs.flatMap((input): Static[] => {
    const place = places.get(input.name);
    if (place === undefined || !('values' in input)) return [];
    return [{ place, at: (row) => valueIn(input.values, members[row].place) ?? 0 }];
  });
  return [
    { place: FRAME_PLACE, at: () => stage.frame },
    ...[...places].flatMap(([name, place]): Static[] => {
      const at = known[name] ?? restOf(name);
      return at ? [{ place, at }] : [];
    }),
    ...inputs,
  ];
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

  /** Writes the inputs of one row that change with time, but for those that come from other channels. */
  const writeTimes = (unit: Unit, { values, stride }: Columns, row: number, at: number, time: Ticks): void => {
    const { places } = unit;
    const then = time - unit.delays[row];
    const { span } = layers[unit.layers[row]];
    if (places.t >= 0) values[places.t * stride + at] = (then - span.in) / TICKS_PER_SECOND;
    if (places.clock >= 0) values[places.clock * stride + at] = then / TICKS_PER_SECOND;
    if (unit.readsKeyTimes) {
      const timing = (unit.timings[row] ??= timingOf(unit.layers[row] * CHANNEL_COUNT + unit.slot) ?? NO_KEYS);
      const k = lastAtOrBefore(timing.times, then, unit.cursors[row]);
      unit.cursors[row] = k;
      const from = k >= 0 ? timing.times[k] : Math.min(then, span.in);
      if (places.since >= 0) values[places.since * stride + at] = (then - from) / TICKS_PER_SECOND;
      if (places.arrival >= 0) values[places.arrival * stride + at] = k >= 0 ? timing.arrivals[k] : 0;
      if (places.until >= 0) {
        const to = k + 1 < timing.times.length ? timing.times[k + 1] : Math.max(then, span.out);
        values[places.until * stride + at] = (to - then) / TICKS_PER_SECOND;
      }
    }
    for (const { place, keys } of unit.keyedDials) values[place * stride + at] = sampleTrack(keys, then);
  };

  const keysValue = (cell: number, time: Ticks): number => {
    const keys = trackOf(layers, cell);
    return keys ? sampleTrack(keys, time) : restValue(layers[Math.floor(cell / CHANNEL_COUNT)], slotId(cell));
  };

  const valueOf = (cell: number, time: Ticks): number => {
    const base = keysValue(cell, time);
    const chain = order.broken.has(cell) ? undefined : cells.get(cell);
    const layer = Math.floor(cell / CHANNEL_COUNT);
    if (!chain || depth >= MOST_DEPTH) return base;
    let value = base;
    depth++;
    for (const unit of chain) {
      const row = unit.rows.get(layer) as number;
      const made = runOne(unit, row, time, value);
      if (Number.isFinite(made)) value = made;
    }
    depth--;
    return value;
  };

  /**
   * The inputs of single rows, with what does not change filled in. No row is worked out within itself, since what
   * depends on itself is left out, so that each needs one.
   */
  const rooms = new Map<Unit, Float64Array[]>();
  const roomOf = (unit: Unit, row: number): Float64Array => {
    const own = rooms.get(unit) ?? [];
    rooms.set(unit, own);
    const known = own[row];
    if (known) return known;
    const values = new Float64Array(unit.compiled.scope.size);
    for (const { place, at } of unit.statics) values[place] = at(row);
    own[row] = values;
    return values;
  };
  const runOne = (unit: Unit, row: number, time: Ticks, keyed: number): number => {
    const { formula, reader: holder } = unit.compiled;
    const run = (unit.runners[depth] ??= formula.createRow());
    const columns = { values: roomOf(unit, row), stride: 1 };
    writeTimes(unit, columns, row, 0, time);
    if (unit.places.keyed >= 0) columns.values[unit.places.keyed] = keyed;
    for (const { place, cells: column } of unit.present) {
      columns.values[place] = column[row] < 0 ? keyed : valueOf(column[row], time);
    }
    holder.current = readers.get(unit) ?? null;
    return run(columns, 0);
  };

  const cellOf = (unit: Unit, source: number, row: number): number => {
    const { name, role } = unit.compiled.sources[source];
    return role === null ? -1 : (unit.sources.get(name)?.[row] ?? -1);
  };
  const sourceAt = (unit: Unit, source: number, row: number, time: Ticks): number => {
    const cell = cellOf(unit, source, row);
    return cell < 0 ? keysValue(unit.layers[row] * CHANNEL_COUNT + unit.slot, time) : valueOf(cell, time);
  };
  const readers = new Map<Unit, PastReader>();
  for (const unit of units) {
    const chaser: Chaser = createChaser((source, row, time) => sourceAt(unit, source, row, time));
    readers.set(unit, {
      follow: (source, row, clock, delay) =>
        sourceAt(unit, source, row, Math.round((clock - delay) * TICKS_PER_SECOND)),
      chase: (source, row, clock, pace, damping) =>
        chaser(source, row, layers[unit.layers[row]].span.in, Math.round(clock * TICKS_PER_SECOND), pace, damping),
    });
  }

  const drive = (time: Ticks, values: Float64Array): void => {
    if (faults.size > 0) faults.clear();
    for (const { unit, rows, own, columns, out } of batches) {
      const { stride, values: inputs } = columns;
      for (let at = 0; at < rows.length; at++) writeTimes(unit, columns, rows[at], at, time);
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
      unit.compiled.reader.current = readers.get(unit) ?? null;
      unit.compiled.formula.run(columns, 0, rows.length, out);
      for (let at = 0; at < rows.length; at++) {
        const value = out[at];
        // Neither NaN nor infinite: only of these is the difference to itself nothing.
        if (value - value === 0) values[own[at]] = value;
        else noteFault(faults, unit, layers[unit.layers[rows[at]]].id);
      }
    }
  };
  return {
    drive,
    valueAt: (layer, channel, time) => valueOf(layer * CHANNEL_COUNT + channelOf(channel).slot, time),
    drives: (layer, channel) => {
      const cell = layer * CHANNEL_COUNT + channelOf(channel).slot;
      return cells.has(cell) && !order.broken.has(cell);
    },
    driven: (layer) => {
      const first = layer * CHANNEL_COUNT;
      return CHANNELS.filter(({ slot }) => cells.has(first + slot) && !order.broken.has(first + slot)).map(
        ({ id }) => id,
      );
    },
    circles: order.problems.map((problem) => circleOf(layers, problem)),
    faults: () => [...faults.values()],
  };
}

/** What a channel of a layer does with its rigs, as a track with a key at every `step` from one time to another. */
export function drivenTrack(
  { valueAt }: Pick<CompiledRigs, 'valueAt'>,
  layer: number,
  channel: ChannelId,
  [from, to]: readonly [Ticks, Ticks],
  step: Ticks,
): Track {
  const count = Math.max(1, Math.ceil((to - from) / step));
  return Array.from({ length: count + 1 }, (_, i) => {
    const at = Math.min(to, from + i * step);
    return { at, value: valueAt(layer, channel, at), ease: { type: 'linear' as const } };
  }).filter(({ at }, i, all) => i === 0 || at > all[i - 1].at);
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
