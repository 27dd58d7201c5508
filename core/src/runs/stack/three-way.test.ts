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

const spans = ([from, to]: readonly [number, number]): LayerMade => layerMade('a', { span: { in: from, out: to } });

test.each([
  ['both plans are alike', [2, 10], [0, 10], [0, 10], [2, 10]],
  ['begins later', [2, 10], [0, 10], [5, 10], [7, 10]],
  ['ends sooner', [2, 10], [0, 10], [0, 8], [2, 8]],
  ['would last no longer than nothing', [2, 10], [0, 10], [5, 7], [5, 7]],
  ['would end before it begins', [4, 10], [0, 10], [5, 7], [5, 7]],
] as const)('a span that %s', (_what, was, then, now, wanted) => {
  expect(threeWay(spans(was), spans(then), spans(now)).span).toEqual({ in: wanted[0], out: wanted[1] });
});

test('a span that only one of the plans has is that of now', () => {
  expect(threeWay(spans([2, 10]), made(), spans([5, 7])).span).toEqual({ in: 5, out: 7 });
  expect(threeWay(spans([2, 10]), spans([0, 10]), made()).span).toBeNull();
});

test('a rest value is taken as far as the plans differ; one that is planned only now, as it is', () => {
  const rests = (...rest: LayerMade['rest']): LayerMade => layerMade('a', { rest });
  const found = threeWay(rests(['opacity', 0.5]), rests(['opacity', 0.25]), rests(['opacity', 0.5], ['corner', 8]));
  expect(found.rest).toEqual([
    ['opacity', 0.75],
    ['corner', 8],
  ]);
});
