import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { channelOf } from '../../basics/channel';
import type { Easing } from '../../basics/easing';
import { sampleTrack } from '../../scene/sample';
import { trackSchema, type Key, type Track } from '../../scene/layer';
import { framesOf } from '../../testing/planning';
import { mergeKeys } from '.';

const FRAME = 28_224_000;

function key(frame: number, value: number, ease: Easing = { type: 'linear' }): Key {
  return { at: frame * FRAME, value, ease };
}

function own(frame: number, value: number, ease: Easing = { type: 'linear' }): Key {
  return { ...key(frame, value, ease), by: { run: 'r', slot: `opacity/m${frame}` } };
}

const anyEase: fc.Arbitrary<Easing> = fc.oneof(
  fc.constant<Easing>({ type: 'linear' }),
  fc.constant<Easing>({ type: 'hold' }),
  fc.record({
    type: fc.constant('bezier' as const),
    x1: fc.double({ min: 0.05, max: 0.95, noNaN: true }),
    y1: fc.double({ min: -1, max: 2, noNaN: true }),
    x2: fc.double({ min: 0.05, max: 0.95, noNaN: true }),
    y2: fc.double({ min: -1, max: 2, noNaN: true }),
  }),
  fc.record({
    type: fc.constant('steps' as const),
    count: fc.integer({ min: 2, max: 9 }),
    jump: fc.constantFrom('start' as const, 'end' as const, 'none' as const, 'both' as const),
  }),
  fc.constant<Easing>({
    type: 'points',
    points: [
      { input: 0, output: 0 },
      { input: 0.317, output: 0.8 },
      { input: 0.317, output: 0.5 },
      { input: 1, output: 1 },
    ],
  }),
);

function anyTrack(make: typeof key): fc.Arbitrary<Track> {
  return fc
    .array(fc.tuple(fc.integer({ min: 0, max: 120 }), fc.double({ min: 0.1, max: 1, noNaN: true }), anyEase), {
      minLength: 1,
      maxLength: 6,
    })
    .map((list) =>
      [...new Map(list.map((entry) => [entry[0], entry])).values()]
        .sort((a, b) => a[0] - b[0])
        .map(([frame, value, ease]) => make(frame, value, ease)),
    );
}

describe('what stands before a run', () => {
  test.each(['add', 'replace'] as const)('is what stood before it: %s', (way) => {
    fc.assert(
      fc.property(anyTrack(key), anyTrack(own), (old, made) => {
        const { keys } = mergeKeys(old, made, way, 'opacity', 1);
        expect(trackSchema.safeParse(keys).error?.issues ?? []).toEqual([]);
        const start = made[0].at;
        // Before its first key a track that is replaced has nothing that stands.
        const from = way === 'add' ? -FRAME : old[0].at;
        for (let at = from; at < start; at += FRAME / 4) {
          expect(sampleTrack(keys, at)).toBeCloseTo(sampleTrack(old, at), 5);
        }
        if (start - 1 >= from) expect(sampleTrack(keys, start - 1)).toBeCloseTo(sampleTrack(old, start - 1), 4);
      }),
      { numRuns: 500 },
    );
  });

  test('an accent on frame 31 leaves frame 30 as it was', () => {
    const old = [key(20, 0.9), key(31, 0.8)];
    const { keys } = mergeKeys(old, [own(31, 0.1), own(40, 1)], 'add', 'opacity', 1);
    expect(sampleTrack(keys, 30 * FRAME)).toBeCloseTo(0.9 - 0.1 * (10 / 11), 9);
    expect(sampleTrack(keys, 31 * FRAME)).toBeCloseTo(0.08, 9);
  });
});

describe('between old keys and new ones nothing drifts', () => {
  const entrance = [key(10, 0), key(20, 1)];

  test('a standing value holds until a later entrance begins, and then it begins at once', () => {
    const { keys } = mergeKeys(entrance, [own(100, 0), own(110, 1)], 'replace', 'opacity', 1);
    expect(framesOf(keys)).toEqual([
      [10, 0],
      [20, 1],
      [100, 0],
      [110, 1],
    ]);
    for (let frame = 20; frame < 100; frame++) expect(sampleTrack(keys, frame * FRAME)).toBe(1);
    expect(sampleTrack(keys, 100 * FRAME)).toBe(0);
  });

  test('after a run that ends elsewhere its value holds until the next old key', () => {
    const { keys } = mergeKeys(
      [key(0, 0.6), key(100, 0.6), key(110, 0)],
      [own(10, 0), own(20, 1)],
      'replace',
      'opacity',
      1,
    );
    expect([20, 60, 99].map((frame) => sampleTrack(keys, frame * FRAME))).toEqual([1, 1, 1]);
    expect(sampleTrack(keys, 100 * FRAME)).toBe(0.6);
  });

  test('a run that ends where the old motion is lets it go on as it would have', () => {
    const old = [key(0, 0, { type: 'bezier', x1: 0.4, y1: 0, x2: 0.2, y2: 1 }), key(100, 1)];
    const at = (frame: number): number => sampleTrack(old, frame * FRAME);
    const { keys } = mergeKeys(old, [own(30, at(30)), own(40, 0.9), own(50, at(50))], 'replace', 'opacity', 1);
    for (const frame of [0, 7, 19, 29, 51, 60, 75, 99])
      expect(sampleTrack(keys, frame * FRAME)).toBeCloseTo(at(frame), 9);
    expect(sampleTrack(keys, 40 * FRAME)).toBe(0.9);
  });

  test('channels of other units are joined by sums', () => {
    expect(channelOf('position.x').unit).toBe('px');
    const { keys } = mergeKeys([key(0, 10), key(20, 30)], [own(10, 5), own(15, 0)], 'add', 'position.x', 0);
    expect([0, 5, 9, 10].map((frame) => sampleTrack(keys, frame * FRAME))).toEqual([10, 15, 19, 25]);
  });
});
