import type { ChannelId } from '../channel';
import { isSame, withKeys, type Key, type Layer, type LayerStep } from '../scene';
import type { Ticks } from '../time';
import { keyIdentities } from './identity';

/** What became of the keys of one channel by hand: by identity, or new. */
export interface KeyEdits {
  readonly changed: ReadonlyMap<string, { readonly from: Key; readonly to: Key }>;
  readonly removed: ReadonlySet<string>;
  readonly added: readonly Key[];
}

/** What was changed by hand on one layer after a run, and before the next one that touches the same. */
export interface HandEdits {
  /** In point of the layer as the run left it; times of hand edits move along with it. */
  readonly in: Ticks;
  readonly span: { readonly in: Ticks; readonly out: Ticks } | null;
  readonly rest: ReadonlyMap<ChannelId, number | null>;
  readonly tracks: ReadonlyMap<ChannelId, KeyEdits>;
}

function isUntouched({ changed, removed, added }: KeyEdits): boolean {
  return changed.size === 0 && removed.size === 0 && added.length === 0;
}

function diffKeys(from: readonly Key[], to: readonly Key[]): KeyEdits {
  const [before, after] = [keyIdentities(from), keyIdentities(to)];
  const standing = new Map(after.map((id, i) => [id, to[i]]));
  const known = new Set(before);
  const changed = new Map<string, { from: Key; to: Key }>();
  const removed = new Set<string>();
  from.forEach((key, i) => {
    const now = standing.get(before[i]);
    if (!now) removed.add(before[i]);
    else if (!isSame(now, key)) changed.set(before[i], { from: key, to: now });
  });
  return { changed, removed, added: to.filter((_, i) => !known.has(after[i])) };
}

/** What was done by hand to a layer since a step left it. */
export function handEdits(step: LayerStep, now: Layer): HandEdits {
  const tracks = new Map<ChannelId, KeyEdits>();
  for (const { channel, after } of step.tracks) {
    const edits = diffKeys(after, now.tracks[channel] ?? []);
    if (!isUntouched(edits)) tracks.set(channel, edits);
  }
  const rest = new Map<ChannelId, number | null>();
  for (const { channel, after } of step.rest ?? []) {
    const value = now.rest[channel] ?? null;
    if (value !== after) rest.set(channel, value);
  }
  const left = step.span?.after;
  const span = left && !isSame(left, now.span) ? { in: now.span.in - left.in, out: now.span.out - left.out } : null;
  return { in: left?.in ?? now.span.in, span, rest, tracks };
}

function mergeKey(standing: Key, { from, to }: { from: Key; to: Key }, by: Ticks): Key {
  return {
    ...standing,
    at: to.at === from.at ? standing.at : to.at + by,
    value: to.value === from.value ? standing.value : to.value,
    ease: isSame(to.ease, from.ease) ? standing.ease : to.ease,
  };
}

/** Identity of a hand key after everything moved by some ticks. */
function moved(id: string, by: Ticks): string {
  return id.startsWith('@') ? `@${Number(id.slice(1)) + by}` : id;
}

/** Whether a run still stands: hand edits of a run's keys outlive anything but the run. */
export type IsAlive = (run: string) => boolean;

/**
 * Keys with the hand edits in them: field by field, so that what was not touched by hand follows the run. A key that
 * was changed by hand and that nobody makes any more stays as it is.
 */
function editKeys(keys: readonly Key[], edits: KeyEdits, by: Ticks, isAlive: IsAlive): Key[] {
  const changed = new Map([...edits.changed].map(([id, change]) => [moved(id, by), change]));
  const removed = new Set([...edits.removed].map((id) => moved(id, by)));
  const ids = keyIdentities(keys);
  const byHand = new Set<Key>();
  const result = keys.flatMap((key, i): Key[] => {
    if (removed.has(ids[i])) return [];
    const change = changed.get(ids[i]);
    if (!change) return [key];
    changed.delete(ids[i]);
    const merged = mergeKey(key, change, by);
    byHand.add(merged);
    return [merged];
  });
  const hidden = [...changed.values()].map(({ to }) => to).filter((key) => key.by === undefined || isAlive(key.by.run));
  for (const key of [...hidden, ...edits.added]) {
    const added = { ...key, at: key.at + by };
    byHand.add(added);
    result.push(added);
  }
  return inTime(result, byHand);
}

/** Keys in order of time, one at each; at one time the one that was set by hand counts. */
export function inTime(keys: readonly Key[], preferred: ReadonlySet<Key>): Key[] {
  const sorted = [...keys].sort((a, b) => a.at - b.at || Number(preferred.has(a)) - Number(preferred.has(b)));
  return sorted.filter((key, i) => sorted[i + 1]?.at !== key.at);
}

/** A layer with hand edits put back over it. */
export function applyHandEdits(layer: Layer, edits: HandEdits, isAlive: IsAlive): Layer {
  if (edits.tracks.size === 0 && edits.rest.size === 0 && edits.span === null) return layer;
  const by = layer.span.in - edits.in;
  let { tracks } = layer;
  for (const [channel, changes] of edits.tracks) {
    tracks = withKeys(tracks, channel, editKeys(tracks[channel] ?? [], changes, by, isAlive));
  }
  const rest: Layer['rest'] = { ...layer.rest };
  for (const [channel, value] of edits.rest) {
    if (value === null) delete rest[channel];
    else rest[channel] = value;
  }
  const { span } = layer;
  const out = edits.span ? { in: span.in + edits.span.in, out: span.out + edits.span.out } : span;
  return { ...layer, span: out.out > out.in ? out : span, rest, tracks };
}

/** How many keys were changed, removed or added by hand. */
export function countHandEdits({ tracks }: HandEdits): number {
  return [...tracks.values()].reduce(
    (sum, { changed, removed, added }) => sum + changed.size + removed.size + added.length,
    0,
  );
}
