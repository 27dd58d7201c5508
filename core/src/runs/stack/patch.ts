import type { ChannelId } from '../../basics/channel';
import {
  dataPartsBetween,
  isSame,
  lookPartsBetween,
  withDataParts,
  withKeys,
  withLookParts,
  type Key,
  type Layer,
} from '../../scene/layer';
import { nameOf, type NamedKey } from '../run';
import type { KeyField, KeyPatch, LayerPatch } from '../../scene/scene';
import type { Ticks } from '../../basics/time';

/** Whether a run still stands: what was changed by hand of a run's keys outlives anything but the run. */
export type IsAlive = (run: string) => boolean;

type Changed = NonNullable<KeyPatch['changed']>[number];
type Added = NonNullable<KeyPatch['added']>[number];

/** The name under which patches know a key. */
export function idOf(key: NamedKey): string {
  return key.id ?? nameOf(key);
}

/** A key that was set by hand, under a name. */
function named(key: Key, id: string): NamedKey {
  return key.by ? key : { ...key, id };
}

/** Keys in order of time, one at each; at one time the one that was set by hand counts. */
function inTime(keys: readonly Key[], byHand: ReadonlySet<Key>): Key[] {
  const sorted = [...keys].sort((a, b) => a.at - b.at || Number(byHand.has(a)) - Number(byHand.has(b)));
  return sorted.filter((key, i) => sorted[i + 1]?.at !== key.at);
}

function withFields(key: Key, { key: hand, fields }: Changed, by: Ticks): Key {
  const has = (field: KeyField): boolean => fields.includes(field);
  return {
    ...key,
    at: has('at') ? hand.at + by : key.at,
    value: has('value') ? hand.value : key.value,
    ease: has('ease') ? hand.ease : key.ease,
  };
}

/**
 * Keys with a patch over them: field by field, so that what was not touched by hand follows the run. A key that was
 * changed by hand and that nobody makes any more stays as it is, as long as its run stands.
 */
function patchKeys(keys: readonly NamedKey[], patch: KeyPatch, by: Ticks, isAlive: IsAlive): NamedKey[] {
  const changed = new Map((patch.changed ?? []).map((entry) => [entry.id, entry]));
  const removed = new Set(patch.removed);
  const byHand = new Set<Key>();
  const result = keys.flatMap((key): NamedKey[] => {
    const id = idOf(key);
    if (removed.has(id)) return [];
    const change = changed.get(id);
    if (!change) return [key];
    changed.delete(id);
    const merged = withFields(key, change, by);
    byHand.add(merged);
    return [merged];
  });
  const unmade = [...changed.values()].filter(({ key }) => key.by === undefined || isAlive(key.by.run));
  for (const { id, key } of [...unmade, ...(patch.added ?? [])]) {
    const own = named({ ...key, at: key.at + by }, id);
    byHand.add(own);
    result.push(own);
  }
  return inTime(result, byHand);
}

/** A layer with what was changed by hand put over it. */
export function applyPatch(layer: Layer, patch: LayerPatch | undefined, isAlive: IsAlive): Layer {
  if (!patch) return layer;
  const by = layer.span.in - patch.in;
  let { tracks } = layer;
  for (const [channel, keys] of Object.entries(patch.tracks ?? {}) as [ChannelId, KeyPatch][]) {
    tracks = withKeys(tracks, channel, patchKeys(tracks[channel] ?? [], keys, by, isAlive));
  }
  const rest: Layer['rest'] = { ...layer.rest };
  for (const [channel, value] of Object.entries(patch.rest ?? {}) as [ChannelId, number | null][]) {
    if (value === null) delete rest[channel];
    else rest[channel] = value;
  }
  const { span } = layer;
  const moved = patch.span ? { in: span.in + patch.span.in, out: span.out + patch.span.out } : span;
  return {
    ...layer,
    span: moved.out > moved.in ? moved : span,
    rest: patch.rest ? rest : layer.rest,
    look: withLookParts(layer.look, patch.look),
    data: withDataParts(layer.data, patch.data),
    tracks,
  };
}

const ALL_FIELDS: KeyField[] = ['at', 'value', 'ease'];

function fieldsBetween(from: Key, to: Key): KeyField[] {
  return ALL_FIELDS.filter((field) => !isSame(from[field], to[field]));
}

/** A key as patches keep it: without the name that it has on its way through the runs. */
function plain({ at, value, ease, by }: NamedKey): Key {
  return { at, value, ease, ...(by ? { by } : {}) };
}

function lists(changed: Changed[], removed: string[], added: Added[]): KeyPatch | null {
  if (changed.length + removed.length + added.length === 0) return null;
  return {
    ...(changed.length > 0 ? { changed } : {}),
    ...(removed.length > 0 ? { removed } : {}),
    ...(added.length > 0 ? { added } : {}),
  };
}

/** What is known of a patch before what was done by hand since it was written. */
export interface KnownPatch<T> {
  readonly run: string;
  /** Its times count from where the layer begins as the run left it. */
  readonly stored: T | undefined;
  readonly isAlive: IsAlive;
}

