import type { ChannelId, Easing, Key, LayerValues } from '@wexikine/core';
import type { LayerChange, PlannedRun } from './planned-run';

/** Numbers of a packed key: time, value, and where its easing and its mark stand in their tables. */
const KEY_SIZE = 4;
/** Stands for no mark, and for a channel without keys. */
const NONE = -1;

/** A list in which equal objects stand once. */
function createTable<T extends object>() {
  const places = new Map<T, number>();
  const placeOf = (item: T): number => {
    const known = places.get(item);
    if (known !== undefined) return known;
    places.set(item, places.size);
    return places.size - 1;
  };
  return { placeOf, items: () => [...places.keys()] };
}

/**
 * Changes of layers in few pieces: keys as rows of numbers, and `shape` saying of each layer how many channels it
 * changes, then of each channel which one it is and how many keys it has.
 */
export interface PackedChanges {
  readonly layers: readonly string[];
  readonly spans: readonly LayerChange['span'][];
  readonly rests: readonly LayerChange['rest'][];
  readonly looks: readonly LayerChange['look'][];
  readonly data: readonly LayerChange['data'][];
  readonly channels: readonly ChannelId[];
  readonly shape: Int32Array<ArrayBuffer>;
  readonly keys: Float64Array<ArrayBuffer>;
  readonly eases: readonly Easing[];
  readonly marks: readonly NonNullable<Key['by']>[];
}

/** What a run gives to layers, column by column; null where a layer lacks a value. */
export interface PackedValues {
  readonly layers: readonly string[];
  readonly places: readonly number[];
  readonly starts: readonly number[];
  readonly lasts: readonly number[];
  readonly moments: readonly (readonly number[])[];
  readonly columns: Readonly<Record<string, readonly (number | string | null)[]>>;
}

/**
 * A dry run on its way between threads: buffers change hands at once, while many thousand small objects would each
 * have to be written and read.
 */
export interface PackedRun extends Omit<PlannedRun, 'layers' | 'changes'> {
  readonly values: PackedValues;
  readonly changes: PackedChanges;
}

function packChanges(changes: readonly LayerChange[]): PackedChanges {
  const channels = new Map<ChannelId, number>();
  const eases = createTable<Easing>();
  const marks = createTable<NonNullable<Key['by']>>();
  const shape: number[] = [];
  const numbers: number[] = [];
  for (const { tracks } of changes) {
    const ids = Object.keys(tracks) as ChannelId[];
    shape.push(ids.length);
    for (const id of ids) {
      if (!channels.has(id)) channels.set(id, channels.size);
      const keys = tracks[id] ?? null;
      shape.push(channels.get(id) as number, keys?.length ?? NONE);
      for (const { at, value, ease, by } of keys ?? []) {
        numbers.push(at, value, eases.placeOf(ease), by ? marks.placeOf(by) : NONE);
      }
    }
  }
  return {
    layers: changes.map(({ layer }) => layer),
    spans: changes.map(({ span }) => span),
    rests: changes.map(({ rest }) => rest),
    looks: changes.map(({ look }) => look),
    data: changes.map((change) => change.data),
    channels: [...channels.keys()],
    shape: Int32Array.from(shape),
    keys: Float64Array.from(numbers),
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
    return { layer, span: spans[i], rest: rests[i], look: looks[i], data: data[i], tracks };
  });
}

function packValues(layers: readonly LayerValues[]): PackedValues {
  const names = new Set<string>();
  for (const { values } of layers) for (const name in values) names.add(name);
  const columns: Record<string, (number | string | null)[]> = {};
  for (const name of names) columns[name] = layers.map(({ values }) => values[name] ?? null);
  return {
    layers: layers.map(({ layer }) => layer),
    places: layers.map(({ place }) => place),
    starts: layers.map(({ starts }) => starts),
    lasts: layers.map(({ lasts }) => lasts),
    moments: layers.map(({ moments }) => moments),
    columns,
  };
}

function unpackValues({ layers, places, starts, lasts, moments, columns }: PackedValues): LayerValues[] {
  const named = Object.entries(columns);
  return layers.map((layer, i) => {
    const values: Record<string, number | string> = {};
    for (const [name, column] of named) {
      const value = column[i];
      if (value !== null) values[name] = value;
    }
    return { layer, place: places[i], starts: starts[i], lasts: lasts[i], moments: moments[i], values };
  });
}

/** Packs a dry run; `buffers` are those that may change hands instead of being copied. */
export function packRun({ layers, changes, ...rest }: PlannedRun): { packed: PackedRun; buffers: ArrayBuffer[] } {
  const packed = { ...rest, values: packValues(layers), changes: packChanges(changes) };
  return { packed, buffers: [packed.changes.shape.buffer, packed.changes.keys.buffer] };
}

/** A dry run as it was before it was packed. */
export function unpackRun({ values, changes, ...rest }: PackedRun): PlannedRun {
  return { ...rest, layers: unpackValues(values), changes: unpackChanges(changes) };
}
