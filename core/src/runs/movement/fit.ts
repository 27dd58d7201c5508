import type { ChannelId } from '../../basics/channel';
import type { Ticks } from '../../basics/time';
import type { MovementKey, MovementTrack } from './keys';

/** A cubic segment of a course, with how far it is off at worst. */
interface Stretch {
  readonly to: Ticks;
  readonly start: number;
  readonly end: number;
  readonly leave: number;
  readonly arrive: number;
  readonly miss: number;
}

/** How a value goes, before it is laid over a layer: many layers share one, of which every stretch is worked out once. */
export interface Course {
  readonly at: (time: number) => number;
  readonly stretch: (from: Ticks, to: Ticks) => Stretch;
}

/** A value that moves on one channel: a course, how many times as far, and where from; and how far keys may be off. */
export interface Moving {
  readonly channel: ChannelId;
  readonly course: Course;
  readonly by: number;
  readonly rest: number;
  readonly tolerance: number;
}

/** Where keys must stand, where they may, and how they are called. */
export interface FitFrame {
  /** Ascending, at least two: the beginning, times at which the course may change at once, the end. */
  readonly stops: readonly Ticks[];
  readonly snap: (at: Ticks) => Ticks;
  /** Length of a frame of the scene. */
  readonly frame: Ticks;
  /** Begins the slots of all keys. */
  readonly slot: string;
}

/** Halvings of the time between two stops: more would be below a frame of any scene. */
const DEPTH = 12;
/** No half is shorter than this share of a frame: what goes faster is not even seen through a shutter. */
const SHORTEST = 1 / 8;
/** Tolerances below this, in units of the channel, cannot be told from rounding. */
const FINEST = 1e-6;
/** Speeds are taken over this share of a segment, on its inner side, so that a turn at its end does not count. */
const INSET = 1e-4;
const LOOKS = [1 / 8, 1 / 4, 3 / 8, 1 / 2, 5 / 8, 3 / 4, 7 / 8];

function handles(leave: number, arrive: number): MovementKey['ease'] {
  return { type: 'handles', leave: { time: 1 / 3, value: leave }, arrive: { time: 1 / 3, value: arrive } };
}

/** One cubic segment with the right values and speeds at both ends (Hermite form written as free handles). */
function stretchOf(at: Course['at'], from: Ticks, to: Ticks): Stretch {
  const inset = (to - from) * INSET;
  const [start, end] = [at(from + inset * INSET), at(to - inset * INSET)];
  const third = 1 / (3 * INSET);
  const leave = (at(from + inset) - start) * third;
  const arrive = -(end - at(to - inset)) * third;
  let miss = 0;
  for (const share of LOOKS) {
    // With handles of a third of the time, a share of the time is the curve's own parameter.
    const rest = 1 - share;
    const early = rest * rest * (rest * start + 3 * share * (start + leave));
    const late = share * share * (3 * rest * (end + arrive) + share * end);
    miss = Math.max(miss, Math.abs(early + late - at(from + (to - from) * share)));
  }
  return { to, start, end, leave, arrive, miss };
}

/** A course of a value by the time in ticks. */
export function createCourse(at: Course['at']): Course {
  // Of one beginning there are a few halvings, and those that were asked for last are asked for again.
  const known = new Map<Ticks, Stretch[]>();
  return {
    at,
    stretch: (from, to) => {
      const fromHere = known.get(from);
      if (!fromHere) {
        const first = stretchOf(at, from, to);
        known.set(from, [first]);
        return first;
      }
      for (let i = fromHere.length - 1; i >= 0; i--) if (fromHere[i].to === to) return fromHere[i];
      const made = stretchOf(at, from, to);
      fromHere.push(made);
      return made;
    },
  };
}

/** Whether one segment is close enough. Hardly any is exact: where it should be as good as that, no half is shorter than a frame. */
function isClose({ course, by, tolerance }: Moving, from: Ticks, to: Ticks, frame: Ticks): boolean {
  const isShort = tolerance < FINEST && to - from < 2 * frame;
  return isShort || course.stretch(from, to).miss * Math.abs(by) <= tolerance;
}

/** Times at which keys stand, with which half of which half they begin: all values get keys at the same times. */
function halved(all: readonly Moving[], from: Ticks, to: Ticks, where: FitFrame, half = ''): [Ticks, string][] {
  const middle = where.snap(Math.round((from + to) / 2));
  const isDone = half.length >= DEPTH || middle <= from || middle >= to || to - from < where.frame * SHORTEST * 2;
  if (isDone || all.every((moving) => isClose(moving, from, to, where.frame))) return [[from, half]];
  return [...halved(all, from, middle, where, `${half}0`), ...halved(all, middle, to, where, `${half}1`)];
}

/**
 * Keys that follow moving values within their tolerances, on all of them at the same times. A value may jump at a stop:
 * then it arrives as far as it came a moment before. Slots say which half of which stretch a key begins.
 */
export function fitTogether(all: readonly Moving[], where: FitFrame): MovementTrack[] {
  const { stops, slot, frame } = where;
  const marks = stops
    .slice(1)
    .flatMap((to, i) =>
      to > stops[i] ? halved(all, stops[i], to, where).map(([at, half]) => [at, `${slot}-${i}.${half}`] as const) : [],
    );
  const end = stops[stops.length - 1];
  return all.map(({ channel, course, by, rest, tolerance }): MovementTrack => {
    const valueOf = (way: number): number => rest + way * by;
    const keys: MovementKey[] = [];
    marks.forEach(([from, name], i) => {
      const to = marks[i + 1]?.[0] ?? end;
      const here = course.stretch(from, to);
      const next = marks[i + 1] ? course.stretch(to, marks[i + 2]?.[0] ?? end).start : here.end;
      const isJump = Math.abs((next - here.end) * by) > tolerance && to - frame > from;
      keys.push({
        after: from,
        value: valueOf(here.start),
        ease: handles(here.leave * by, here.arrive * by),
        slot: name,
      });
      if (isJump)
        keys.push({ after: to - frame, value: valueOf(here.end), ease: { type: 'linear' }, slot: `${name}-jump` });
    });
    const last: MovementKey = {
      after: end,
      value: valueOf(course.at(end)),
      ease: { type: 'linear' },
      slot: `${slot}-end`,
    };
    return { channel, keys: [...keys, last] };
  });
}
