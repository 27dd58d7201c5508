import { expect, test } from '@jest/globals';
import { createCourse, fitTogether, type Course } from './fit';

const FRAME = 40;
const where = { stops: [0, 1000, 2000], snap: (at: number) => at, frame: FRAME, slot: 'm' };

function keysOf(at: Course['at'], tolerance = 0.01) {
  const [{ keys }] = fitTogether(
    [{ channel: 'position.x', course: createCourse(at), by: 1, rest: 5, tolerance }],
    where,
  );
  return keys;
}

test('a value that jumps at a stop stays where it was up to a frame before, and goes on from where it jumped to', () => {
  const keys = keysOf((time) => (time < 1000 ? 0 : 10));
  expect(keys.map(({ after, value }) => [after, value])).toEqual([
    [0, 5],
    [1000 - FRAME, 5],
    [1000, 15],
    [2000, 15],
  ]);
  // Neither side of the jump has any speed.
  for (const { ease } of keys) {
    if (ease.type === 'handles') expect(Math.abs(ease.leave.value) + Math.abs(ease.arrive.value)).toBe(0);
  }
});

test('a turn at a stop does not count for the speeds beside it', () => {
  const keys = keysOf((time) => Math.abs(time - 1000));
  expect(keys.map(({ after }) => after)).toEqual([0, 1000, 2000]);
  expect(keys.map(({ value }) => value)).toEqual([1005, 5, 1005].map((value) => expect.closeTo(value, 4)));
  const sides = keys.flatMap(({ ease }) => (ease.type === 'handles' ? [ease.leave.value, ease.arrive.value] : []));
  // Handles of a third of the time, of a line that goes a thousand in a thousand.
  const third = expect.closeTo(1000 / 3, 0);
  const back = expect.closeTo(-1000 / 3, 0);
  expect(sides).toEqual([back, third, third, back]);
});
