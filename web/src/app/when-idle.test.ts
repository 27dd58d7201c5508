import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { whenIdle } from './when-idle';

beforeEach(() => void jest.useFakeTimers());
afterEach(() => {
  jest.useRealTimers();
  for (const name of ['requestIdleCallback', 'cancelIdleCallback'])
    delete (globalThis as Record<string, unknown>)[name];
});

describe('work for when the page is idle', () => {
  test('is asked for with as much patience as there is, and taken back', () => {
    const asked: unknown[] = [];
    const back: unknown[] = [];
    Object.assign(globalThis, {
      requestIdleCallback: (_work: unknown, options: unknown) => asked.push(options),
      cancelIdleCallback: (request: unknown) => back.push(request),
    });
    whenIdle(() => undefined, 150)();
    whenIdle(() => undefined);
    expect(asked).toEqual([{ timeout: 150 }, undefined]);
    expect(back).toEqual([1]);
  });

  test('is done in the next turn where the browser does not tell, unless it is taken back', () => {
    const left: number[] = [];
    whenIdle(({ timeRemaining }) => left.push(timeRemaining()));
    whenIdle(() => left.push(99))();
    expect(left).toEqual([]);
    jest.runAllTimers();
    expect(left).toEqual([0]);
  });
});
