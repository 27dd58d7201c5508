import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { Rehearsal } from './rehearsal';

describe('doing the same again while nobody waits', () => {
  let idle: (() => void)[] = [];
  let done = 0;
  const again = (): void => void done++;
  const rest = (): void => {
    jest.advanceTimersByTime(1_000);
    for (const work of idle.splice(0)) work();
  };

  beforeEach(() => {
    jest.useFakeTimers();
    [idle, done] = [[], 0];
  });
  afterEach(() => void jest.useRealTimers());

  test('happens after a rest and when the page is idle, a few times at most', () => {
    const rehearsal = new Rehearsal((work) => void idle.push(work));
    rehearsal.soon(again);
    expect(idle).toEqual([]);
    jest.advanceTimersByTime(1_000);
    expect(done).toBe(0);
    rest();
    expect(done).toBe(1);
    for (let i = 0; i < 20; i++) {
      rehearsal.soon(again);
      rest();
    }
    expect(done).toBe(6);
  });

  test('is left out where something else comes first, before the rest is over and after', () => {
    const rehearsal = new Rehearsal((work) => void idle.push(work));
    rehearsal.soon(again);
    rehearsal.stop();
    rest();
    rehearsal.soon(again);
    jest.advanceTimersByTime(1_000);
    rehearsal.stop();
    rest();
    expect(done).toBe(0);
  });

  test('asked for twice, it happens once', () => {
    const rehearsal = new Rehearsal((work) => void idle.push(work));
    rehearsal.soon(again);
    jest.advanceTimersByTime(1_000);
    rehearsal.soon(again);
    rest();
    rest();
    expect(done).toBe(1);
  });
});
