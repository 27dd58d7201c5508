import { expect, test } from '@jest/globals';
import { curvesOf } from '.';
import { card, key } from '../../testing/scenes';

test('a layer is linked to each curve revision that any of its keys has, once', () => {
  const linked = (id: string, revision: number) =>
    ({ type: 'bezier', x1: 0, y1: 0, x2: 1, y2: 1, curve: { id, revision, name: id } }) as const;
  const layer = card('a', {
    tracks: {
      opacity: [key(0, 0, linked('snap', 1)), key(9, 1, linked('snap', 2))],
      rotation: [key(0, 0, linked('snap', 1)), key(9, 1), key(12, 1, linked('soft', 1))],
    },
  });
  expect(curvesOf(layer)).toEqual([
    { id: 'snap', revision: 1 },
    { id: 'snap', revision: 2 },
    { id: 'soft', revision: 1 },
  ]);
  expect(curvesOf(card('b'))).toEqual([]);
});
