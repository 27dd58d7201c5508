import { clampToChannel, type ChannelId } from '../../basics/channel';
import type { Point } from '../../basics/transform';
import { restValue, type Key, type Layer, type LayerSpan } from '../../scene/layer';
import type { MultiplyRecipe } from '../../scene/recipe';
import { between, type Draw } from './draw';

/** What changes on a copy from its beginning to its end: two values for each channel. */
export type Way = readonly (readonly [ChannelId, number, number])[];

/** The way of a copy through its channels. Size, turn and opacity go by those of the layer itself. */
export function wayOf(recipe: MultiplyRecipe, base: Layer, begin: Point, end: Point, copy: number, draw: Draw): Way {
  const { scale, turn, opacity } = recipe;
  const changed = (
    change: MultiplyRecipe['scale'],
    first: 'scale' | 'turn' | 'opacity',
    last: 'endScale' | 'endTurn' | 'endOpacity',
  ): [number, number] => {
    // What is not to change is drawn once: it begins as it ends.
    const isSame = change.begin[0] === change.end[0] && change.begin[1] === change.end[1];
    const from = between(change.begin, draw(copy, first));
    return [from, isSame ? from : between(change.end, draw(copy, last))];
  };
  const [sizes, turns, clear] = [
    changed(scale, 'scale', 'endScale'),
    changed(turn, 'turn', 'endTurn'),
    changed(opacity, 'opacity', 'endOpacity'),
  ];
  const times = (channel: ChannelId, [from, to]: [number, number]): [ChannelId, number, number] => {
    const own = restValue(base, channel);
    return [channel, clampToChannel(channel, own * from), clampToChannel(channel, own * to)];
  };
  const own = restValue(base, 'rotation');
  return [
    ['position.x', begin.x, end.x],
    ['position.y', begin.y, end.y],
    times('scale.x', sizes),
    times('scale.y', sizes),
    ['rotation', own + turns[0], own + turns[1]],
    times('opacity', clear),
  ];
}

/** Keys of a way over a life; a channel that does not change has none. */
export function keysOfWay(way: Way, span: LayerSpan, ease: MultiplyRecipe['ease'], run: string): [ChannelId, Key[]][] {
  return way.flatMap(([channel, from, to]): [ChannelId, Key[]][] => {
    if (from === to) return [];
    const key = (at: number, value: number, slot: string): Key => ({ at, value, ease, by: { run, slot } });
    return [[channel, [key(span.in, from, 'way/begin'), key(span.out, to, 'way/end')]]];
  });
}

/** Where a copy rests: what it is at its end, but for what of it is only there at the beginning. */
export function restOfWay(way: Way, base: Layer): [ChannelId, number][] {
  return way.flatMap(([channel, , to]): [ChannelId, number][] =>
    to === restValue(base, channel) ? [] : [[channel, to]],
  );
}
