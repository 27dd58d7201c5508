import type { ChannelId } from '../../basics/channel';
import { asBezier, type Easing } from '../../basics/easing';
import { randomAt, seedFromText } from '../../basics/random';
import { TICKS_PER_SECOND } from '../../basics/time';
import { createSegment } from '../../scene/sample';
import type { NamedKey } from '../run';
import type { AdjustStep } from '../../scene/recipe';
import { mapPicked, momentsOf, perUnit, type Entries, type Entry } from './picked';
import type { StepLayer } from './times';

/** A layer’s rest value of a channel. */
export type RestOf = (channel: ChannelId) => number;

/** Free handles of a segment between two picked keys grow with their values, so that its shape stays. */
function scaledEase(ease: Easing, factor: number): Easing {
  if (ease.type !== 'handles') return ease;
  const { leave, arrive } = ease;
  return {
    type: 'handles',
    leave: { ...leave, value: leave.value * factor },
    arrive: { ...arrive, value: arrive.value * factor },
  };
}

/** about + (v − about) · factor, with the handles of segments between picked keys. */
function scaledAbout(entries: Entries, factor: number, aboutOf: (channel: ChannelId) => number): Entries {
  return new Map(
    [...entries].map(([channel, list]) => {
      const about = aboutOf(channel);
      const changed = list.map((entry, i): Entry => {
        if (!entry.isPicked) return entry;
        const { key } = entry;
        const ease = list[i + 1]?.isPicked ? scaledEase(key.ease, factor) : key.ease;
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

/** Places at which the speed of a segment is looked at, and then once more about the fastest of them. */
const SPEED_LOOKS = 64;

/** The greatest speed of a segment for one unit of way, as a multiple of its mean speed; 1 for an even one. */
function steepness({ ease, value }: NamedKey, to: number): number {
  const plain = asBezier(ease, value, to) ?? ease;
  if (plain.type === 'hold' || plain.type === 'steps' || plain.type === 'handles') return Infinity;
  const { slope } = createSegment(plain, 0, 1);
  const steepest = (from: number, step: number): { at: number; slope: number } => {
    let best = { at: from, slope: 0 };
    for (let i = 0; i <= SPEED_LOOKS; i++) {
      const at = Math.min(1, Math.max(0, from + i * step));
      if (Math.abs(slope(at)) > best.slope) best = { at, slope: Math.abs(slope(at)) };
    }
    return best;
  };
  const step = 1 / SPEED_LOOKS;
  return steepest(steepest(0, step).at - step, (2 * step) / SPEED_LOOKS).slope;
}

/**
 * Values drawn nearer to the one before, so that no segment up to a picked key goes faster than so much a second at its
 * steepest; what comes after catches up where it has the time. Jumps are left alone.
 */
export function limitSpeed(entries: Entries, layer: StepLayer): Entries {
  const most = Math.max(0, layer.number('most'));
  // Runs give one easing to hundreds of keys; only free handles depend on the values.
  const known = new Map<Easing, number>();
  const steepnessOf = (key: NamedKey, to: number): number => {
    const before = key.ease.type === 'handles' ? undefined : known.get(key.ease);
    if (before !== undefined) return before;
    const steep = steepness(key, to);
    known.set(key.ease, steep);
    return steep;
  };
  return new Map(
    [...entries].map(([channel, list]) => {
      const slowed: Entry[] = [];
      list.forEach((entry, i) => {
        const [before, last] = [list[i - 1], slowed.at(-1)];
        if (!before || !last || !entry.isPicked) return void slowed.push(entry);
        const steep = steepnessOf(before.key, entry.key.value);
        if (steep === Infinity) return void slowed.push(entry);
        const seconds = (entry.key.at - before.key.at) / TICKS_PER_SECOND;
        const room = (most / perUnit(channel)) * (seconds / steep);
        const way = entry.key.value - last.key.value;
        const value = last.key.value + Math.sign(way) * Math.min(Math.abs(way), room);
        slowed.push({ ...entry, key: { ...entry.key, value } });
      });
      return [channel, slowed];
    }),
  );
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
