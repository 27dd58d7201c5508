import { sampleTrack } from '../../scene/sample';
import { tracksOf, type Key, type Layer, type LayerSpan, type Track } from '../../scene/layer';
import type { RunRecord } from '../../scene/scene';
import { frameTicks, toFrameGrid, type Rate, type Ticks } from '../../basics/time';

/** What becomes of a run's keys when their layer is made longer or shorter. */
type Role = 'entrance' | 'exit' | 'accent' | 'middle';

/** Roles by run; keys of no run are told apart by where nothing moves. */
export type Roles = ReadonlyMap<string, Role>;

/** Entrances and exits keep their length at their end of the layer; presets that scale belong to the middle. */
export function rolesOf(runs: readonly RunRecord[]): Roles {
  const roleOf = ({ recipe, preset }: RunRecord): Role => {
    if (preset?.body.stretch === 'scale') return 'middle';
    if (recipe.operation === 'bring-in') return 'entrance';
    if (recipe.operation === 'send-out') return 'exit';
    return recipe.operation === 'accent' ? 'accent' : 'middle';
  };
  return new Map(runs.map((run) => [run.id, roleOf(run)]));
}

/** How keys of a layer are carried over to another span. */
export interface Retiming {
  readonly roles: Roles;
  readonly parts: 'keep' | 'stretch';
  /** Shortens entrance and exit where there is no room for both. */
  readonly squeeze: boolean;
  readonly rate: Rate;
}

function isStill(keys: Track, from: Ticks, to: Ticks): boolean {
  const value = sampleTrack(keys, from);
  return [0.25, 0.5, 0.75, 1].every((share) => Math.abs(sampleTrack(keys, from + (to - from) * share) - value) < 1e-9);
}

/** The longest stretch in which no keys of a layer move: what lies before is the way in, what lies after the way out. */
function stillMiddle(layer: Layer): LayerSpan | null {
  const tracks = tracksOf(layer).map(([, keys]) => keys);
  const inside = tracks.flatMap((keys) => keys.map(({ at }) => at));
  const times = [...new Set([layer.span.in, ...inside, layer.span.out])].sort((a, b) => a - b);
  let best: LayerSpan | null = null;
  times.slice(1).forEach((to, i) => {
    const from = times[i];
    if (best && to - from <= best.out - best.in) return;
    if (tracks.every((keys) => isStill(keys, from, to))) best = { in: from, out: to };
  });
  return best;
}

/** Role of each key; those without a run by the still middle of their layer. */
function roleFinder(layer: Layer, roles: Roles): (key: Key) => Role {
  const hasHandKeys = tracksOf(layer).some(([, keys]) => keys.some(({ by }) => !by || !roles.has(by.run)));
  const still = hasHandKeys ? stillMiddle(layer) : null;
  return ({ at, by }) => {
    const role = by && roles.get(by.run);
    if (role) return role;
    if (!still) return 'middle';
    return at <= still.in ? 'entrance' : at >= still.out ? 'exit' : 'middle';
  };
}

/** Lengths of the way in and the way out of a layer. */
export interface Parts {
  readonly entrance: Ticks;
  readonly exit: Ticks;
}

/** How long a layer's entrance and exit are, from its in point and to its out point. */
export function partsOf(layer: Layer, roles: Roles): Parts {
  const roleOf = roleFinder(layer, roles);
  let [entrance, exit] = [0, 0];
  for (const [, keys] of tracksOf(layer)) {
    for (const key of keys) {
      const role = roleOf(key);
      if (role === 'entrance') entrance = Math.max(entrance, key.at - layer.span.in);
      if (role === 'exit') exit = Math.max(exit, layer.span.out - key.at);
    }
  }
  return { entrance, exit };
}

/** Scene times of a layer's parts before and after, and what lies between goes evenly. */
function middleMap(from: LayerSpan, to: LayerSpan, before: Parts, after: Parts): (at: Ticks) => number {
  const [a, b] = [from.in + before.entrance, from.out - before.exit];
  const [c, d] = [to.in + after.entrance, to.out - after.exit];
  return (at) => {
    if (at <= a) return at - a + c;
    if (at >= b) return at - b + d;
    return b > a ? c + ((at - a) * (d - c)) / (b - a) : c;
  };
}

/** Times by which the first key of each accent moves; the others of it move along. */
function accentStarts(layer: Layer, roleOf: (key: Key) => Role): Map<string, Ticks> {
  const starts = new Map<string, Ticks>();
  for (const [, keys] of tracksOf(layer)) {
    for (const key of keys) {
      if (!key.by || roleOf(key) !== 'accent') continue;
      starts.set(key.by.run, Math.min(starts.get(key.by.run) ?? Infinity, key.at));
    }
  }
  return starts;
}

/** True when there is no room in a span for both parts. */
export function isTooShort({ entrance, exit }: Parts, span: LayerSpan): boolean {
  return entrance + exit > span.out - span.in && entrance > 0 && exit > 0;
}

function squeezed(parts: Parts, span: LayerSpan): Parts {
  const factor = (span.out - span.in) / (parts.entrance + parts.exit);
  return { entrance: parts.entrance * factor, exit: parts.exit * factor };
}

/** A layer with another span, and its keys carried over: exact where it only moves, else on whole frames. */
export function retime(layer: Layer, span: LayerSpan, { roles, parts, squeeze, rate }: Retiming): Layer {
  const from = layer.span;
  const [early, late] = [span.in - from.in, span.out - from.out];
  const place = (keys: Track, timeOf: (key: Key) => number): Key[] => {
    const times = keys.map(timeOf);
    // A key that holds up to the tick before the next one stays just before it.
    const moved = keys.map((key, i) => ({ ...key, at: keys[i + 1]?.at === key.at + 1 ? times[i + 1] - 1 : times[i] }));
    moved.sort((a, b) => a.at - b.at);
    return moved.filter((key, i) => moved[i + 1]?.at !== key.at);
  };
  const carry = (timeOf: (key: Key) => number): Layer => {
    const tracks = tracksOf(layer).map(([channel, keys]) => [channel, place(keys, timeOf)]);
    return { ...layer, span: { in: span.in, out: span.out }, tracks: Object.fromEntries(tracks) };
  };
  if (early === late) return carry(({ at }) => at + early);
  const frame = frameTicks(rate);
  const snap = (key: Key, at: number): Ticks =>
    key.at % frame === 0 ? toFrameGrid(Math.round(at), rate) : Math.round(at);
  if (parts === 'stretch') {
    const factor = (span.out - span.in) / (from.out - from.in);
    return carry((key) => snap(key, span.in + (key.at - from.in) * factor));
  }
  const roleOf = roleFinder(layer, roles);
  const before = partsOf(layer, roles);
  const isShort = isTooShort(before, span);
  const after = squeeze && isShort ? squeezed(before, span) : before;
  const factor =
    before.entrance + before.exit > 0 ? (after.entrance + after.exit) / (before.entrance + before.exit) : 1;
  const map = isShort && !squeeze ? (at: Ticks) => at + early : middleMap(from, span, before, after);
  const accents = accentStarts(layer, roleOf);
  return carry((key) => {
    switch (roleOf(key)) {
      case 'entrance':
        return snap(key, span.in + (key.at - from.in) * factor);
      case 'exit':
        return snap(key, span.out - (from.out - key.at) * factor);
      case 'accent': {
        const start = accents.get(key.by?.run ?? '') ?? key.at;
        return snap(key, map(start)) + key.at - start;
      }
      case 'middle':
        return snap(key, map(key.at));
    }
  });
}
