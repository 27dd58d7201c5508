import { expect, test } from '@jest/globals';
import { frameTicks } from '../../basics/time';
import type { LayerSpan } from '../../scene/layer';
import { card, key, PAL } from '../../testing/scenes';
import { copyOf } from './copies';

const FRAME = frameTicks(PAL);
const frames = (first: number, end: number): LayerSpan => ({ in: first * FRAME, out: end * FRAME });

const board = card('board', { kind: 'group', source: { type: 'none' }, span: frames(10, 30), locked: true });
const parts = [
  board,
  card('whole', { parent: 'board', span: frames(10, 30), hidden: true }),
  card('late', { parent: 'board', span: frames(20, 34), tracks: { opacity: [key(20, 0), key(24, 1)] } }),
  card('flash', { parent: 'board', span: frames(12, 15) }),
];
const source = { layer: board, parts, at: { x: 50, y: 60 } };

test('what is in a copied group lives in the copy as it did in the group: to its end, or less long', () => {
  const longer = copyOf('r', 0, source, frames(5, 45));
  expect(longer.map(({ span }) => span)).toEqual([frames(5, 45), frames(5, 45), frames(15, 45), frames(7, 10)]);
  // In a shorter life nothing ends before it did.
  const shorter = copyOf('r', 0, source, frames(40, 48));
  expect(shorter.map(({ span }) => span)).toEqual([frames(40, 48), frames(40, 60), frames(50, 64), frames(42, 45)]);
});

test('a copy is called by its number, rests where it is told, and its parts belong to it, with their keys', () => {
  const [top, whole, late] = copyOf('r', 2, source, frames(5, 45));
  expect(top).toMatchObject({ id: 'r-c3', name: 'board 3', parent: 'r-all', copy: { of: 'board' }, tags: ['copy'] });
  expect(top.rest).toMatchObject({ 'position.x': 50, 'position.y': 60 });
  expect([top.locked, whole.hidden]).toEqual([false, true]);
  expect(whole).toMatchObject({ id: 'r-c3-1', name: 'whole', parent: 'r-c3' });
  expect(late.tracks.opacity?.map(({ at, by }) => [at / FRAME, by])).toEqual([
    [15, undefined],
    [19, undefined],
  ]);
});
