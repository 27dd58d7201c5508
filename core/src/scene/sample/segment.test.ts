import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Easing } from '../../basics/easing';
import { key } from '../../testing/scenes';
import { createTrackSampler, greatestStep, sampleTrack } from '.';
import { createSegment } from './segment';

const EASES: readonly Easing[] = [
  { type: 'linear' },
  { type: 'hold' },
  { type: 'steps', count: 3, jump: 'end' },
  { type: 'bezier', x1: 0.3, y1: -0.4, x2: 0.2, y2: 1.3 },
  { type: 'handles', leave: { time: 0.3, value: 12 }, arrive: { time: 0.6, value: -4 } },
  { type: 'spring', damping: 0.4, within: 0.01 },
];

test('a sampler of one track gives what sampling it anew gives, to the last digit, at any time', () => {
  const one = fc.tuple(fc.integer({ min: 1, max: 30 }), fc.integer({ min: -100, max: 100 }), fc.constantFrom(...EASES));
  fc.assert(
    fc.property(
      fc.array(one, { minLength: 1, maxLength: 8 }),
      fc.array(fc.double({ min: -5, max: 250, noNaN: true })),
      (list, times) => {
        let frame = 0;
        const keys = list.map(([length, value, ease]) => key((frame += length), value, ease));
        const valueAt = createTrackSampler(keys);
        for (const time of times) {
          const at = Math.round(time * 1e7);
          expect(valueAt(at)).toBe(sampleTrack(keys, at));
        }
        expect(greatestStep([keys], 1000, 0, 0)).toEqual({ by: 0, at: 0 });
      },
    ),
  );
});

test('a segment’s slope is how much its value changes in a little of its time', () => {
  const little = 1e-4;
  for (const ease of EASES) {
    const { at, slope } = createSegment(ease, -20, 60);
    const isSudden = ease.type === 'hold' || ease.type === 'steps';
    for (const share of [0.1, 0.25, 0.45, 0.8]) {
      const told = isSudden ? 0 : (at(share + little) - at(share - little)) / (2 * little);
      expect(slope(share)).toBeCloseTo(told, 1);
    }
  }
  // A straight line goes its whole way in its whole time, also at its ends, where there is only one side to look at.
  const straight = createSegment({ type: 'linear' }, -20, 60);
  for (const share of [0, 0.5, 1]) expect(straight.slope(share)).toBeCloseTo(80, 6);
});
