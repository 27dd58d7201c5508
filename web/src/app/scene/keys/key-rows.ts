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

/** A row of the keys view: a layer with all its moments, or one of its channels. */
export interface KeyRow {
  readonly id: string;
  readonly layer: Layer;
  readonly channel: ChannelId | null;
  readonly isOpen: boolean;
}

/** Rows of layers with keys, from back to front; of layers that are closed no channels. */
export function keyRows(scene: Scene, taking: ReadonlySet<string> | null, closed: ReadonlySet<string>): KeyRow[] {
  return scene.layers.flatMap((layer): KeyRow[] => {
    const channels = CHANNEL_IDS.filter((channel) => layer.tracks[channel] !== undefined);
    if (channels.length === 0 || (taking && !taking.has(layer.id))) return [];
    const isOpen = !closed.has(layer.id);
    const head: KeyRow = { id: layer.id, layer, channel: null, isOpen };
    if (!isOpen) return [head];
    return [
      head,
      ...channels.map((channel): KeyRow => ({ id: `${layer.id} ${channel}`, layer, channel, isOpen: false })),
    ];
  });
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

/** Times at which a row has keys. */
export function timesOf({ layer, channel }: Pick<KeyRow, 'layer' | 'channel'>): readonly Ticks[] {
  return channel === null ? keyTimes(layer) : (layer.tracks[channel] ?? []).map(({ at }) => at);
}

/** Channels that a row stands for. */
function channelsOf({ layer, channel }: Pick<KeyRow, 'layer' | 'channel'>): readonly ChannelId[] {
  return channel === null ? (Object.keys(layer.tracks) as ChannelId[]) : [channel];
}

/** Times of a row that are picked; of a layer's row where any of its channels is. */
export function pickedTimes(row: Pick<KeyRow, 'layer' | 'channel'>, picks: HandPicks): ReadonlySet<Ticks> {
  const own = picks.get(row.layer.id);
  if (!own) return new Set();
  if (row.channel !== null) return own.get(row.channel) ?? new Set();
  return new Set([...own.values()].flatMap((times) => [...times]));
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
export function keysIn(row: KeyRow, from: Ticks, to: Ticks): (readonly [string, ChannelId, Ticks])[] {
  return channelsOf(row).flatMap((channel) =>
    (row.layer.tracks[channel] ?? [])
      .filter(({ at }) => at >= from && at <= to)
      .map(({ at }) => [row.layer.id, channel, at] as const),
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
  const place = keyTimes(row.layer).indexOf(at);
  const layers = rows.filter(({ channel }) => channel === null);
  return layers.flatMap((one) => {
    const own = keyTimes(one.layer)[place];
    if (own === undefined) return [];
    return keysIn(one, own, reach === 'later' ? Infinity : own);
  });
}

/** All keys of some rows. */
export function allKeys(rows: readonly KeyRow[]): (readonly [string, ChannelId, Ticks])[] {
  return rows.filter(({ channel }) => channel === null).flatMap((row) => keysIn(row, -Infinity, Infinity));
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
export function rowLabel({ layer, channel }: KeyRow): string {
  return channel === null ? layer.name : channelOf(channel).label;
}
