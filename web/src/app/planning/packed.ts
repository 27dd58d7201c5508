import type { ChannelId, Easing, Key, LayerValues } from '@wexikine/core';
import type { LayerChange, PlannedRun } from './planned-run';

/** Numbers of a packed key: time, value, and where its easing and its mark stand in their tables. */
const KEY_SIZE = 4;
/** Stands for no mark, and for a channel without keys. */
const NONE = -1;

/** A list in which equal objects stand once. The last one is at hand: keys that follow each other mostly share theirs. */
function createTable<T extends object>() {
  const places = new Map<T, number>();
  let [last, place]: [T | null, number] = [null, NONE];
  const placeOf = (item: T): number => {
    if (item === last) return place;
    const known = places.get(item) ?? places.size;
    if (known === places.size) places.set(item, known);
    [last, place] = [item, known];
    return known;
  };
  return { placeOf, items: () => [...places.keys()] };
}

/** A value of each layer; null where no layer has one, as a list of nothing would be written and read all the same. */
type Column<T> = readonly (T | null)[] | null;

function columnOf<T>(values: readonly (T | null)[]): Column<T> {
  return values.some((value) => value !== null) ? values : null;
}

/** Numbers of layers; a buffer changes hands, while a list is written and read number by number. */
type Numbers = Float64Array<ArrayBuffer>;

/**
 * Changes of layers in few pieces: keys as rows of numbers, and `shape` saying of each layer how many channels it
 * changes, then of each channel which one it is and how many keys it has.
 */
export interface PackedChanges {
  readonly layers: readonly string[];
  readonly spans: Column<NonNullable<LayerChange['span']>>;
  readonly rests: Column<NonNullable<LayerChange['rest']>>;
  readonly looks: Column<NonNullable<LayerChange['look']>>;
  readonly data: Column<NonNullable<LayerChange['data']>>;
  readonly channels: readonly ChannelId[];
  readonly shape: Int32Array<ArrayBuffer>;
  readonly keys: Float64Array<ArrayBuffer>;
  readonly eases: readonly Easing[];
  readonly marks: readonly NonNullable<Key['by']>[];
}

/** What a run gives to layers, column by column; null where a layer lacks a value. */
export interface PackedValues {
  readonly layers: readonly string[];
  readonly places: Numbers;
  readonly starts: Numbers;
  readonly lasts: Numbers;
  /** How many moments each layer has, and all of them one after the other. */
  readonly momentCounts: Numbers;
  readonly moments: Numbers;
  readonly columns: Readonly<Record<string, Numbers | readonly (number | string | null)[]>>;
}

/**
 * A dry run on its way between threads: buffers change hands at once, while many thousand small objects would each
 * have to be written and read.
 */
export interface PackedRun extends Omit<PlannedRun, 'layers' | 'changes'> {
  readonly values: PackedValues;
  readonly changes: PackedChanges;
}

/** How many numbers the shape and the keys of changes take. */
function sizesOf(changes: readonly LayerChange[]): readonly [shape: number, keys: number] {
  let [shape, keys] = [changes.length, 0];
  for (const { tracks } of changes) {
    for (const id in tracks) {
      shape += 2;
      keys += (tracks[id as ChannelId]?.length ?? 0) * KEY_SIZE;
    }
  }
  return [shape, keys];
}

function packChanges(changes: readonly LayerChange[]): PackedChanges {
  const channels = new Map<ChannelId, number>();
  const eases = createTable<Easing>();
  const marks = createTable<NonNullable<Key['by']>>();
  const [shapeSize, keysSize] = sizesOf(changes);
  const [shape, numbers] = [new Int32Array(shapeSize), new Float64Array(keysSize)];
  let [s, k] = [0, 0];
  for (const { tracks } of changes) {
    const countAt = s++;
    for (const name in tracks) {
      const id = name as ChannelId;
      const channel = channels.get(id) ?? channels.size;
      if (channel === channels.size) channels.set(id, channel);
      const keys = tracks[id] ?? null;
      shape[countAt]++;
      shape[s++] = channel;
      shape[s++] = keys?.length ?? NONE;
      if (keys === null) continue;
      for (const { at, value, ease, by } of keys) {
        numbers[k++] = at;
        numbers[k++] = value;
        numbers[k++] = eases.placeOf(ease);
        numbers[k++] = by ? marks.placeOf(by) : NONE;
      }
    }
  }
  return {
    layers: changes.map(({ layer }) => layer),
    spans: columnOf(changes.map(({ span }) => span)),
    rests: columnOf(changes.map(({ rest }) => rest)),
    looks: columnOf(changes.map(({ look }) => look)),
    data: columnOf(changes.map((change) => change.data)),
    channels: [...channels.keys()],
    shape,
    keys: numbers,
    eases: eases.items(),
    marks: marks.items(),
  };
}

