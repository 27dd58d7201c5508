import '@angular/compiler';
import { beforeEach, describe, expect, jest, test } from '@jest/globals';
import { TrailPictures } from './trail-pictures.service';

/** Idle times of the page, given one after the other by `idle`. */
let asked: ((deadline: IdleDeadline) => void)[] = [];

function idle(milliseconds: number): void {
  let left = milliseconds;
  const timeRemaining = (): number => Math.max(0, (left -= 5));
  for (const run of asked.splice(0)) run({ didTimeout: false, timeRemaining });
}

beforeEach(() => {
  asked = [];
  Object.assign(globalThis, { requestIdleCallback: (run: (typeof asked)[number]) => asked.push(run) });
});

describe('pictures that are made one after the other', () => {
  test('wait until the page is idle, and go on in its next idle time', () => {
    const pictures = new TrailPictures();
    const made: string[] = [];
    for (const name of ['a', 'b', 'c', 'd']) pictures.enqueue(() => made.push(name));
    expect([made, asked.length]).toEqual([[], 1]);
    idle(10);
    expect(made).toEqual(['a', 'b']);
    idle(0);
    expect(made).toEqual(['a', 'b', 'c']);
    idle(50);
    expect(made).toEqual(['a', 'b', 'c', 'd']);
    expect(asked).toHaveLength(0);
  });

  test('a press is heard in between, however long the page would be idle', () => {
    const pictures = new TrailPictures();
    const made: string[] = [];
    let now = 0;
    const clock = jest.spyOn(performance, 'now').mockImplementation(() => now);
    for (const name of ['a', 'b', 'c']) {
      pictures.enqueue(() => {
        made.push(name);
        now += 5;
      });
    }
    idle(1_000);
    expect(made).toEqual(['a', 'b']);
    idle(1_000);
    expect(made).toEqual(['a', 'b', 'c']);
    clock.mockRestore();
  });

  test('what is taken back is never made, and one that comes later is asked for anew', () => {
    const pictures = new TrailPictures();
    const [first, second] = [jest.fn(), jest.fn()];
    pictures.enqueue(first)();
    idle(50);
    expect(first).not.toHaveBeenCalled();
    expect(asked).toHaveLength(0);
    pictures.enqueue(second);
    idle(50);
    expect(second).toHaveBeenCalledTimes(1);
  });
});
