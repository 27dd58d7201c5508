import {
  CHANNEL_IDS,
  channelOf,
  counted,
  dialChannel,
  keyedDials,
  keyTimes,
  type ChannelId,
  type HandPicks,
  type KeyedDial,
  type Layer,
  type Scene,
  type Ticks,
} from '@wexikine/core';

/**
 * A row of the keys view: the moments of all layers together, a layer with all its moments, or one of its channels; or a
 * run of a rig with the keys of all its dials, or one of them.
 */
export interface KeyRow {
  readonly id: string;
  readonly kind: 'all' | 'layer' | 'channel' | 'rig' | 'dial';
  /** Whose keys stand in it: one layer but in the row of all; in rows of dials the layers that are made of them. */
  readonly layers: readonly Layer[];
  /** The dials whose keys stand in it; none in rows of layers. */
  readonly dials: readonly KeyedDial[];
  /** Null: all channels. */
  readonly channel: ChannelId | null;
  readonly isOpen: boolean;
}

const NO_DIALS: readonly KeyedDial[] = [];

/** The id of the row of all layers. */
export const ALL_ROW = 'all';

/**
 * Rows of layers with keys, from back to front, under one for all of them and those of dials with keys; of layers that are
 * closed no channels.
 */
export function keyRows(scene: Scene, taking: ReadonlySet<string> | null, closed: ReadonlySet<string>): KeyRow[] {
  const layers = scene.layers.filter(
    ({ id, tracks }) => (taking === null || taking.has(id)) && Object.keys(tracks).length > 0,
  );
  const rows = layers.flatMap((layer): KeyRow[] => {
    const isOpen = !closed.has(layer.id);
    const own = [layer];
    const head: KeyRow = { id: layer.id, kind: 'layer', layers: own, dials: NO_DIALS, channel: null, isOpen };
    if (!isOpen) return [head];
    const channels = CHANNEL_IDS.filter((channel) => layer.tracks[channel] !== undefined);
    return [
      head,
      ...channels.map((channel): KeyRow => ({
        id: `${layer.id} ${channel}`,
        kind: 'channel',
        layers: own,
        dials: NO_DIALS,
        channel,
        isOpen: false,
      })),
    ];
  });
  const all: KeyRow = { id: ALL_ROW, kind: 'all', layers, dials: NO_DIALS, channel: null, isOpen: false };
  return [...(layers.length < 2 ? [] : [all]), ...dialRows(scene, closed), ...rows];
}

/** The id of the row of a run's dials. */
export function rigRowId(run: string): string {
  return `dials ${run}`;
}

/** Rows of runs of rigs whose dials have keys. */
function dialRows({ runs }: Scene, closed: ReadonlySet<string>): KeyRow[] {
  const dials = keyedDials(runs);
  return [...new Set(dials.map(({ run }) => run))].flatMap((run): KeyRow[] => {
    const own = dials.filter((one) => one.run === run);
    const id = rigRowId(run.id);
    const isOpen = !closed.has(id);
    const layers = own.map(({ layer }) => layer);
    const head: KeyRow = { id, kind: 'rig', layers, dials: own, channel: null, isOpen };
    const rows = own.map((one): KeyRow => ({
      id: `${id} ${one.dial.name}`,
      kind: 'dial',
      layers: [one.layer],
      dials: [one],
      channel: dialChannel(one.dial),
      isOpen: false,
    }));
    return [head, ...(isOpen ? rows : [])];
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

const timesOfRows = new WeakMap<KeyRow, readonly Ticks[]>();

/** Times at which a row has keys, ascending, each once. */
export function timesOf(row: KeyRow): readonly Ticks[] {
  const known = timesOfRows.get(row);
  if (known) return known;
  const times = findTimes(row);
  timesOfRows.set(row, times);
  return times;
}

function findTimes({ layers, channel }: KeyRow): readonly Ticks[] {
  if (channel !== null) return (layers[0].tracks[channel] ?? []).map(({ at }) => at);
  if (layers.length === 1) return keyTimes(layers[0]);
  return [...new Set(layers.flatMap(keyTimes))].sort((a, b) => a - b);
}

/** Times of a row that are picked; of a row of several channels or layers where any of them is. */
export function pickedTimes({ layers, channel }: KeyRow, picks: HandPicks): ReadonlySet<Ticks> {
  if (picks.size === 0) return NO_TIMES;
  if (channel !== null) return picks.get(layers[0].id)?.get(channel) ?? NO_TIMES;
  const times = new Set<Ticks>();
  for (const { id } of layers) {
    for (const own of picks.get(id)?.values() ?? []) for (const at of own) times.add(at);
  }
  return times;
}

const NO_TIMES: ReadonlySet<Ticks> = new Set();

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

/** The keys that a press on a key at a time of a row means, over all layers or all dials that are shown. */
export function reached(
  row: KeyRow,
  at: Ticks,
  reach: Reach,
  rows: readonly KeyRow[],
): (readonly [string, ChannelId, Ticks])[] {
  if (reach === 'key') return keysIn(row, at, at);
  // Of dials a moment is a time of the scene, and what is later is that of the row.
  if (row.dials.length > 0) {
    return reach === 'later' ? keysIn(row, at, Infinity) : rigs(rows).flatMap((one) => keysIn(one, at, at));
  }
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

function rigs(rows: readonly KeyRow[]): KeyRow[] {
  return rows.filter(({ kind }) => kind === 'rig');
}

/** All keys of some rows. */
export function allKeys(rows: readonly KeyRow[]): (readonly [string, ChannelId, Ticks])[] {
  return [...rigs(rows), ...heads(rows)].flatMap((row) => keysIn(row, -Infinity, Infinity));
}

/** How many keys the layers of some rows have, and the dials. */
export function countKeys(rows: readonly KeyRow[]): number {
  let count = 0;
  for (const { layers } of [...rigs(rows), ...heads(rows)]) {
    for (const { tracks } of layers) for (const keys of Object.values(tracks)) count += keys.length;
  }
  return count;
}

/** The keys that hang together with those picked: on their layers, all that the same runs made, or all by hand; all dials of a run. */
export function grownToPhase(picks: HandPicks, rows: readonly KeyRow[]): HandPicks {
  const turned = rigs(rows).filter(({ layers }) => layers.some(({ id }) => picks.has(id)));
  return withKeys(
    withKeys(picks, allKeys(turned)),
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

/** The moments of the picked keys, counted from each layer's first one, on all layers of the rows; of dials, those times on all dials. */
export function grownToLayers(picks: HandPicks, rows: readonly KeyRow[]): HandPicks {
  const places = new Set<number>();
  const layers = heads(rows);
  for (const row of layers) {
    const times = timesOf(row);
    for (const at of pickedTimes(row, picks)) places.add(times.indexOf(at));
  }
  const ofDials = new Set(rigs(rows).flatMap((row) => [...pickedTimes(row, picks)]));
  const dials = rigs(rows).flatMap((row) => [...ofDials].flatMap((at) => keysIn(row, at, at)));
  return withKeys(
    withKeys(picks, dials),
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
export function rowLabel({ kind, layers, channel, dials }: KeyRow): string {
  if (kind === 'all') return `All ${counted(layers.length, 'layer')}`;
  if (kind === 'rig') return `Dials of ${dials[0].run.rig?.name ?? 'a rig'}`;
  if (kind === 'dial') return dials[0].dial.label;
  return channel === null ? layers[0].name : channelOf(channel).label;
}