function unpackChanges({
  layers,
  spans,
  rests,
  looks,
  data,
  channels,
  shape,
  keys,
  eases,
  marks,
}: PackedChanges): LayerChange[] {
  let [s, k] = [0, 0];
  const readKeys = (count: number): Key[] => {
    const read: Key[] = [];
    for (let i = 0; i < count; i++, k += KEY_SIZE) {
      const at = keys[k];
      const value = keys[k + 1];
      const ease = eases[keys[k + 2]];
      const mark = keys[k + 3];
      read.push(mark === NONE ? { at, value, ease } : { at, value, ease, by: marks[mark] });
    }
    return read;
  };
  return layers.map((layer, i): LayerChange => {
    const tracks: Partial<Record<ChannelId, readonly Key[] | null>> = {};
    for (let left = shape[s++]; left > 0; left--) {
      const [channel, count] = [channels[shape[s]], shape[s + 1]];
      s += 2;
      tracks[channel] = count === NONE ? null : readKeys(count);
    }
    return {
      layer,
      span: spans?.[i] ?? null,
      rest: rests?.[i] ?? null,
      look: looks?.[i] ?? null,
      data: data?.[i] ?? null,
      tracks,
    };
  });
}

/** Numbers of layers, one each. Written out, as going through a list by its iterator takes several times as long. */
function numbersOf(layers: readonly LayerValues[], of: (layer: LayerValues) => number): Numbers {
  const numbers = new Float64Array(layers.length);
  for (let i = 0; i < layers.length; i++) numbers[i] = of(layers[i]);
  return numbers;
}

function momentsOf(layers: readonly LayerValues[], counts: Numbers): Numbers {
  const all = new Float64Array(counts.reduce((sum, count) => sum + count, 0));
  let m = 0;
  for (const { moments } of layers) for (const moment of moments) all[m++] = moment;
  return all;
}

function packValues(layers: readonly LayerValues[]): PackedValues {
  const names = new Set<string>();
  for (const { values } of layers) for (const name in values) names.add(name);
  const columns: Record<string, Numbers | (number | string | null)[]> = {};
  for (const name of names) {
    const isNumber = layers.every(({ values }) => typeof values[name] === 'number');
    columns[name] = isNumber
      ? numbersOf(layers, ({ values }) => values[name] as number)
      : layers.map(({ values }) => values[name] ?? null);
  }
  const momentCounts = numbersOf(layers, ({ moments }) => moments.length);
  return {
    layers: layers.map(({ layer }) => layer),
    places: numbersOf(layers, ({ place }) => place),
    starts: numbersOf(layers, ({ starts }) => starts),
    lasts: numbersOf(layers, ({ lasts }) => lasts),
    momentCounts,
    moments: momentsOf(layers, momentCounts),
    columns,
  };
}

function unpackValues(packed: PackedValues): LayerValues[] {
  const { layers, places, starts, lasts, momentCounts, moments } = packed;
  const named = Object.entries(packed.columns);
  let read = 0;
  return layers.map((layer, i) => {
    const values: Record<string, number | string> = {};
    for (const [name, column] of named) {
      const value = column[i];
      if (value !== null) values[name] = value;
    }
    const own: number[] = [];
    for (const end = read + momentCounts[i]; read < end; read++) own.push(moments[read]);
    return { layer, place: places[i], starts: starts[i], lasts: lasts[i], moments: own, values };
  });
}

/** Buffers of packed values; those of columns that are all numbers among them. */
function buffersOf({ columns, places, starts, lasts, momentCounts, moments }: PackedValues): ArrayBuffer[] {
  const numbers = Object.values(columns).filter((column) => column instanceof Float64Array);
  return [places, starts, lasts, momentCounts, moments, ...numbers].map(({ buffer }) => buffer);
}

/** Packs a dry run; `buffers` are those that may change hands instead of being copied. */
export function packRun({ layers, changes, ...rest }: PlannedRun): { packed: PackedRun; buffers: ArrayBuffer[] } {
  const packed = { ...rest, values: packValues(layers), changes: packChanges(changes) };
  const { shape, keys } = packed.changes;
  return { packed, buffers: [shape.buffer, keys.buffer, ...buffersOf(packed.values)] };
}

/** A dry run as it was before it was packed. */
export function unpackRun({ values, changes, ...rest }: PackedRun): PlannedRun {
  return { ...rest, layers: unpackValues(values), changes: unpackChanges(changes) };
}
