import { describe, expect, test } from '@jest/globals';
import type { Steps } from '@wexikine/core';
import { PatientWork } from './patient-work';

/** Work whose steps take so many milliseconds each, on a clock of its own; pauses end when they are told to. */
function clocked(milliseconds: number) {
  let time = 0;
  let done = 0;
  const waiting: (() => void)[] = [];
  const work = new PatientWork(
    () => new Promise((resolve) => waiting.push(resolve)),
    () => time,
  );
  function* steps(count: number): Steps<string> {
    for (let i = 0; i < count; i++) {
      time += milliseconds;
      done++;
      yield;
    }
    return `${count} done`;
  }
  const goOn = async (): Promise<void> => {
    waiting.shift()?.();
    for (let i = 0; i < 5; i++) await Promise.resolve();
  };
  return { work, steps, goOn, done: () => done, isWaiting: () => waiting.length > 0 };
}

describe('work in steps', () => {
  test('that is short is done at once', async () => {
    const { work, steps, isWaiting } = clocked(1);
    const running = work.run(steps(5));
    expect(isWaiting()).toBe(false);
    expect(await running).toEqual({ result: '5 done' });
  });

  test('pauses every eight milliseconds, and goes on after that', async () => {
    const { work, steps, goOn, done, isWaiting } = clocked(3);
    const running = work.run(steps(7));
    expect(done()).toBe(3);
    await goOn();
    expect(done()).toBe(6);
    await goOn();
    expect(isWaiting()).toBe(false);
    expect(await running).toEqual({ result: '7 done' });
  });

  test('is given up at its next pause where it is stopped, or where other work begins', async () => {
    const { work, steps, goOn, done } = clocked(4);
    const first = work.run(steps(100));
    work.stop();
    await goOn();
    expect(await first).toBeNull();
    expect(done()).toBe(2);
    const second = work.run(steps(100));
    const third = work.run(steps(1));
    expect(await third).toEqual({ result: '1 done' });
    await goOn();
    expect(await second).toBeNull();
    expect(done()).toBe(5);
  });

  test('that fails says so', async () => {
    const { work } = clocked(1);
    function* failing(): Steps<string> {
      yield;
      throw new Error('Broken.');
    }
    await expect(work.run(failing())).rejects.toThrow('Broken.');
  });
});
