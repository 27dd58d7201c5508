import type { ChannelId } from '../../basics/channel';
import { tracksOf, type Layer, type LayerSpan, type Track } from '../../scene/layer';
import type { Scene } from '../../scene/scene';
import { frameTicks, type Ticks } from '../../basics/time';
import type { Finding } from '../finding';

/** First and last time at which something happens. */
export interface Interval {
  readonly from: Ticks;
  readonly to: Ticks;
}

/** What a run gives to one layer, as the checks see it, over the span of the keys that it makes. */
export interface Subject extends Interval {
  /** The layer as it will be. */
  readonly layer: Layer;
  /** Its keys before the run put its own over them, in their new place where the whole layer moves. */
  readonly before: Layer['tracks'];
}

/** First and last key of a layer; null where it has none. */
export function keySpan(layer: Layer): Interval | null {
  const tracks = tracksOf(layer);
  if (tracks.length === 0) return null;
  return {
    from: tracks.reduce((least, [, keys]) => Math.min(least, keys[0].at), Infinity),
    to: tracks.reduce((most, [, keys]) => Math.max(most, keys[keys.length - 1].at), -Infinity),
  };
}

interface Overrun {
  readonly layers: string[];
  at: Ticks;
  by: Ticks;
}

function gatherOverruns(subjects: readonly Subject[], limits: (subject: Subject) => LayerSpan): Overrun | null {
  const found: Overrun = { layers: [], at: Infinity, by: 0 };
  for (const subject of subjects) {
    const span = limits(subject);
    const { from, to } = subject;
    if (span.in <= from && span.out >= to) continue;
    const early = span.in - from;
    const late = to - span.out;
    if (early <= 0 && late <= 0) continue;
    found.layers.push(subject.layer.id);
    found.at = Math.min(found.at, early > 0 ? from : to);
    found.by = Math.max(found.by, early, late);
  }
  return found.layers.length > 0 ? found : null;
}

/** Keys before the layer's in point or after its out point. */
export function findOutsideLayer(subjects: readonly Subject[]): Finding[] {
  const overrun = gatherOverruns(subjects, ({ layer }) => layer.span);
  return overrun ? [{ code: 'outside-layer', ...overrun }] : [];
}

/** Keys before the scene's first frame or after its end. */
export function findOutsideScene(scene: Scene, subjects: readonly Subject[]): Finding[] {
  const whole = { in: 0, out: scene.length };
  const overrun = gatherOverruns(subjects, () => whole);
  return overrun ? [{ code: 'outside-scene', ...overrun }] : [];
}

type Side = 'bring-in' | 'send-out';

/** Which runs of a scene bring in or send out. */
export function sidesOfRuns(scene: Scene): ReadonlyMap<string, Side> {
  const sides = new Map<string, Side>();
  for (const { id, recipe } of scene.runs) {
    if (recipe.operation === 'bring-in' || recipe.operation === 'send-out') sides.set(id, recipe.operation);
  }
  return sides;
}

/** Span of those keys that were made by runs of one side. */
export function intervalOfSide(tracks: Layer['tracks'], sides: ReadonlyMap<string, Side>, side: Side): Interval | null {
  let [from, to] = [Infinity, -Infinity];
  for (const channel in tracks) {
    for (const { at, by } of tracks[channel as ChannelId] as Track) {
      if (!by || sides.get(by.run) !== side) continue;
      from = Math.min(from, at);
      to = Math.max(to, at);
    }
  }
  return to >= from ? { from, to } : null;
}

/** Layers whose exit begins before their entrance has ended, where the run is one of the two. */
export function findMeetings(scene: Scene, subjects: readonly Subject[], operation: string): Finding[] {
  if (operation !== 'bring-in' && operation !== 'send-out') return [];
  const sides = sidesOfRuns(scene);
  const other = operation === 'bring-in' ? 'send-out' : 'bring-in';
  if (![...sides.values()].includes(other)) return [];
  const found: Overrun = { layers: [], at: Infinity, by: 0 };
  for (const subject of subjects) {
    const entrance = operation === 'bring-in' ? subject : intervalOfSide(subject.before, sides, 'bring-in');
    const exit = operation === 'send-out' ? subject : intervalOfSide(subject.before, sides, 'send-out');
    if (!entrance || !exit || exit.from >= entrance.to) continue;
    found.layers.push(subject.layer.id);
    found.at = Math.min(found.at, exit.from);
    found.by = Math.max(found.by, entrance.to - exit.from);
  }
  return found.layers.length > 0 ? [{ code: 'entrance-meets-exit', ...found }] : [];
}

/**
 * Layers that are brought in, or sent out, by two runs: they would appear, or go, twice. `own` is the run that is
 * looked at; null looks at all runs of the scene.
 */
export function findTwice(scene: Scene, layers: readonly Layer[], operation: string, own: string | null): Finding[] {
  if (operation !== 'bring-in' && operation !== 'send-out') return [];
  const sides = sidesOfRuns(scene);
  if (![...sides].some(([run, side]) => run !== own && side === operation)) return [];
  const found: string[] = [];
  let first = Infinity;
  const runs = new Set<string>();
  for (const { id, tracks } of layers) {
    runs.clear();
    let at = Infinity;
    for (const channel in tracks) {
      for (const { at: time, by } of tracks[channel as ChannelId] as Track) {
        if (!by || by.run === own || sides.get(by.run) !== operation) continue;
        runs.add(by.run);
        at = Math.min(at, time);
      }
    }
    if (runs.size < (own === null ? 2 : 1)) continue;
    found.push(id);
    first = Math.min(first, at);
  }
  return found.length > 0 ? [{ code: 'twice', layers: found, at: first, operation }] : [];
}

/** True for a key that only holds a value up to the next one, a tick before it: the two are one jump. */
export function isHoldingForNext(keys: Track, i: number): boolean {
  return keys[i].ease.type === 'hold' && keys[i + 1]?.at === keys[i].at + 1;
}

/** Time of the first key of a layer, or of one of a run, that lies between two frames; Infinity where there is none. */
export function firstOffGrid({ tracks }: Layer, frame: Ticks, run: string | null = null): Ticks {
  let first = Infinity;
  for (const channel in tracks) {
    const keys = tracks[channel as ChannelId] as Track;
    for (let i = 0; i < keys.length; i++) {
      const { at, by } = keys[i];
      if (at >= first || at % frame === 0 || (run !== null && by?.run !== run)) continue;
      if (!isHoldingForNext(keys, i)) first = at;
    }
  }
  return first;
}

/** Keys that the run makes between two frames. */
export function findOffGrid(scene: Scene, subjects: readonly Subject[], run: string): Finding[] {
  const frame = frameTicks(scene.rate);
  const layers: string[] = [];
  let earliest = Infinity;
  for (const { layer } of subjects) {
    const first = firstOffGrid(layer, frame, run);
    if (first === Infinity) continue;
    layers.push(layer.id);
    earliest = Math.min(earliest, first);
  }
  return layers.length > 0 ? [{ code: 'off-grid', layers, at: earliest }] : [];
}
