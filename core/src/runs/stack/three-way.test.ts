import { expect, test } from '@jest/globals';
import { layerMade, type LayerMade } from '../../scene/scene';
import { key } from '../../testing/scenes';
import { threeWay } from './three-way';

const at = (slot: string, frame: number, value: number) => ({ ...key(frame, value), by: { run: 'r', slot } });

function made(...keys: ReturnType<typeof at>[]): LayerMade {
  return layerMade('a', { tracks: keys.length > 0 ? [['rotation', keys]] : [] });
}

function values({ tracks }: LayerMade): (readonly [string | undefined, number])[] {
  return tracks.flatMap(([, keys]) => keys.map(({ by, value }) => [by?.slot, value] as const));
}

test('only what differs between the plans is taken, key by key', () => {
  // What was made is 3 more than the plan says; the plan now says 10 more than it said then.
  const moved = threeWay(made(at('x', 0, 13)), made(at('x', 0, 10)), made(at('x', 0, 20)));
  expect(values(moved)).toEqual([['x', 23]]);
  const same = threeWay(made(at('x', 0, 10)), made(at('x', 0, 10)), made(at('x', 0, 20)));
  expect(values(same)).toEqual([['x', 20]]);
});

test('a key that the plan has only now comes, one that it no longer has goes', () => {
  expect(values(threeWay(made(at('x', 0, 1)), made(at('x', 0, 1)), made(at('x', 0, 1), at('y', 9, 2))))).toEqual([
    ['x', 1],
    ['y', 2],
  ]);
  expect(
    values(threeWay(made(at('x', 0, 1), at('y', 9, 2)), made(at('x', 0, 1), at('y', 9, 2)), made(at('x', 0, 1)))),
  ).toEqual([['x', 1]]);
});

test('a key that was planned then and now, and was not made, stays away', () => {
  const both = made(at('x', 0, 1), at('y', 9, 2));
  expect(values(threeWay(made(at('x', 0, 1)), both, both))).toEqual([['x', 1]]);
});
