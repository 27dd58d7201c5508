import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { sampleTrack } from '../../scene/sample';
import type { Key, Track } from '../../scene/layer';
import { key } from '../../testing/scenes';
import { mergeKeys } from '.';

const own = (frame: number, value: number, ease?: Key['ease']): Key => ({
  ...key(frame, value, ease),
  by: { run: 'r', slot: `m${frame}` },
});
const FRAME = key(1, 0).at;
const bent = { type: 'bezier', x1: 0.3, y1: 0, x2: 0.4, y2: 1 } as const;

/** Largest distance of what stands from what it is to be, as a share of the way that it goes. */
function farthest(keys: Track, wanted: (at: number) => number, from: number, to: number): number {
  const times = Array.from({ length: 401 }, (_, i) => (from + ((to - from) * i) / 400) * FRAME);
  const values = times.map(wanted);
  const way = Math.max(...values) - Math.min(...values) || 1;
  return Math.max(...times.map((at, i) => Math.abs(sampleTrack(keys, at) - values[i]))) / way;
}

describe('keys that are added on top of motion', () => {
  const old = [key(0, 1, bent), key(60, 3, bent), key(100, 0.5)];
  const made = [own(10, 1, bent), own(45, 0.2, bent), own(80, 1.6, bent), own(90, 1)];

  test('give the sum where differences add: within 0.1 % of the way at any time', () => {
    const { keys } = mergeKeys(old, made, 'add', 'position.x', 1);
    const sum = (at: number): number => sampleTrack(old, at) + sampleTrack(made, at) - 1;
    expect(farthest(keys, sum, 10, 90)).toBeLessThan(0.002);
    // A sum needs few segments only where its speeds are right, between keys.
    expect(keys.length).toBeLessThan(18);
  });

  test('give the product where shares multiply, at the rest value that they were made against', () => {
    const { keys } = mergeKeys(old, made, 'add', 'scale.x', 2);
    const product = (at: number): number => (sampleTrack(old, at) * sampleTrack(made, at)) / 2;
    expect(farthest(keys, product, 10, 90)).toBeLessThan(0.002);
    // A product needs few segments only where its speeds are right, ends included.
    expect(keys.length).toBeLessThan(24);
  });

  test('with free handles keep their swing, as large as what stands under them', () => {
    const swing = { type: 'handles', leave: { time: 0.3, value: 0.9 }, arrive: { time: 0.4, value: -0.6 } } as const;
    const swinging = [own(10, 1, swing), own(45, 1.5, bent), own(80, 1, swing), own(90, 1)];
    const still = [key(0, 3)];
    const { keys } = mergeKeys(still, swinging, 'add', 'scale.x', 2);
    expect(farthest(keys, (at) => (3 * sampleTrack(swinging, at)) / 2, 10, 90)).toBeLessThan(1e-9);
    const added = mergeKeys(still, swinging, 'add', 'position.x', 2).keys;
    expect(farthest(added, (at) => 1 + sampleTrack(swinging, at), 10, 90)).toBeLessThan(1e-9);
  });

  test('have a slot each that does not depend on the others: without one old key the rest keep theirs', () => {
    fc.assert(
      fc.property(fc.integer({ min: 12, max: 58 }), (frame) => {
        const more = [...old, key(frame, 2)].sort((a, b) => a.at - b.at);
        const slots = (track: Track) =>
          mergeKeys(track, made, 'add', 'position.x', 1).keys.flatMap(({ by }) => (by ? [by.slot] : []));
        const [one, other] = [slots(old), slots(more)];
        expect(new Set(one).size).toBe(one.length);
        expect(new Set(other).size).toBe(other.length);
        for (const { by } of made) expect(other).toContain(by?.slot);
      }),
      { numRuns: 50 },
    );
  });
});
