import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Easing } from '../../basics/easing';
import { frameTicks } from '../../basics/time';
import type { Key } from '../layer';
import { cutSegment, sampleTrack } from '.';
import { key, PAL } from '../../testing/scenes';

const FRAME = frameTicks(PAL);
/** When the segment that is cut begins and how long it is, frames. */
const [BEGIN, END] = [12, 40];

/** How far the two parts of a cut segment are off it, and off its ends, at quarters of frames. */
function miss(ease: Easing, frame: number): { readonly off: number; readonly keys: number } {
  const [first, last]: readonly [Key, Key] = [key(BEGIN, 10, ease), key(BEGIN + END, 110)];
  const { before, value, after } = cutSegment(first, last, (BEGIN + frame) * FRAME);
  expect(before[0]).toMatchObject({ at: BEGIN * FRAME, value: 10 });
  expect(after[0]).toMatchObject({ at: (BEGIN + frame) * FRAME, value });
  const cut = [...before, ...after, last];
  expect(cut.every(({ at }, i) => i === 0 || at > cut[i - 1].at)).toBe(true);
  let off = 0;
  for (let i = 0; i <= END * 4; i++) {
    const at = (BEGIN + i / 4) * FRAME;
    off = Math.max(off, Math.abs(sampleTrack(cut, at) - sampleTrack([first, last], at)));
  }
  return { off, keys: cut.length };
}

describe('a segment that is cut', () => {
  test('a cubic goes on as before on both sides (de Casteljau)', () => {
    // A curve that is all but upright in its middle has no value there that could be told from its time.
    const within = (min: number, max: number) => fc.double({ min, max, noNaN: true });
    const [leaves, arrives, reach] = [within(0, 0.9), within(0.1, 1), within(-1, 2)];
    fc.assert(
      fc.property(leaves, reach, arrives, reach, fc.integer({ min: 1, max: END - 1 }), (x1, y1, x2, y2, frame) => {
        expect(miss({ type: 'bezier', x1, y1, x2, y2 }, frame).off).toBeLessThan(0.01);
      }),
      { numRuns: 200 },
    );
  });

  test('free handles keep their speeds: in the middle of an even cubic, half of each', () => {
    const ease: Easing = { type: 'handles', leave: { time: 1 / 3, value: 30 }, arrive: { time: 1 / 3, value: -60 } };
    expect(miss(ease, 13).off).toBeLessThan(1e-6);
    const { before, value, after } = cutSegment(
      key(0, 0, { type: 'handles', leave: { time: 1 / 3, value: 0 }, arrive: { time: 1 / 3, value: 0 } }),
      key(END, 80),
      (END / 2) * FRAME,
    );
    // Control values 0 0 80 80: cut in the middle, 0 0 20 40 and 40 60 80 80.
    expect(value).toBeCloseTo(40, 9);
    expect(before[0].ease).toMatchObject({ leave: { value: 0 } });
    expect(after[0].ease).toMatchObject({ arrive: { value: 0 } });
    const arrive = before[0].ease.type === 'handles' ? before[0].ease.arrive.value : NaN;
    const leave = after[0].ease.type === 'handles' ? after[0].ease.leave.value : NaN;
    expect([arrive, leave].map((part) => Math.round(part * 1e9) / 1e9)).toEqual([-20, 20]);
  });

  test.each<[string, Easing, number]>([
    ['linear', { type: 'linear' }, 1e-9],
    ['hold', { type: 'hold' }, 1e-9],
    ['steps', { type: 'steps', count: 5, jump: 'end' }, 1e-9],
    ['steps that jump as they begin', { type: 'steps', count: 4, jump: 'start' }, 1e-9],
    [
      'a polyline',
      {
        type: 'points',
        points: [
          { input: 0, output: 0 },
          { input: 0.3, output: 0.9 },
          { input: 0.6, output: 0.2 },
          { input: 1, output: 1 },
        ],
      },
      1e-6,
    ],
    ['a spring, within a share of the way', { type: 'spring', damping: 0.3, within: 0.01 } as Easing, 0.2],
  ])('%s', (_name, ease, most) => {
    for (const frame of [1, 8, 17, 25, END - 1]) expect(miss(ease, frame).off).toBeLessThanOrEqual(most);
  });

  test('a part that comes back to where it began has a key a point, each on a tick of its own before the cut', () => {
    const points = [
      { input: 0, output: 0 },
      { input: 0.25, output: 0.5 },
      { input: 0.49, output: 0.3 },
      { input: 0.5, output: 0 },
      { input: 1, output: 1 },
    ];
    const first: Key = { at: 100, value: 10, ease: { type: 'points', points } };
    const { before } = cutSegment(first, { at: 108, value: 110, ease: { type: 'linear' } }, 104);
    expect(before.map(({ at, value }) => [at, value])).toEqual([
      [100, 10],
      [102, 60],
    ]);
  });
});
