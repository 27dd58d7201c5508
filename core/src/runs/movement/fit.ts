import type { ChannelId } from '../../basics/channel';
import { createSegment } from '../../scene/sample';
import type { Ticks } from '../../basics/time';
import type { MovementKey, MovementTrack } from './keys';

/** A value that moves on one channel: at a time in ticks, and how far keys may be off. */
export interface Moving {
  readonly channel: ChannelId;
  readonly value: (at: number) => number;
  readonly tolerance: number;
}

/** Where keys must stand, where they may, and how they are called. */
export interface FitFrame {
  /** Ascending, at least two: the beginning, times at which the course may change at once, the end. */
  readonly stops: readonly Ticks[];
  readonly snap: (at: Ticks) => Ticks;
  /** Begins the slots of all keys. */
  readonly slot: string;
}

/** Halvings of the time between two stops: more would be below a frame of any scene. */
const DEPTH = 12;
/** Speeds are taken over this share of a segment, on its inner side, so that a turn at its end does not count. */
const INSET = 1e-4;
const LOOKS = [1 / 8, 1 / 4, 3 / 8, 1 / 2, 5 / 8, 3 / 4, 7 / 8];

/** One cubic segment with the right values and speeds at both ends (Hermite form written as free handles). */
function segmentOf(
  { value }: Moving,
  from: Ticks,
  to: Ticks,
): { start: number; end: number; ease: MovementKey['ease'] } {
  const inset = (to - from) * INSET;
  const [start, end] = [value(from + inset * INSET), value(to - inset * INSET)];
  const third = 1 / (3 * INSET);
  const leave = (value(from + inset) - start) * third;
  const arrive = -(end - value(to - inset)) * third;
  return {
    start,
    end,
    ease: { type: 'handles', leave: { time: 1 / 3, value: leave }, arrive: { time: 1 / 3, value: arrive } },
  };
}

function isClose(moving: Moving, from: Ticks, to: Ticks): boolean {
  const { start, end, ease } = segmentOf(moving, from, to);
  const { at } = createSegment(ease, start, end);
  return LOOKS.every((share) => Math.abs(at(share) - moving.value(from + (to - from) * share)) <= moving.tolerance);
}

/** Times at which keys stand, with which half of which half they begin: all values get keys at the same times. */
function halved(all: readonly Moving[], from: Ticks, to: Ticks, snap: FitFrame['snap'], half = ''): [Ticks, string][] {
  const middle = snap(Math.round((from + to) / 2));
  const isDone = half.length >= DEPTH || middle <= from || middle >= to;
  if (isDone || all.every((moving) => isClose(moving, from, to))) return [[from, half]];
  return [...halved(all, from, middle, snap, `${half}0`), ...halved(all, middle, to, snap, `${half}1`)];
}

/**
 * Keys that follow moving values within their tolerances, on all of them at the same times. A value may jump at a stop:
 * then it arrives as far as it came a moment before. Slots say which half of which stretch a key begins.
 */
export function fitTogether(all: readonly Moving[], { stops, snap, slot }: FitFrame, jump: Ticks): MovementTrack[] {
  const marks = stops
    .slice(1)
    .flatMap((to, i) =>
      to > stops[i] ? halved(all, stops[i], to, snap).map(([at, half]) => [at, `${slot}-${i}.${half}`] as const) : [],
    );
  const end = stops[stops.length - 1];
  return all.map((moving): MovementTrack => {
    const keys: MovementKey[] = [];
    marks.forEach(([from, name], i) => {
      const to = marks[i + 1]?.[0] ?? end;
      const here = segmentOf(moving, from, to);
      const next = marks[i + 1] ? segmentOf(moving, to, marks[i + 2]?.[0] ?? end).start : here.end;
      const isJump = Math.abs(next - here.end) > moving.tolerance && to - jump > from;
      keys.push({ after: from, value: here.start, ease: here.ease, slot: name });
      if (isJump) keys.push({ after: to - jump, value: here.end, ease: { type: 'linear' }, slot: `${name}-jump` });
    });
    return {
      channel: moving.channel,
      keys: [...keys, { after: end, value: moving.value(end), ease: { type: 'linear' }, slot: `${slot}-end` }],
    };
  });
}
