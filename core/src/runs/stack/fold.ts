import type { ChannelId } from '../../basics/channel';
import {
  dataPartsBetween,
  isSame,
  lookPartsBetween,
  tracksOf,
  withDataParts,
  withLookParts,
  type DataParts,
  type Key,
  type Layer,
  type LayerBase,
  type LookPart,
  type LookParts,
} from '../../scene/layer';
import { readsOf, replayRun } from '../operations';
import type { NamedKey } from '../run';
import {
  createMadeReader,
  layerMade,
  type LayerMade,
  type LayerPatch,
  type RunRecord,
  type Scene,
} from '../../scene/scene';
import { applyPatch, type IsAlive } from './patch';

/** A run on one layer: what it makes there, and what was changed by hand over it. */
export interface Entry {
  readonly run: RunRecord;
  readonly made: LayerMade;
  readonly patch: LayerPatch | undefined;
}

/** A layer before a run, when it has met what the run makes, and with the patch over that. */
export interface Level {
  readonly entry: Entry;
  readonly before: Layer;
  readonly met: Layer;
  readonly after: Layer;
}

/** What folding needs besides a layer: the scene with the runs that it is to have. */
export interface Folding {
  readonly scene: Scene;
  readonly isAlive: IsAlive;
}

/** What folding needs for a scene with some runs. */
export function createFolding(scene: Scene, runs: readonly RunRecord[]): Folding {
  const alive = new Set(runs.filter(({ off }) => off !== true).map(({ id }) => id));
  return { scene: { ...scene, runs: [...runs] }, isAlive: (run) => alive.has(run) };
}

interface OpenedRun {
  readonly places: ReadonlyMap<string, number>;
  readonly read: (place: number) => LayerMade;
  readonly patches: ReadonlyMap<string, LayerPatch>;
}

const opened = new WeakMap<RunRecord, OpenedRun>();

function openRun(run: RunRecord): OpenedRun {
  const known = opened.get(run);
  if (known) return known;
  const { id, layers, made, patches } = run;
  const fresh: OpenedRun = {
    places: new Map(layers.map((layer, place) => [layer, place])),
    read: createMadeReader(id, layers, made),
    patches: new Map((patches ?? []).map((patch) => [patch.layer, patch])),
  };
  opened.set(run, fresh);
  return fresh;
}

/**
 * A run on a layer; null where it is not on it. Of a run that is switched off only the patch counts, so that what was set
 * by hand over it stays.
 */
export function entryOn(run: RunRecord, layer: string): Entry | null {
  const { places, read, patches } = openRun(run);
  const place = places.get(layer);
  if (place === undefined) return null;
  return { run, made: run.off === true ? layerMade(layer, {}) : read(place), patch: patches.get(layer) };
}

/** The runs of a list on a layer, the first first; of those that are switched off just the ones with a patch there. */
export function entriesOn(runs: readonly RunRecord[], layer: string): Entry[] {
  return runs.flatMap((run) => {
    const entry = entryOn(run, layer);
    return entry === null || (run.off === true && !entry.patch) ? [] : [entry];
  });
}

/** What a run makes on its layers, in their order, whether it is switched on or not. */
export function madeBy(run: RunRecord): LayerMade[] {
  const { read } = openRun(run);
  return run.layers.map((_, place) => read(place));
}

function nameHandKeys(keys: readonly Key[]): NamedKey[] {
  return keys.map((key) => (key.by ? key : { ...key, id: `@${key.at}` }));
}

/**
 * A layer as it would be without runs, its hand keys named by their time. What the base does not name is as it stands,
 * unless it is whole.
 */
export function baseLayer(layer: Layer, base: LayerBase | undefined = layer.base): Layer {
  const rest: Layer['rest'] = { ...layer.rest };
  for (const [channel, value] of Object.entries(base?.rest ?? {}) as [ChannelId, number | null][]) {
    if (value === null) delete rest[channel];
    else rest[channel] = value;
  }
  const tracks: Layer['tracks'] = {};
  for (const [channel, keys] of Object.entries({ ...(base?.whole === true ? {} : layer.tracks), ...base?.tracks }) as [
    ChannelId,
    Key[],
  ][]) {
    if (keys.length > 0) tracks[channel] = nameHandKeys(keys);
  }
  return {
    ...layer,
    span: base?.span ?? layer.span,
    rest: base?.rest ? rest : layer.rest,
    look: withLookParts(layer.look, base?.look),
    data: withDataParts(layer.data, base?.data),
    tracks,
  };
}

/** A layer without the names of hand keys. */
export function unnamed(layer: Layer): Layer {
  const tracks: Layer['tracks'] = {};
  for (const [channel, keys] of tracksOf(layer)) {
    const isNamed = keys.some((key: NamedKey) => key.id !== undefined);
    tracks[channel] = isNamed ? keys.map(({ id: _id, ...key }: NamedKey) => key) : [...keys];
  }
  return { ...layer, tracks };
}

/** Puts a run over a layer: what it makes, and the patch over that. */
export function layOver(before: Layer, entry: Entry, { scene, isAlive }: Folding): Level {
  const met = entry.run.off === true ? before : replayRun(entry.made, before, { run: entry.run, scene });
  return { entry, before, met, after: applyPatch(met, entry.patch, isAlive) };
}