/** True where keys stand just as a run left them, each in its place. */
function isUntouched(met: readonly NamedKey[], now: readonly NamedKey[]): boolean {
  if (met.length !== now.length) return false;
  for (let i = 0; i < met.length; i++) {
    const [a, b] = [met[i], now[i]];
    if (a.at !== b.at || a.value !== b.value) return false;
    if (a.by?.slot !== b.by?.slot || a.by?.run !== b.by?.run) return false;
    if (a.ease !== b.ease && !isSame(a.ease, b.ease)) return false;
  }
  return true;
}

/**
 * What was done by hand to the keys of a channel since a run left them as `met`. Names that keys have stay. What the
 * stored patch says of keys of runs that are switched off, or that are not made at present, stays too.
 */
export function keyPatchBetween(
  met: readonly NamedKey[],
  now: readonly NamedKey[],
  { run, stored, isAlive }: KnownPatch<KeyPatch>,
): KeyPatch | null {
  // Where the patch still gives what stands, nothing was done since; it may say more than can be seen now.
  if (isUntouched(stored ? patchKeys(met, stored, 0, isAlive) : met, now)) return stored ?? null;
  const made = new Map<string, NamedKey>();
  for (const key of met) if (!made.has(nameOf(key))) made.set(nameOf(key), key);
  const known = new Map((stored?.changed ?? []).map((entry) => [entry.id, entry]));
  const names = new Map((stored?.added ?? []).map(({ id, key }) => [key.at, id]));
  const ids = new Set(met.map(idOf));
  const taken = new Set([...ids, ...names.values()]);
  const seen = new Set<string>();
  const [changed, added]: [Changed[], Added[]] = [[], []];
  const newName = (at: Ticks): string => {
    let id = `${run}@${at}`;
    while (taken.has(id)) id += '+';
    taken.add(id);
    return id;
  };
  for (const key of now) {
    const name = nameOf(key);
    const old = made.get(name);
    if (seen.has(name) || (!old && !key.by)) {
      // A second key of one name is a copy that was made by hand.
      const { by: _copied, ...own } = plain(key);
      added.push({ id: key.id ?? names.get(key.at) ?? newName(key.at), key: own });
    } else if (old) {
      const fields = fieldsBetween(old, key);
      if (fields.length > 0) changed.push({ id: idOf(old), key: plain(key), fields });
    } else {
      changed.push({ id: name, key: plain(key), fields: known.get(name)?.fields ?? ALL_FIELDS });
    }
    seen.add(name);
  }
  const removed = [...made].filter(([name]) => !seen.has(name)).map(([, key]) => idOf(key));
  const isAway = (id: string): boolean => !ids.has(id) && !seen.has(id);
  const resting = (stored?.changed ?? []).filter(({ id, key }) => isAway(id) && key.by && !isAlive(key.by.run));
  const waiting = (stored?.removed ?? []).filter(isAway);
  return lists([...changed, ...resting], [...removed, ...waiting], added);
}

/** True for a patch that says nothing. */
function isEmpty({ span, rest, look, data, tracks }: LayerPatch): boolean {
  return [span, rest, look, data, tracks].every((part) => part === undefined);
}

type Parts = Pick<LayerPatch, 'span' | 'rest' | 'look' | 'data' | 'tracks'>;

/** A patch of what it holds; none where that is nothing. */
export function patchOf(layer: string, at: Ticks, { span, rest, look, data, tracks }: Parts): LayerPatch | undefined {
  const patch: LayerPatch = {
    layer,
    in: at,
    ...(span ? { span } : {}),
    ...(rest && Object.keys(rest).length > 0 ? { rest } : {}),
    ...(look && Object.keys(look).length > 0 ? { look } : {}),
    ...(data && Object.keys(data).length > 0 ? { data } : {}),
    ...(tracks && Object.keys(tracks).length > 0 ? { tracks } : {}),
  };
  return isEmpty(patch) ? undefined : patch;
}

function later<T extends { key: Key }>(entries: readonly T[], by: Ticks): T[] {
  return entries.map((entry) => ({ ...entry, key: { ...entry.key, at: entry.key.at + by } }));
}

/** A patch with its times counted from another in point. */
export function patchAt(patch: LayerPatch | undefined, at: Ticks): LayerPatch | undefined {
  if (!patch || patch.in === at) return patch;
  const by = at - patch.in;
  const tracks = mapKeys(patch, ({ changed, removed, added }) =>
    lists(later(changed ?? [], by), removed ?? [], later(added ?? [], by)),
  );
  return patchOf(patch.layer, at, { ...patch, tracks });
}

function mapKeys(
  patch: LayerPatch | undefined,
  change: (keys: KeyPatch, channel: ChannelId) => KeyPatch | null,
): NonNullable<LayerPatch['tracks']> {
  const tracks: NonNullable<LayerPatch['tracks']> = {};
  for (const [channel, keys] of Object.entries(patch?.tracks ?? {}) as [ChannelId, KeyPatch][]) {
    const changed = change(keys, channel);
    if (changed) tracks[channel] = changed;
  }
  return tracks;
}

