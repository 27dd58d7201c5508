import { perUnit, type ChannelId } from '../../basics/channel';
import { asBezier, scaledEasing, type BezierEasing, type Easing } from '../../basics/easing';
import { randomAt, seedFromText } from '../../basics/random';
import { TICKS_PER_SECOND } from '../../basics/time';
import { createSegment } from '../../scene/sample';
import type { NamedKey } from '../run';
import type { AdjustStep } from '../../scene/recipe';
import { mapPicked, momentsOf, type Entries, type Entry } from './picked';
import type { StepLayer } from './times';

/** A layer’s rest value of a channel. */
export type RestOf = (channel: ChannelId) => number;

/** about + (v − about) · factor, with the handles of segments between picked keys. */
function scaledAbout(entries: Entries, factor: number, aboutOf: (channel: ChannelId) => number): Entries {
  return new Map(
    [...entries].map(([channel, list]) => {
      const about = aboutOf(channel);
      const changed = list.map((entry, i): Entry => {
        if (!entry.isPicked) return entry;
        const { key } = entry;
        const ease = list[i + 1]?.isPicked ? scaledEasing(key.ease, factor) : key.ease;
        return { ...entry, key: { ...key, value: about + (key.value - about) * factor, ease } };
      });
      return [channel, changed];
    }),
  );
}

function meanOf(list: readonly Entry[]): number {
  const values = list.filter(({ isPicked }) => isPicked).map(({ key }) => key.value);
  return values.length === 0 ? 0 : values.reduce((sum, value) => sum + value, 0) / values.length;
}

/** about + (v − about) · to. */
export function scaleValues(
  entries: Entries,
  { about }: Extract<AdjustStep, { type: 'scale' }>,
  layer: StepLayer,
  rest: RestOf,
): Entries {
  return scaledAbout(entries, layer.number('to'), (channel) => {
    if (about === 'zero') return 0;
    return about === 'rest' ? rest(channel) : meanOf(entries.get(channel) ?? []);
  });
}

/** 2 · rest − v. */
export function mirrorValues(entries: Entries, rest: RestOf): Entries {
  return scaledAbout(entries, -1, rest);
}

/** v + by, in px, degrees or per cent. */
export function offsetValues(entries: Entries, layer: StepLayer): Entries {
  const by = layer.number('by');
  return mapPicked(entries, (key, channel) => ({ ...key, value: key.value + by / perUnit(channel) }));
}

/** At least, at most; the greatest wins where they cross. */
export function limitValues(entries: Entries, layer: StepLayer): Entries {
  const [low, high] = [layer.number('low'), layer.number('high')];
  return mapPicked(entries, (key, channel) => {
    const unit = perUnit(channel);
    return { ...key, value: Math.min(high / unit, Math.max(low / unit, key.value)) };
  });
}

/** Places at which a segment is looked at, and then once more about the one where most was found. */
const LOOKS = 64;
/** Where between two looks how fast the slope changes is taken from; and how near to the ends of a Bézier curve it is looked at. */
const APART = 1e-3;

type Measure = (at: number) => number;

/** The greatest size of a measure between two ends. */
function greatest(measure: Measure, from = 0, to = 1): number {
  let [best, most] = [from, 0];
  const look = (start: number, step: number): void => {
    for (let i = 0; i <= LOOKS; i++) {
      const at = Math.min(to, Math.max(from, start + i * step));
      const size = Math.abs(measure(at));
      if (size > most) [best, most] = [at, size];
    }
  };
  const step = (to - from) / LOOKS;
  look(from, step);
  look(best - step, (2 * step) / LOOKS);
  return most;
}

/** How steep a segment is and how its slope changes, for one unit of way over one of time. */
interface Measures {
  /** The greatest slope: 1 for an even one. */
  readonly steepness: () => number;
  /** The greatest change of the slope: 0 for an even one. */
  readonly bend: () => number;
}

/**
 * A cubic Bézier curve is looked at along its parameter, so that nothing is solved: slope y′ ÷ x′, its change
 * (y″ · x′ − y′ · x″) ÷ x′³.
 */
function bezierMeasures({ x1, y1, x2, y2 }: BezierEasing): Measures {
  const first =
    (a: number, b: number): Measure =>
    (u) =>
      3 * ((1 - u) * (1 - u) * a + 2 * (1 - u) * u * (b - a) + u * u * (1 - b));
  const second =
    (a: number, b: number): Measure =>
    (u) =>
      6 * ((1 - u) * (b - 2 * a) + u * (1 - 2 * b + a));
  const [dx, dy, ddx, ddy] = [first(x1, x2), first(y1, y2), second(x1, x2), second(y1, y2)];
  const along = (measure: Measure): number => greatest(measure, APART, 1 - APART);
  return {
    steepness: () => along((u) => dy(u) / dx(u)),
    bend: () => along((u) => (ddy(u) * dx(u) - dy(u) * ddx(u)) / dx(u) ** 3),
  };
}