/** Puts runs over a base, one after the other. */
export function foldLayer(base: Layer, entries: readonly Entry[], folding: Folding): Level[] {
  const levels: Level[] = [];
  let state = base;
  for (const entry of entries) {
    const level = layOver(state, entry, folding);
    levels.push(level);
    state = level.after;
  }
  return levels;
}

/** What the runs on a layer touch: whatever any of them, or what was changed by hand over it, made different. */
export interface Touched {
  /** Some run takes along, or takes away, whatever keys there are. */
  all: boolean;
  span: boolean;
  readonly rest: Set<ChannelId>;
  readonly look: Set<LookPart>;
  readonly data: Set<string>;
  readonly tracks: Set<ChannelId>;
}

/** Nothing noted yet. */
export function nothingTouched(): Touched {
  return { all: false, span: false, rest: new Set(), look: new Set(), data: new Set(), tracks: new Set() };
}

/** True where the in or the out point is different. */
function isSpanMoved(from: Layer, to: Layer): boolean {
  return from.span.in !== to.span.in || from.span.out !== to.span.out;
}

function isActive({ run }: Entry): boolean {
  return run.off !== true;
}

/** True where a run says when a layer begins and ends, or that was changed by hand over it. */
export function saysSpan({ entry, before, after }: Level): boolean {
  const { made } = entry;
  return isSpanMoved(before, after) || (isActive(entry) && (made.span !== null || made.moved !== 0));
}

/** True where a run says a rest value, or that was changed by hand over it. */
export function saysRest({ entry, before, after }: Level, channel: ChannelId): boolean {
  return before.rest[channel] !== after.rest[channel] || entry.made.rest.some(([own]) => own === channel);
}

/** True where a run says a part of the look, or that was changed by hand over it. */
export function saysLook({ entry, before, after }: Level, part: LookPart): boolean {
  return !isSame(before.look[part], after.look[part]) || entry.made.look[part] !== undefined;
}

/** True where a run says a cell of the data, or that was changed by hand over it. */
export function saysData({ entry, before, after }: Level, column: string): boolean {
  return before.data[column] !== after.data[column] || entry.made.data[column] !== undefined;
}

/** True for a run that may move or take away whatever keys it meets. */
function meetsAll(level: Level): boolean {
  return saysSpan(level) || (isActive(level.entry) && readsOf(level.entry.run).sweeps);
}

/** True where a run makes, or may change, the keys of a channel, or they were changed by hand over it. */
export function saysKeys(level: Level, channel: ChannelId): boolean {
  const { entry, before, after } = level;
  return (
    before.tracks[channel] !== after.tracks[channel] ||
    meetsAll(level) ||
    entry.made.tracks.some(([own]) => own === channel) ||
    entry.made.rest.some(([own]) => own === channel)
  );
}

/** Notes what a level touches; lists that are shared are the same. */
export function noteTouched(touched: Touched, level: Level): void {
  const { entry, before, after } = level;
  if (meetsAll(level)) touched.all = true;
  if (saysSpan(level)) touched.span = true;
  for (const [channel] of entry.made.rest) touched.rest.add(channel);
  for (const part of Object.keys(entry.made.look) as LookPart[]) touched.look.add(part);
  for (const part of Object.keys(lookPartsBetween(before.look, after.look)) as LookPart[]) touched.look.add(part);
  for (const column of Object.keys({ ...entry.made.data, ...dataPartsBetween(before.data, after.data) }))
    touched.data.add(column);
  for (const [channel] of [...entry.made.tracks, ...entry.made.rest]) touched.tracks.add(channel);
  if (before.rest !== after.rest) {
    for (const channel of Object.keys({ ...before.rest, ...after.rest }) as ChannelId[]) {
      if (before.rest[channel] !== after.rest[channel]) touched.rest.add(channel);
    }
  }
  if (before.tracks === after.tracks) return;
  for (const channel of Object.keys({ ...before.tracks, ...after.tracks }) as ChannelId[]) {
    if (before.tracks[channel] !== after.tracks[channel]) touched.tracks.add(channel);
  }
}

function lookUnder({ look }: Layer, parts: ReadonlySet<LookPart>): LookParts {
  return Object.fromEntries([...parts].map((part) => [part, look[part] ?? null])) as LookParts;
}

function dataUnder({ data }: Layer, columns: ReadonlySet<string>): DataParts {
  return Object.fromEntries([...columns].map((column) => [column, data[column] ?? null]));
}

/** What stood of a layer where runs touch it; undefined where they touch nothing. */
export function baseOf(base: Layer, touched: Touched): LayerBase | undefined {
  const { tracks: standing } = unnamed(base);
  const rest = Object.fromEntries([...touched.rest].map((channel) => [channel, base.rest[channel] ?? null]));
  const channels = touched.all ? [...touched.tracks, ...(Object.keys(standing) as ChannelId[])] : [...touched.tracks];
  const tracks = Object.fromEntries(channels.map((channel) => [channel, standing[channel] ?? []]));
  const kept: LayerBase = {
    ...(touched.all ? { whole: true } : {}),
    ...(touched.span ? { span: base.span } : {}),
    ...(touched.rest.size > 0 ? { rest } : {}),
    ...(touched.look.size > 0 ? { look: lookUnder(base, touched.look) } : {}),
    ...(touched.data.size > 0 ? { data: dataUnder(base, touched.data) } : {}),
    ...(channels.length > 0 ? { tracks } : {}),
  };
  return Object.keys(kept).length > 0 ? kept : undefined;
}
