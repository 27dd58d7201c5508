import { HOLD } from '../../basics/easing';
import { frameTicks, ticksFromSeconds, type Ticks } from '../../basics/time';
import type { ChannelId } from '../../basics/channel';
import type { NamedKey } from '../run';
import { bakeInFewer, createTrackSampler, cutSegment, toleranceFor } from '../../scene/sample';
import { momentsOf, type Entries, type Entry } from './picked';
import type { StepLayer } from './times';

/** Keys that a step writes anew belong to its run. */
export type MarkNew = (channel: ChannelId, at: Ticks, nth: string) => NonNullable<NamedKey['by']>;

function plainKey({ at, value, ease }: NamedKey): NamedKey {
  return { at, value, ease };
}

/** A channel with its pose at a time held for so long; all that follows moves later, and what is cut moves as before. */
function heldAt(list: readonly Entry[], channel: ChannelId, at: Ticks, length: Ticks, mark: MarkNew): Entry[] {
  const later = (entry: Entry): Entry => ({ ...entry, key: { ...entry.key, at: entry.key.at + length } });
  const next = list.findIndex(({ key }) => key.at > at);
  if (next < 0) {
    // Nothing follows: the last key holds by itself.
    return [...list];
  }
  const before = list[next - 1];
  const after = list.slice(next).map(later);
  if (!before) return after;
  const head = list.slice(0, next - 1);
  if (before.key.at === at) {
    const again: Entry = {
      isPicked: before.isPicked,
      key: { ...plainKey(before.key), at: at + length, by: mark(channel, at, 'held') },
    };
    return [...head, { ...before, key: { ...before.key, ease: HOLD } }, again, ...after];
  }
  const cut = cutSegment(before.key, list[next].key, at);
  const [first, ...rest] = cut.before;
  const [start, ...others] = cut.after;
  const own = (key: NamedKey, nth: string, moved: Ticks): Entry => ({
    isPicked: false,
    key: { ...plainKey(key), at: key.at + moved, by: mark(channel, key.at, nth) },
  });
  return [
    ...head,
    { ...before, key: { ...before.key, ease: first.ease } },
    ...rest.map((key, i) => own(key, `cut-${i}`, 0)),
    own({ at, value: cut.value, ease: HOLD }, 'pose', 0),
    own(start, 'held', length),
    ...others.map((key, i) => own(key, `on-${i}`, length)),
    ...after,
  ];
}

/** The pose at each picked moment stands for so long; everything that follows on the layer moves later. */
export function hold(entries: Entries, layer: StepLayer, mark: MarkNew): Entries {
  const length = ticksFromSeconds(Math.max(0, layer.number('for')));
  if (length === 0) return entries;
  let held = entries;
  momentsOf(entries).forEach((at, i) => {
    const moved = at + i * length;
    held = new Map([...held].map(([channel, list]) => [channel, heldAt(list, channel, moved, length, mark)]));
  });
  return held;
}

/** As few keys as stay within a tolerance between the first and the last picked key of each channel. */
export function thinOut(entries: Entries, layer: StepLayer, mark: MarkNew): Entries {
  const within = Math.max(0, layer.number('within'));
  const step = frameTicks(layer.rate);
  return new Map(
    [...entries].map(([channel, list]): [ChannelId, readonly Entry[]] => {
      const places = list.flatMap(({ isPicked }, i) => (isPicked ? [i] : []));
      const [from, to] = [places[0], places[places.length - 1]];
      if (places.length < 3) return [channel, list];
      const keys = list.map(({ key }) => key);
      const stretch = keys.slice(from, to + 1);
      const bake = {
        value: createTrackSampler(keys),
        from: stretch[0].at,
        to: stretch[stretch.length - 1].at,
        breaks: stretch
          .filter(({ ease }, i) => ease.type === 'hold' || stretch[i - 1]?.ease.type === 'hold')
          .map(({ at }) => at),
        step,
        tolerance: toleranceFor(channel, within),
      };
      const baked = bakeInFewer(bake, stretch.length);
      if (!baked) return [channel, list];
      const standing = new Map(list.map((entry) => [entry.key.at, entry]));
      const thinned = baked.keys.map(({ at, value, ease }, i): Entry => {
        const before = standing.get(at);
        const last = i === baked.keys.length - 1;
        if (before) return { ...before, key: { ...before.key, value, ease: last ? before.key.ease : ease } };
        return { isPicked: true, key: { at, value, ease, by: mark(channel, at, 'thin') } };
      });
      return [channel, [...list.slice(0, from), ...thinned, ...list.slice(to + 1)]];
    }),
  );
}
