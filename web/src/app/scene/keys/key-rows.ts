import {
  CHANNEL_IDS,
  channelOf,
  keyTimes,
  type ChannelId,
  type HandPicks,
  type Layer,
  type Scene,
  type Ticks,
} from '@wexikine/core';

/** A row of the keys view: the moments of all layers together, a layer with all its moments, or one of its channels. */
export interface KeyRow {
  readonly id: string;
  readonly kind: 'all' | 'layer' | 'channel';
  /** Whose keys stand in it; one layer but in the row of all. */
  readonly layers: readonly Layer[];
  /** Null: all channels. */
  readonly channel: ChannelId | null;
  readonly isOpen: boolean;
}

/** The id of the row of all layers. */
export const ALL_ROW = 'all';

/** Rows of layers with keys, from back to front, under one for all of them; of layers that are closed no channels. */
export function keyRows(scene: Scene, taking: ReadonlySet<string> | null, closed: ReadonlySet<string>): KeyRow[] {
  const layers = scene.layers.filter(
    ({ id, tracks }) => (taking === null || taking.has(id)) && Object.keys(tracks).length > 0,
  );
  const rows = layers.flatMap((layer): KeyRow[] => {
    const isOpen = !closed.has(layer.id);
    const own = [layer];
    const head: KeyRow = { id: layer.id, kind: 'layer', layers: own, channel: null, isOpen };
    if (!isOpen) return [head];
    const channels = CHANNEL_IDS.filter((channel) => layer.tracks[channel] !== undefined);
    return [
      head,
      ...channels.map((channel): KeyRow => ({
        id: `${layer.id} ${channel}`,
        kind: 'channel',
        layers: own,
        channel,
        isOpen: false,
      })),
    ];
  });
  return layers.length < 2 ? rows : [{ id: ALL_ROW, kind: 'all', layers, channel: null, isOpen: false }, ...rows];
}

const alone = new WeakMap<Layer, Map<ChannelId, Layer>>();

/** A layer with the keys of one channel only; the same object for the same layer. */
export function onlyChannel(layer: Layer, channel: ChannelId): Layer {
  const known = alone.get(layer) ?? new Map<ChannelId, Layer>();
  alone.set(layer, known);
  const before = known.get(channel);
  if (before) return before;
  const keys = layer.tracks[channel];
  const made = { ...layer, tracks: keys ? { [channel]: keys } : {} };
  known.set(channel, made);
  return made;
}

const timesOfRows = new WeakMap<KeyRow, readonly Ticks[]>();

/** Times at which a row has keys, ascending, each once. */
export function timesOf(row: KeyRow): readonly Ticks[] {
  const known = timesOfRows.get(row);
  if (known) return known;
  const { layers, channel } = row;
  const times =
    channel === null
      ? layers.length === 1
        ? keyTimes(layers[0])
        : [...new Set(layers.flatMap(keyTimes))].sort((a, b) => a - b)
      : (layers[0].tracks[channel] ?? []).map(({ at }) => at);
  timesOfRows.set(row, times);
  return times;
}

/** Times of a row that are picked; of a row of several channels where any of them is. */
export function pickedTimes({ layers, channel }: KeyRow, picks: HandPicks): ReadonlySet<Ticks> {
  if (picks.size === 0) return new Set();
  if (channel !== null) return picks.get(layers[0].id)?.get(channel) ?? new Set();
  const times = new Set<Ticks>();
  for (const { id } of layers) {
    for (const own of picks.get(id)?.values() ?? []) for (const at of own) times.add(at);
  }
  return times;
}

/** A list of keys as picks. */
type Wanted = Iterable<readonly [layer: string, channel: ChannelId, at: Ticks]>;

/** Picks with more keys in them, or without those where all of them were picked already and `canToggle`. */
export function withKeys(picks: HandPicks, wanted: Wanted, canToggle = false): HandPicks {
  const keys = [...wanted];
  const isPicked = ([layer, channel, at]: (typeof keys)[number]): boolean =>
    picks.get(layer)?.get(channel)?.has(at) ?? false;
  const goes = canToggle && keys.length > 0 && keys.every(isPicked);
  const next = new Map([...picks].map(([id, own]) => [id, new Map([...own].map(([c, times]) => [c, new Set(times)]))]));
  for (const [layer, channel, at] of keys) {
    const own = next.get(layer) ?? new Map<ChannelId, Set<Ticks>>();
    const times = own.get(channel) ?? new Set<Ticks>();
    if (goes) times.delete(at);
    else times.add(at);
    own.set(channel, times);
    next.set(layer, own);
  }
  return withoutEmpty(next);
}

