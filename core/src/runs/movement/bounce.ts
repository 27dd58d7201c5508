import { arrivalSpeed, bounceFlights, fallTime, flightsEnd, type Flight } from '../../basics/motion';
import type { ChannelId } from '../../basics/channel';
import type { Easing } from '../../basics/easing';
import { acrossChannel, type MovementOf } from '../../formulas/preset';
import { ticksFromSeconds, type Ticks } from '../../basics/time';
import { createCourse, fitTogether, type Moving } from './fit';
import { ascending, type MovementKey, type MovementLayer, type MovementTrack } from './keys';

/** A parabola from its top: progress u², as a cubic Bézier. */
const FALL: Easing = { type: 'bezier', x1: 1 / 3, y1: 0, x2: 2 / 3, y2: 1 / 3 };
/** A parabola to its top: progress 1 − (1 − u)². */
const RISE: Easing = { type: 'bezier', x1: 1 / 3, y1: 2 / 3, x2: 2 / 3, y2: 1 };
const LINEAR: Easing = { type: 'linear' };

/** How far keys of a squash may be off, so that width × height keeps within half a hundredth. */
const AREA_ERROR = 0.002;
/** Nothing is squashed to nothing. */
const FLATTEST = 0.05;

/** How a layer bounces: when it first touches the floor, in seconds, and its flights from then. */
export interface BounceCourse {
  readonly fall: number;
  readonly height: number;
  readonly flights: readonly Flight[];
  /** Seconds after the last contact until it is no longer squashed. */
  readonly still: number;
}

/** The course of a bounce by its numbers; no flights where its law has trouble. */
export function bounceCourse({ by }: MovementOf<'bounce'>, number: MovementLayer['number']): BounceCourse {
  const law = { gravity: number('gravity'), restitution: number('restitution') };
  const still = number('squash') === 0 ? 0 : Math.max(0, number('contact')) / 2;
  if (by === 'speed') return { fall: 0, height: 0, flights: bounceFlights(law, number('speed')), still };
  const height = number('height');
  const arrival = arrivalSpeed(Math.abs(height), law.gravity);
  const fall = law.gravity > 0 ? fallTime(Math.abs(height), law.gravity) : 0;
  return { fall, height, flights: bounceFlights(law, arrival * law.restitution), still };
}

/** Seconds until the last contact. */
function landed({ fall, flights }: BounceCourse): number {
  return fall + flightsEnd(flights);
}

/** Seconds that a course lasts. */
export function courseEnd(course: BounceCourse): number {
  return landed(course) + course.still;
}

/** On screen y grows downwards, so that above is less; on other channels away is more. */
function awayFrom(channel: ChannelId): 1 | -1 {
  return channel.endsWith('.y') ? -1 : 1;
}

type At = (seconds: number) => Ticks;

function flightKeys(movement: MovementOf<'bounce'>, layer: MovementLayer, course: BounceCourse, at: At): MovementKey[] {
  const { id, by, channel } = movement;
  const floor = layer.rest(channel);
  const number = by === 'height' ? course.height : layer.number('speed');
  const away = awayFrom(channel) * (number < 0 ? -1 : 1);
  const drop: MovementKey[] =
    course.fall > 0
      ? [{ after: at(0), value: floor + away * Math.abs(course.height), ease: FALL, slot: `${id}/drop` }]
      : [];
  const hops = course.flights.flatMap(({ from, length, height }, n): MovementKey[] => [
    { after: at(course.fall + from), value: floor, ease: RISE, slot: `${id}/floor-${n}` },
    { after: at(course.fall + from + length / 2), value: floor + away * height, ease: FALL, slot: `${id}/top-${n}` },
  ]);
  return ascending([...drop, ...hops, { after: at(landed(course)), value: floor, ease: LINEAR, slot: `${id}/still` }]);
}

/** Contacts with the floor, in seconds, and how hard each is as a share of the first. */
function contactsOf(
  { fall, flights }: BounceCourse,
  restitution: number,
): { at: number; share: number; room: number }[] {
  const lengths = [fall * 2, ...flights.map(({ length }) => length)];
  const times = [fall, ...flights.map(({ from, length }) => fall + from + length)];
  return times
    .map((at, n) => ({ at, share: restitution ** n, room: Math.min(lengths[n], lengths[n + 1] ?? Infinity) / 2 }))
    .filter(({ room }, n) => n > 0 || room > 0 || fall > 0);
}

/** Keys of both axes at each contact: height times width stays what it is at rest. */
function squashTracks(
  movement: MovementOf<'bounce'>,
  layer: MovementLayer,
  course: BounceCourse,
  at: At,
): MovementTrack[] {
  const squash = layer.number('squash');
  const [wide, high] = [layer.rest('scale.x'), layer.rest('scale.y')];
  const tracks = contactsOf(course, layer.number('restitution')).map(
    ({ at: when, share, room }, n): MovementTrack[] => {
      const reach = Math.min(course.still, room);
      const stops = [at(when - reach), at(when), at(when + reach)];
      // A contact for which there is no frame on either side is not to be seen.
      if (stops[0] >= stops[1] || stops[1] >= stops[2]) return [];
      const flat = (time: number): number => {
        const [side, middle] = [time < stops[1] ? stops[0] : stops[2], stops[1]];
        const u = side === middle ? 0 : Math.min(1, Math.abs((time - middle) / (side - middle)));
        return Math.max(FLATTEST, 1 - squash * share * (1 - u * u * (3 - 2 * u)));
      };
      const courses = layer.shared([squash, share, ...stops], () => ({
        wider: createCourse((time) => 1 / flat(time)),
        flatter: createCourse(flat),
      }));
      const moving: readonly Moving[] = [
        { channel: 'scale.x', course: courses.wider, by: wide, rest: 0, tolerance: AREA_ERROR },
        { channel: 'scale.y', course: courses.flatter, by: high, rest: 0, tolerance: AREA_ERROR },
      ];
      return fitTogether(moving, { stops, snap: layer.snap, frame: layer.frame, slot: `${movement.id}/squash-${n}` });
    },
  );
  return (['scale.x', 'scale.y'] as const).map((channel, side) => ({
    channel,
    keys: ascending(tracks.flatMap((contact) => contact[side]?.keys ?? [])),
  }));
}

/** Exact keys of each flight, the way sideways, and what is squashed at the contacts. */
export function bounceTracks(movement: MovementOf<'bounce'>, layer: MovementLayer): MovementTrack[] {
  const course = bounceCourse(movement, layer.number);
  const at: At = (seconds) => layer.snap(layer.from + ticksFromSeconds(Math.max(0, seconds) * layer.factor));
  const across = acrossChannel(movement.channel);
  const travel = layer.number('travel');
  const tracks: MovementTrack[] = [{ channel: movement.channel, keys: flightKeys(movement, layer, course, at) }];
  if (across !== null && travel !== 0) {
    const rest = layer.rest(across);
    const keys = [
      { after: at(0), value: rest - travel, ease: LINEAR, slot: `${movement.id}/side` },
      { after: at(landed(course)), value: rest, ease: LINEAR, slot: `${movement.id}/still` },
    ];
    tracks.push({ channel: across, keys: ascending(keys) });
  }
  return layer.number('squash') === 0 ? tracks : [...tracks, ...squashTracks(movement, layer, course, at)];
}
