import { progressOf } from '../../basics/easing';
import { evenPathOf, READY_FOR, type EvenPath } from '../../basics/motion';
import type { MovementOf } from '../../formulas/preset';
import type { ChannelId } from '../../basics/channel';
import type { Ticks } from '../../basics/time';
import { createCourse, fitTogether, type Moving } from './fit';
import type { MovementLayer, MovementTrack } from './keys';

/** A line that begins beyond the frame does so by this much more than it must. */
const BEYOND = 1.02;
const PATH_ERROR = 0.1;
const TURN_ERROR = 0.2;

/** How often a line must be enlarged until a layer at one of its ends is just beyond the frame; 1 where it never is. */
function beyondFrame(layer: MovementLayer, x: number, y: number): number {
  const { name } = layer;
  const ways = [
    x < 0 ? name('layer.right') / -x : Infinity,
    x > 0 ? (name('frame.width') - name('layer.left')) / x : Infinity,
    y < 0 ? name('layer.bottom') / -y : Infinity,
    y > 0 ? (name('frame.height') - name('layer.top')) / y : Infinity,
  ].filter((way) => Number.isFinite(way) && way > 0);
  return ways.length > 0 ? Math.min(...ways) * BEYOND : 1;
}

/** How much larger than drawn a line is for a layer. */
function scaleFor({ fit }: MovementOf<'path'>, path: EvenPath, layer: MovementLayer): number {
  const size = layer.number('size');
  if (fit === 'round') return (layer.name('frame.width') / READY_FOR) * size;
  const out = new Float64Array(3);
  path.write(fit === 'in' ? 0 : path.length, out, 0);
  return beyondFrame(layer, out[0], out[1]) * size;
}

/** Times at which the line turns sharply, where its easing never goes back; the beginning and the end with them. */
function stopsOf(path: EvenPath, [begin, end]: readonly [number, number], layer: MovementLayer): Ticks[] {
  const { from, to, ease } = layer;
  const progress = progressOf(ease);
  const inside = path.corners
    .map((distance) => (distance / path.length - begin) / (end - begin))
    .filter((u) => u > 0 && u < 1);
  const times = inside.map((wanted): Ticks => {
    let [low, high] = [0, 1];
    for (let round = 0; round < 50; round++) {
      const middle = (low + high) / 2;
      if (progress(middle) < wanted) low = middle;
      else high = middle;
    }
    return layer.snap(Math.round(from + (to - from) * high));
  });
  return [...new Set([from, ...times.filter((at) => at > from && at < to), to])].sort((a, b) => a - b);
}

/** Keys of the position, and of the rotation where it turns along, that go along a line at even speed. */
export function pathTracks(movement: MovementOf<'path'>, layer: MovementLayer): MovementTrack[] {
  const path = evenPathOf(movement.d);
  if (!path) return [];
  const scale = scaleFor(movement, path, layer);
  const [begin, end] = [layer.number('begin'), layer.number('end')];
  const progress = progressOf(layer.ease);
  const { from, to } = layer;
  const { courses, stops } = layer.shared([begin, end, from, to, layer.ease], () => {
    const out = new Float64Array(3);
    const goTo = (time: number): Float64Array => {
      const share = begin + (end - begin) * progress(Math.min(1, Math.max(0, (time - from) / (to - from))));
      path.write(share * path.length, out, 0);
      return out;
    };
    return {
      courses: [0, 1, 2].map((part) => createCourse((time) => goTo(time)[part])),
      stops: stopsOf(path, [begin, end], layer),
    };
  });
  const along = (channel: ChannelId, part: number, by: number, tolerance: number): Moving => ({
    channel,
    course: courses[part],
    by,
    rest: layer.rest(channel),
    tolerance,
  });
  const moving = [along('position.x', 0, scale, PATH_ERROR), along('position.y', 1, scale, PATH_ERROR)];
  if (movement.turns) moving.push(along('rotation', 2, 1, TURN_ERROR));
  return fitTogether(moving, { stops, snap: layer.snap, frame: layer.frame, slot: `${movement.id}/key` });
}
