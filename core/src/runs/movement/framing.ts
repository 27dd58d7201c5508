import { createCoveringZoom, type Framing } from '../../basics/motion';
import { progressOf } from '../../basics/easing';
import { randomAt } from '../../basics/random';
import type { MovementOf } from '../../formulas/preset';
import { ticksFromSeconds, type Ticks } from '../../basics/time';
import { createCourse, fitTogether, type Course, type Moving } from './fit';
import type { MovementLayer, MovementTrack } from './keys';

/** How far keys may be off: shares of the picture, a sixth of a pixel of a picture 1000 px wide. */
const FRAMING_ERROR = 1 / 6000;

const MOST_KEPT = 100;
/** Ways of the places so far, by seed: each place follows from the one before it, and a run asks for one after the other. */
const sequences = new Map<string, number[]>();

function sequenceOf(ways: number, seed: number): number[] {
  const name = `${ways} ${seed}`;
  const known = sequences.get(name);
  if (known) return known;
  if (sequences.size >= MOST_KEPT) sequences.clear();
  const fresh = [Math.floor(randomAt(seed, 0) * ways)];
  sequences.set(name, fresh);
  return fresh;
}

/** Which of so many ways each place takes: by seed, no two neighbours the same where there is a choice. */
export function wayByTurns(ways: number, place: number, seed: number): number {
  if (ways <= 1) return 0;
  const sequence = sequenceOf(ways, seed);
  for (let i = sequence.length; i <= place; i++) {
    sequence.push((sequence[i - 1] + 1 + Math.floor(randomAt(seed, i) * (ways - 1))) % ways);
  }
  return sequence[place];
}

/** The framings that a picture goes through. */
function framingsFor(movement: MovementOf<'framing'>, layer: MovementLayer): Framing[] {
  const all = movement.parts.map((_, i): Framing => ({
    x: layer.number(`${i}.x`),
    y: layer.number(`${i}.y`),
    zoom: layer.number(`${i}.zoom`),
  }));
  if (movement.way === 'all') return all;
  // From each one to the next, and from the last to the first; of two there are the way there and the way back.
  const way = wayByTurns(all.length, layer.place, layer.number('seed'));
  return [all[way], all[(way + 1) % all.length]];
}

/** A way through framings from one time to another: when each is reached, and how it goes. */
interface FramingWay {
  readonly stops: readonly Ticks[];
  readonly x: Course;
  readonly y: Course;
  readonly zoom: Course;
}

/** Long ways take longer, and each framing is reached softly. */
function framingWay(framings: readonly Framing[], to: Ticks, { from, ease, snap }: MovementLayer): FramingWay {
  const ways = framings.slice(1).map((framing, i) => createCoveringZoom(framings[i], framing));
  const total = ways.reduce((sum, { length }) => sum + Math.max(length, 1e-6), 0);
  const stops: Ticks[] = [from];
  let done = 0;
  for (const { length } of ways) {
    done += Math.max(length, 1e-6);
    stops.push(snap(Math.round(from + ((to - from) * done) / total)));
  }
  const last = stops.length - 1;
  const progress = progressOf(ease);
  const at = (time: number): Framing => {
    let leg = 0;
    while (leg < last - 1 && time >= stops[leg + 1]) leg++;
    return ways[leg].at(progress(Math.min(1, Math.max(0, (time - stops[leg]) / (stops[leg + 1] - stops[leg])))));
  };
  const courseOf = (part: keyof Framing): Course => createCourse((time) => at(time)[part]);
  return { stops, x: courseOf('x'), y: courseOf('y'), zoom: courseOf('zoom') };
}

/** Keys of the crop that go from framing to framing. */
export function framingTracks(movement: MovementOf<'framing'>, layer: MovementLayer): MovementTrack[] {
  const { from, ease } = layer;
  const framings = framingsFor(movement, layer);
  const hold = ticksFromSeconds(Math.max(0, layer.number('hold')) * layer.factor);
  const to = Math.max(from + layer.frame, layer.to - hold);
  const alike = [from, to, ease, ...framings.flatMap(({ x, y, zoom }) => [x, y, zoom])];
  const way = layer.shared(alike, () => framingWay(framings, to, layer));
  if (way.stops.some((at, i) => i > 0 && at <= way.stops[i - 1])) return [];
  const moving = (['x', 'y', 'zoom'] as const).map((part): Moving => ({
    channel: `crop.${part}`,
    course: way[part],
    by: 1,
    rest: 0,
    tolerance: part === 'zoom' ? FRAMING_ERROR * 4 : FRAMING_ERROR,
  }));
  return fitTogether(moving, { stops: way.stops, snap: layer.snap, frame: layer.frame, slot: `${movement.id}/key` });
}
