import { createSway } from '../../basics/motion';
import type { MovementOf } from '../../formulas/preset';
import { TICKS_PER_SECOND, type Ticks } from '../../basics/time';
import { createCourse, fitTogether } from './fit';
import type { MovementLayer, MovementTrack } from './keys';

const MOST_STOPS = 2_000;

/** Keys of a sway about rest, within its error. */
export function swayTracks(movement: MovementOf<'sway'>, layer: MovementLayer): MovementTrack[] {
  const { channel, id } = movement;
  const { from, to } = layer;
  const seconds = (to - from) / TICKS_PER_SECOND;
  const parts = movement.parts.map((_, i) => ({
    rate: Math.max(0, layer.number(`${i}.rate`)),
    amount: layer.number(`${i}.amount`),
    seed: layer.number('seed') + i * 7919,
  }));
  const fade = layer.number('fade');
  const alike = [from, to, fade, ...parts.flatMap(({ rate, amount, seed }) => [rate, amount, seed])];
  const course = layer.shared(alike, () => {
    const sway = createSway(parts, { lasts: seconds, isLoop: movement.isLoop, fade });
    return createCourse((at) => sway((at - from) / TICKS_PER_SECOND));
  });
  const amounts = parts.reduce((sum, { amount }) => sum + Math.abs(amount), 0);
  const fastest = Math.max(...parts.map(({ rate }) => rate));
  // A cell of noise bends twice at most; a sway of no rate stands.
  const wanted = Math.ceil(seconds * fastest * 2);
  const count = Math.min(MOST_STOPS, Math.max(1, wanted, layer.number('within') > 0 ? 1 : (to - from) / layer.frame));
  const stops = Array.from({ length: Math.floor(count) + 1 }, (_, i): Ticks =>
    i === Math.floor(count) ? to : layer.snap(Math.round(from + ((to - from) * i) / Math.floor(count))),
  );
  const moving = {
    channel,
    course,
    by: 1,
    rest: layer.rest(channel),
    tolerance: Math.max(0, layer.number('within')) * amounts,
  };
  return fitTogether([moving], {
    stops: [...new Set(stops)],
    snap: layer.snap,
    frame: layer.frame,
    slot: `${id}/key`,
  }).map((track) => ({
    ...track,
    keys: track.keys.filter(({ slot }) => !slot.endsWith('-jump')),
  }));
}
