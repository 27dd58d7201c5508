import { expect, test } from '@jest/globals';
import { frameTicks } from '../../basics/time';
import type { Scene } from '../../scene/scene';
import { adjust } from '../../testing/adjusting';
import { applied, layerOf } from '../../testing/planning';
import { card, key, PAL, sceneOf } from '../../testing/scenes';

const FRAME = frameTicks(PAL);
const moving = sceneOf([
  card('a', {
    tracks: { 'position.x': [key(10, 0), key(20, 100), key(40, 60)], rotation: [key(10, 0), key(30, 90)] },
  }),
  card('b', { tracks: { 'position.x': [key(15, 0), key(55, 80)] } }),
]);

test('jitter is the same for the same seed, whole moments move together, and another seed is another jitter', () => {
  const jitter = (seed: number): Scene =>
    applied(moving, { ...adjust({ type: 'jitter' }, { time: '3f', value: '0' }), seed });
  expect(jitter(1).layers).toEqual(jitter(1).layers);
  const times = (scene: Scene) => Object.values(layerOf(scene, 'a').tracks).map((keys) => keys[0].at);
  expect(new Set(times(jitter(4))).size).toBe(1);
  expect(times(jitter(1))).not.toEqual(times(jitter(2)));
  // No moment goes further than that, and some go nearly as far.
  const ways = Array.from({ length: 30 }, (_, seed) => times(jitter(seed))[0] / FRAME - 10);
  expect(Math.max(...ways.map(Math.abs))).toBeLessThanOrEqual(3);
  expect([Math.min(...ways) < -2, Math.max(...ways) > 2]).toEqual([true, true]);
});

test('jittered values are each drawn anew, within their reach on both sides, and evenly over it', () => {
  const many = sceneOf([
    card('a', { tracks: { rotation: Array.from({ length: 60 }, (_, i) => key(i, 100)), opacity: [key(0, 0.5)] } }),
  ]);
  const jitter = (value: string, seed = 1): Scene =>
    applied(many, { ...adjust({ type: 'jitter' }, { time: '0f', value }), seed });
  const off = (layerOf(jitter('8'), 'a').tracks.rotation ?? []).map(({ value }) => value - 100);
  expect(new Set(off).size).toBe(60);
  expect(Math.max(...off.map(Math.abs))).toBeLessThanOrEqual(8);
  expect([Math.min(...off) < -6, Math.max(...off) > 6]).toEqual([true, true]);
  expect(Math.abs(off.reduce((sum, one) => sum + one, 0) / 60)).toBeLessThan(2);
  // Twice the reach is twice as far for each; a channel of shares goes by per cent.
  const wide = (layerOf(jitter('16'), 'a').tracks.rotation ?? []).map(({ value }) => value - 100);
  wide.forEach((value, i) => expect(value).toBeCloseTo(2 * off[i], 9));
  const [{ value: opacity }] = layerOf(jitter('8'), 'a').tracks.opacity ?? [];
  expect(Math.abs(opacity - 0.5)).toBeLessThanOrEqual(0.08);
  expect(opacity).not.toBe(0.5);
});
