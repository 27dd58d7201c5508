import { expect, test } from '@jest/globals';
import { playedFrame, type PlayMode } from './player-frames';

function frames(mode: PlayMode, from = 2, count = 9): number[] {
  const stretch = { first: 2, last: 5 };
  return Array.from({ length: count }, (_, passed) => playedFrame(from, passed, stretch, mode).frame);
}

test('a loop begins again, once stops at the end, to and fro turns at both ends', () => {
  expect(frames('loop')).toEqual([2, 3, 4, 5, 2, 3, 4, 5, 2]);
  expect(frames('once')).toEqual([2, 3, 4, 5, 5, 5, 5, 5, 5]);
  expect(frames('to-and-fro')).toEqual([2, 3, 4, 5, 4, 3, 2, 3, 4]);
  expect(playedFrame(2, 4, { first: 2, last: 5 }, 'once').isOver).toBe(true);
});

test('playing from outside its stretch begins at the nearest end, and one frame alone stands', () => {
  expect(frames('loop', 9, 3)).toEqual([5, 2, 3]);
  expect(frames('loop', 0, 2)).toEqual([2, 3]);
  expect(playedFrame(0, 7, { first: 3, last: 3 }, 'to-and-fro')).toEqual({ frame: 3, isOver: false });
  expect(playedFrame(0, 7, { first: 3, last: 3 }, 'once').isOver).toBe(true);
});
