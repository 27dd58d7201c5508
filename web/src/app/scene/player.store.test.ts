import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { frameTicks, TICKS_PER_SECOND } from '@wexikine/core';
import { PlayerStore } from './player.store';

const RATE = { num: 25, den: 1 };
const FRAME = frameTicks(RATE);

let now = 0;
let waiting: (() => void) | null = null;
const before = { ...globalThis };

/** A screen that shows its next frame after some milliseconds. */
function showAfter(milliseconds: number): void {
  now += milliseconds;
  const draw = waiting;
  waiting = null;
  draw?.();
}

beforeEach(() => {
  now = 0;
  waiting = null;
  Object.assign(globalThis, {
    performance: { now: () => now },
    requestAnimationFrame: (draw: () => void) => ((waiting = draw), 1),
    cancelAnimationFrame: () => (waiting = null),
  });
});
afterEach(() => void Object.assign(globalThis, { performance: before.performance }));

function player(seconds = 10): PlayerStore {
  const store = new PlayerStore();
  store.setStage({ rate: RATE, length: seconds * TICKS_PER_SECOND });
  return store;
}
const frameOf = (store: PlayerStore): number => store.time / FRAME;

describe('playing', () => {
  test('frames that come too late are left out, and time never shifts', () => {
    const store = player();
    store.play();
    // 7 to 130 ms from one drawing to the next: what is shown goes by the clock alone.
    for (const wait of [7, 16, 130, 40, 41, 8, 90, 333]) {
      showAfter(wait);
      expect(frameOf(store)).toBe(Math.floor((now / 1_000) * 25));
    }
    showAfter(5_000 - now);
    expect(frameOf(store)).toBe(125);
  });

  test('slower playing is as exact, and what is set meanwhile begins where the playhead is', () => {
    const store = player();
    store.setWay({ pace: 0.25 });
    store.play();
    showAfter(1_999);
    expect(frameOf(store)).toBe(12);
    store.setWay({ pace: 1 });
    showAfter(400);
    expect(frameOf(store)).toBe(22);
  });

  test('a stretch is played again and again, once stops on its last frame', () => {
    const store = player();
    store.setWay({ range: { from: 10 * FRAME, to: 14 * FRAME } });
    store.play();
    expect(frameOf(store)).toBe(10);
    const seen = Array.from({ length: 7 }, () => (showAfter(40), frameOf(store)));
    expect(seen).toEqual([11, 12, 13, 14, 10, 11, 12]);
    store.setWay({ mode: 'once' });
    showAfter(4_000);
    expect([frameOf(store), waiting]).toEqual([14, null]);
  });

  test('the playhead stands on whole frames of the scene, also when that becomes shorter', () => {
    const store = player(2);
    store.go(1.3 * FRAME);
    expect(frameOf(store)).toBe(1);
    store.go(Infinity);
    expect(frameOf(store)).toBe(49);
    store.step(-50);
    expect(frameOf(store)).toBe(0);
    store.go(40 * FRAME);
    store.setStage({ rate: RATE, length: TICKS_PER_SECOND });
    expect(frameOf(store)).toBe(24);
  });

  test('an end of the stretch is set at the playhead, and pushes the other one before it', () => {
    const store = player();
    const ranges: unknown[] = [];
    store.way$.subscribe(({ range }) => ranges.push(range && [range.from / FRAME, range.to / FRAME]));
    store.go(50 * FRAME);
    store.setEnd('from');
    store.go(20 * FRAME);
    store.setEnd('to');
    expect(ranges).toEqual([null, [50, 250], [20, 20]]);
  });
});
