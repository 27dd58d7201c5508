import { oscillate, oscillatorSettles } from '../../basics/motion';
import type { MovementOf } from '../../formulas/preset';
import { TICKS_PER_SECOND, ticksFromSeconds, type Ticks } from '../../basics/time';
import { createCourse, fitTogether } from './fit';
import type { MovementLayer, MovementTrack } from './keys';

/** A spring has settled when it stays within this share of what it was let go from. */
const SETTLED = 0.002;
/** How far keys may be off, as a share of what it was let go from. */
const SPRING_ERROR = 0.0005;
/** A spring that is hardly damped at all would never end. */
const LONGEST = 60;

/** Seconds until a spring has settled. */
export function springLasts(number: MovementLayer['number']): number {
  return Math.min(LONGEST, oscillatorSettles({ pace: number('pace'), damping: number('damping') }, SETTLED));
}

/** Half swings of a spring, or quarters of its length where it does not swing: stretches that bend one way or two. */
function stopsOf(layer: MovementLayer, lasts: number): Ticks[] {
  const [pace, damping] = [layer.number('pace'), layer.number('damping')];
  const half = damping < 1 ? 0.5 / (pace * Math.sqrt(1 - damping * damping)) : lasts / 4;
  const count = Math.min(400, Math.max(1, Math.floor(lasts / half)));
  const at = (seconds: number): Ticks => layer.snap(layer.from + ticksFromSeconds(seconds * layer.factor));
  return [...new Set([...Array.from({ length: count }, (_, i) => at(i * half)), at(lasts)])];
}

/** Keys of a spring that is let go away from rest, at a speed; it ends exactly at rest. */
export function springTracks(movement: MovementOf<'spring'>, layer: MovementLayer): MovementTrack[] {
  const { channel, id } = movement;
  const rest = layer.rest(channel);
  const law = { pace: layer.number('pace'), damping: layer.number('damping') };
  const [offset, speed] = [layer.number('start') - rest, layer.number('speed')];
  const stops = stopsOf(layer, springLasts(layer.number));
  if (stops.length < 2) return [];
  const end = stops[stops.length - 1];
  const reach = Math.abs(offset) + Math.abs(speed) / (2 * Math.PI * law.pace);
  const stretch = TICKS_PER_SECOND * Math.max(layer.factor, 1e-9);
  const alike = [offset, speed, law.pace, law.damping, layer.from, layer.factor, end];
  const course = layer.shared(alike, () =>
    createCourse((at) => (at >= end ? 0 : oscillate(offset, speed, law, (at - layer.from) / stretch)[0])),
  );
  const moving = { channel, course, by: 1, rest, tolerance: Math.max(1e-9, reach * SPRING_ERROR) };
  return fitTogether([moving], { stops, snap: layer.snap, frame: layer.frame, slot: `${id}/key` }).map(({ keys }) => ({
    channel,
    keys: keys.filter(({ slot }) => !slot.endsWith('-jump')),
  }));
}