function withoutEmpty(picks: HandPicks): HandPicks {
  return new Map(
    [...picks].flatMap(([id, own]) => {
      const kept = [...own].filter(([, times]) => times.size > 0);
      return kept.length > 0 ? [[id, new Map(kept)] as const] : [];
    }),
  );
}

/** Keys of a row between two times. */
export function keysIn({ layers, channel }: KeyRow, from: Ticks, to: Ticks): (readonly [string, ChannelId, Ticks])[] {
  return layers.flatMap(({ id, tracks }) =>
    (channel === null ? (Object.keys(tracks) as ChannelId[]) : [channel]).flatMap((own) =>
      (tracks[own] ?? []).filter(({ at }) => at >= from && at <= to).map(({ at }) => [id, own, at] as const),
    ),
  );
}

/** What a press on a key means. */
export const REACHES = ['key', 'moment', 'later'] as const;
/** One key; all keys of its moment, counted from each layer's first one; or this and everything later. */
export type Reach = (typeof REACHES)[number];

/** The keys that a press on a key at a time of a row means, over all layers that are shown. */
export function reached(
  row: KeyRow,
  at: Ticks,
  reach: Reach,
  rows: readonly KeyRow[],
): (readonly [string, ChannelId, Ticks])[] {
  if (reach === 'key') return keysIn(row, at, at);
  // Of all layers together a moment is a time of the scene.
  if (row.kind === 'all') return keysIn(row, at, reach === 'later' ? Infinity : at);
  const layers = heads(rows);
  const own = layers.find(({ layers: [layer] }) => layer.id === row.layers[0].id) ?? row;
  const place = timesOf(own).indexOf(at);
  return layers.flatMap((one) => {
    const moment = timesOf(one)[place];
    if (moment === undefined) return [];
    return keysIn(one, moment, reach === 'later' ? Infinity : moment);
  });
}

function heads(rows: readonly KeyRow[]): KeyRow[] {
  return rows.filter(({ kind }) => kind === 'layer');
}

/** All keys of some rows. */
export function allKeys(rows: readonly KeyRow[]): (readonly [string, ChannelId, Ticks])[] {
  return heads(rows).flatMap((row) => keysIn(row, -Infinity, Infinity));
}

/** How many keys the layers of some rows have. */
export function countKeys(rows: readonly KeyRow[]): number {
  let count = 0;
  for (const { layers } of heads(rows)) for (const keys of Object.values(layers[0].tracks)) count += keys.length;
  return count;
}

/** The keys that hang together with those picked: on their layers, all that the same runs made, or all by hand. */
export function grownToPhase(picks: HandPicks, rows: readonly KeyRow[]): HandPicks {
  return withKeys(
    picks,
    heads(rows).flatMap(({ layers: [layer] }) => {
      const own = picks.get(layer.id);
      if (!own) return [];
      const owners = new Set<string | undefined>();
      for (const [channel, times] of own) {
        for (const { at, by } of layer.tracks[channel] ?? []) if (times.has(at)) owners.add(by?.run);
      }
      return (Object.keys(layer.tracks) as ChannelId[]).flatMap((channel) =>
        (layer.tracks[channel] ?? [])
          .filter(({ by }) => owners.has(by?.run))
          .map(({ at }) => [layer.id, channel, at] as const),
      );
    }),
  );
}

/** The moments of the picked keys, counted from each layer's first one, on all layers of the rows. */
export function grownToLayers(picks: HandPicks, rows: readonly KeyRow[]): HandPicks {
  const places = new Set<number>();
  const layers = heads(rows);
  for (const row of layers) {
    const times = timesOf(row);
    for (const at of pickedTimes(row, picks)) places.add(times.indexOf(at));
  }
  return withKeys(
    picks,
    layers.flatMap((row) => {
      const times = timesOf(row);
      return [...places].flatMap((place) =>
        times[place] === undefined ? [] : keysIn(row, times[place], times[place]),
      );
    }),
  );
}

/** Picks turned round: what was not picked is, among the rows. */
export function inverted(picks: HandPicks, rows: readonly KeyRow[]): HandPicks {
  return withKeys(
    new Map(),
    allKeys(rows).filter(([layer, channel, at]) => !(picks.get(layer)?.get(channel)?.has(at) ?? false)),
  );
}

/** The nearest time of a list within so many ticks; null where none is. */
export function nearest(times: Iterable<Ticks>, at: Ticks, within: Ticks): Ticks | null {
  let [best, far] = [null as Ticks | null, within];
  for (const time of times) {
    if (Math.abs(time - at) > far) continue;
    [best, far] = [time, Math.abs(time - at)];
  }
  return best;
}

/** What a row is called. */
export function rowLabel({ kind, layers, channel }: KeyRow): string {
  if (kind === 'all') return `All ${layers.length} layers`;
  return channel === null ? layers[0].name : channelOf(channel).label;
}