/** Null for jumps, and for handles between equal values, which have no way. */
function measuresOf(plain: Easing): Measures | null {
  if (plain.type === 'hold' || plain.type === 'steps' || plain.type === 'handles') return null;
  const { slope } = createSegment(plain, 0, 1);
  const change: Measure = (share) => {
    const [from, till] = [Math.max(0, share - APART), Math.min(1, share + APART)];
    return (slope(till) - slope(from)) / (till - from);
  };
  return { steepness: () => greatest(slope), bend: () => greatest(change) };
}

/** Measures of curves by their numbers: hundreds of layers have a few of them, whether their keys share them or not. */
const known: Readonly<Record<keyof Measures, Map<string, number>>> = { steepness: new Map(), bend: new Map() };
const MOST_KNOWN = 4_000;

/** A measure of the segment from a key to a value; null for jumps. */
function measured({ ease, value }: NamedKey, to: number, measure: keyof Measures): number | null {
  const plain = asBezier(ease, value, to) ?? ease;
  if (plain.type !== 'bezier') return measuresOf(plain)?.[measure]() ?? null;
  const name = `${plain.x1} ${plain.y1} ${plain.x2} ${plain.y2}`;
  const before = known[measure].get(name);
  if (before !== undefined) return before;
  if (known[measure].size >= MOST_KNOWN) known[measure].clear();
  const size = bezierMeasures(plain)[measure]();
  known[measure].set(name, size);
  return size;
}

/**
 * Values drawn nearer to the one before where a segment up to a picked key goes further than there is room for; what comes
 * after catches up where it has the time. Jumps are left alone.
 */
function withinRoom(
  entries: Entries,
  measure: keyof Measures,
  roomOf: (measured: number, seconds: number, channel: ChannelId) => number,
): Entries {
  return new Map(
    [...entries].map(([channel, list]) => {
      const nearer: Entry[] = [];
      list.forEach((entry, i) => {
        const [before, last] = [list[i - 1], nearer.at(-1)];
        if (!before || !last || !entry.isPicked) return void nearer.push(entry);
        const size = measured(before.key, entry.key.value, measure);
        if (size === null) return void nearer.push(entry);
        const seconds = (entry.key.at - before.key.at) / TICKS_PER_SECOND;
        const room = size === 0 ? Infinity : roomOf(size, seconds, channel);
        const way = entry.key.value - last.key.value;
        const value = last.key.value + Math.sign(way) * Math.min(Math.abs(way), room);
        nearer.push({ ...entry, key: { ...entry.key, value } });
      });
      return [channel, nearer];
    }),
  );
}

/** No segment goes faster than so much a second at its steepest: way ≤ most · seconds ÷ steepest slope. */
export function limitSpeed(entries: Entries, layer: StepLayer): Entries {
  const most = Math.max(0, layer.number('most'));
  return withinRoom(entries, 'steepness', (steep, seconds, channel) => (most / perUnit(channel)) * (seconds / steep));
}

/**
 * Within no segment does the speed change by more than so much a second, each second: way ≤ most · seconds² ÷ greatest
 * bend. A corner at a key, where one segment meets the next, is not one.
 */
export function limitAcceleration(entries: Entries, layer: StepLayer): Entries {
  const most = Math.max(0, layer.number('most'));
  return withinRoom(entries, 'bend', (bent, seconds, channel) => (most / perUnit(channel)) * (seconds ** 2 / bent));
}

/** v + amount · ((before + after) ÷ 2 − v) for picked keys that have a neighbour on either side. */
export function smoothValues(entries: Entries, layer: StepLayer): Entries {
  const by = Math.min(1, Math.max(0, layer.number('by')));
  return new Map(
    [...entries].map(([channel, list]) => {
      const changed = list.map((entry, i): Entry => {
        const [before, after] = [list[i - 1], list[i + 1]];
        if (!entry.isPicked || !before || !after) return entry;
        const middle = (before.key.value + after.key.value) / 2;
        return { ...entry, key: { ...entry.key, value: entry.key.value + (middle - entry.key.value) * by } };
      });
      return [channel, changed];
    }),
  );
}

/** Values at even distances between the first and the last picked key of each channel. */
export function spreadValues(entries: Entries): Entries {
  return new Map(
    [...entries].map(([channel, list]) => {
      const picked = list.filter(({ isPicked }) => isPicked);
      const [first, last] = [picked[0], picked[picked.length - 1]];
      if (picked.length < 3) return [channel, list];
      const step = (last.key.value - first.key.value) / (picked.length - 1);
      let place = 0;
      const changed = list.map((entry): Entry =>
        entry.isPicked ? { ...entry, key: { ...entry.key, value: first.key.value + step * place++ } } : entry,
      );
      return [channel, changed];
    }),
  );
}

/** v ± value · random, one draw for each key. */
export function jitterValues(entries: Entries, layer: StepLayer): Entries {
  const reach = layer.number('value');
  if (reach === 0) return entries;
  const place = new Map(momentsOf(entries).map((at, i) => [at, i]));
  return mapPicked(entries, (key, channel) => {
    const own = seedFromText(`${layer.id}/${channel}`);
    const draw = randomAt(layer.seed + own, place.get(key.at) ?? 0) * 2 - 1;
    return { ...key, value: key.value + (reach / perUnit(channel)) * draw };
  });
}
