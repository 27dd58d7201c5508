import type { ChannelId } from '../../basics/channel';
import type { MovementOf } from '../../formulas/preset';
import type { Ticks } from '../../basics/time';
import type { MovementKey, MovementLayer, MovementTrack } from './keys';

/** Keys of an outline that draws itself, from nothing to what is drawn of it at rest; a piece passes and is gone. */
export function drawTracks({ id, way }: MovementOf<'draw'>, layer: MovementLayer): MovementTrack[] {
  const { from, to, ease } = layer;
  const [start, end] = [layer.rest('stroke.start'), layer.rest('stroke.end')];
  const track = (
    channel: ChannelId,
    values: readonly [number, number],
    times: readonly [Ticks, Ticks] = [from, to],
  ) => ({
    channel,
    keys: values.map((value, i): MovementKey => ({
      after: times[i],
      value,
      ease: i === 0 ? ease : { type: 'linear' },
      slot: `${id}/${i === 0 ? 'from' : 'to'}`,
    })),
  });
  switch (way) {
    case 'beginning':
      return [track('stroke.end', [start, end])];
    case 'end':
      return [track('stroke.start', [end, start])];
    case 'middle': {
      const middle = (start + end) / 2;
      return [track('stroke.start', [middle, start]), track('stroke.end', [middle, end])];
    }
    case 'piece': {
      // Its tail follows its head by so much of the way as the piece is long.
      const piece = Math.max(0.001, layer.number('piece'));
      const frame = Math.min(layer.frame, to - from - 1);
      const inside = (at: Ticks): Ticks => Math.min(to - frame, Math.max(from + frame, layer.snap(Math.round(at))));
      return [
        track('stroke.start', [start, end], [inside(from + ((to - from) * piece) / (1 + piece)), to]),
        track('stroke.end', [start, end], [from, inside(from + (to - from) / (1 + piece))]),
      ];
    }
  }
}