/** By how much the ends of a layer were moved by hand. */
export function spanPatchBetween(met: Layer, now: Layer): LayerPatch['span'] {
  const span = { in: now.span.in - met.span.in, out: now.span.out - met.span.out };
  return span.in === 0 && span.out === 0 ? undefined : span;
}

/** What leads from a layer as a run left it to what it has become by hand, as a patch of that run. */
export function patchBetween(met: Layer, now: Layer, known: KnownPatch<LayerPatch>): LayerPatch | undefined {
  const stored = patchAt(known.stored, met.span.in);
  const tracks: NonNullable<LayerPatch['tracks']> = {};
  for (const channel of Object.keys({ ...met.tracks, ...now.tracks, ...stored?.tracks }) as ChannelId[]) {
    const own = { ...known, stored: stored?.tracks?.[channel] };
    const patch = keyPatchBetween(met.tracks[channel] ?? [], now.tracks[channel] ?? [], own);
    if (patch) tracks[channel] = patch;
  }
  const rest: NonNullable<LayerPatch['rest']> = {};
  for (const channel of Object.keys({ ...met.rest, ...now.rest }) as ChannelId[]) {
    const value = now.rest[channel] ?? null;
    if (value !== (met.rest[channel] ?? null)) rest[channel] = value;
  }
  const look = lookPartsBetween(met.look, now.look);
  const data = dataPartsBetween(met.data, now.data);
  return patchOf(met.id, met.span.in, { rest, look, data, tracks, span: spanPatchBetween(met, now) });
}

/** Which keys of a patch to take: by their name. */
type IsWanted = (id: string) => boolean;

function keysWhere(patch: KeyPatch, isWanted: IsWanted): KeyPatch | null {
  return lists(
    (patch.changed ?? []).filter(({ id }) => isWanted(id)),
    (patch.removed ?? []).filter(isWanted),
    (patch.added ?? []).filter(({ id }) => isWanted(id)),
  );
}

/** The part of a patch that is about some keys; `others`: with the span and the rest pose. */
function part(patch: LayerPatch, isWanted: IsWanted, others: boolean): LayerPatch | undefined {
  const tracks = mapKeys(patch, (keys) => keysWhere(keys, isWanted));
  return patchOf(patch.layer, patch.in, {
    tracks,
    ...(others ? { span: patch.span, rest: patch.rest, look: patch.look, data: patch.data } : {}),
  });
}

/** A patch cut in two: what is about some keys, and all else. */
export function splitPatch(
  patch: LayerPatch | undefined,
  isWanted: IsWanted,
): readonly [LayerPatch | undefined, LayerPatch | undefined] {
  if (!patch) return [undefined, undefined];
  return [part(patch, isWanted, false), part(patch, (id) => !isWanted(id), true)];
}

/** A patch with other names for some keys. */
export function renamedPatch(
  patch: LayerPatch | undefined,
  names: ReadonlyMap<string, string>,
): LayerPatch | undefined {
  if (!patch?.tracks || names.size === 0) return patch;
  const named = (id: string): string => names.get(id) ?? id;
  const tracks = mapKeys(patch, ({ changed, removed, added }) =>
    lists(
      (changed ?? []).map((entry) => ({ ...entry, id: named(entry.id) })),
      (removed ?? []).map(named),
      added ?? [],
    ),
  );
  return patchOf(patch.layer, patch.in, { ...patch, tracks });
}

/** Two patches of one layer as one; where both name a key, the second counts, and its span and rest values do. */
export function joinPatches(first: LayerPatch, second: LayerPatch | undefined): LayerPatch {
  if (!second) return first;
  const ids = new Set<string>();
  mapKeys(second, (keys) => {
    for (const { id } of [...(keys.changed ?? []), ...(keys.added ?? [])]) ids.add(id);
    for (const id of keys.removed ?? []) ids.add(id);
    return null;
  });
  const [, rest] = splitPatch(patchAt(first, second.in), (id) => ids.has(id));
  const tracks = { ...second.tracks };
  mapKeys(rest, (keys, channel) => {
    const known = tracks[channel];
    const sum = lists(
      [...(keys.changed ?? []), ...(known?.changed ?? [])],
      [...(keys.removed ?? []), ...(known?.removed ?? [])],
      [...(keys.added ?? []), ...(known?.added ?? [])],
    );
    if (sum) tracks[channel] = sum;
    return null;
  });
  return patchOf(second.layer, second.in, { ...second, tracks }) ?? second;
}

/** How many keys a patch changes, removes or adds. */
export function countPatched(patch: LayerPatch | undefined): number {
  return Object.values(patch?.tracks ?? {}).reduce(
    (sum, { changed, removed, added }) => sum + (changed?.length ?? 0) + (removed?.length ?? 0) + (added?.length ?? 0),
    0,
  );
}
