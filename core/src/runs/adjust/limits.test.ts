import { describe, expect, test } from '@jest/globals';
import { frameTicks } from '../../basics/time';
import type { Key } from '../../scene/layer';
import type { AdjustRecipe } from '../../scene/recipe';
import { sampleTrack } from '../../scene/sample';
import type { Scene } from '../../scene/scene';
import { adjust } from '../../testing/adjusting';
import { applied, layerOf } from '../../testing/planning';
import { card, key, PAL, sceneOf } from '../../testing/scenes';

const FRAME = frameTicks(PAL);
const soft: Key['ease'] = { type: 'bezier', x1: 0.3, y1: 0, x2: 0.2, y2: 1 };
const after = (recipe: AdjustRecipe, scene: Scene): Scene => applied(scene, recipe);

describe('steps that limit', () => {
  test('limit speed: no frame goes faster, times and slower parts stay', () => {
    const fast = sceneOf([
      card('a', { tracks: { 'position.x': [key(0, 0, soft), key(10, 400, soft), key(35, 420), key(36, 60)] } }),
    ]);
    const slow = after(adjust({ type: 'limit-speed' }, { most: '300' }), fast);
    const keys = layerOf(slow, 'a').tracks['position.x'] ?? [];
    expect(keys.map(({ at }) => at / FRAME)).toEqual([0, 10, 35, 36]);
    // What had to stay behind catches up as far as it may.
    expect(keys[1].value).toBeLessThan(60);
    expect(keys[2].value - keys[1].value).toBeGreaterThan(100);
    expect(keys[3].value - keys[2].value).toBeCloseTo(-12, 9);
    const speeds = Array.from({ length: 720 }, (_, i) => {
      const at = (i * FRAME) / 20;
      return (sampleTrack(keys, at + FRAME / 20) - sampleTrack(keys, at)) * 25 * 20;
    });
    expect(Math.max(...speeds.map(Math.abs))).toBeLessThanOrEqual(300 * 1.001);
    expect(Math.max(...speeds.map(Math.abs))).toBeGreaterThan(290);
    // What is slow enough stays as it was.
    expect(
      after(adjust({ type: 'limit-speed' }, { most: '1e6' }), fast).layers[0].tracks['position.x']?.map(
        ({ value }) => value,
      ),
    ).toEqual([0, 400, 420, 60]);
  });

  test('limit acceleration: within no segment does the speed change faster; even motion and jumps stay', () => {
    const hard = sceneOf([
      card('a', {
        tracks: {
          'position.x': [key(0, 0, soft), key(10, 400, soft), key(35, 420), key(45, 900, { type: 'hold' }), key(50, 0)],
        },
      }),
    ]);
    const most = 2500;
    const eased = after(adjust({ type: 'limit-acceleration' }, { most: `${most}` }), hard);
    const keys = layerOf(eased, 'a').tracks['position.x'] ?? [];
    expect(keys.map(({ at }) => at / FRAME)).toEqual([0, 10, 35, 45, 50]);
    expect(keys[1].value).toBeLessThan(400);
    // The key after an even stretch, and the one after a jump, are where they were.
    expect(keys.slice(3).map(({ value }) => value)).toEqual([900, 0]);
    // Second differences of the motion, forty to a frame (a reference by brute force, within the eased segments).
    const step = FRAME / 40;
    const seconds = 1 / (25 * 40);
    const found: number[] = [];
    for (let at = step; at < 35 * FRAME - step; at += step) {
      if (Math.abs(at - 10 * FRAME) < 2 * step) continue;
      const [a, b, c] = [-step, 0, step].map((by) => sampleTrack(keys, at + by));
      found.push(Math.abs(a - 2 * b + c) / seconds ** 2);
    }
    expect(Math.max(...found)).toBeLessThanOrEqual(most * 1.01);
    expect(Math.max(...found)).toBeGreaterThan(most * 0.9);
  });

  test('limits count as the channel is shown: 100 % of opacity are as far as 100 px', () => {
    const both = sceneOf([
      card('a', {
        tracks: {
          'position.x': [key(0, 0, soft), key(25, 100, soft), key(40, 20)],
          opacity: [key(0, 0, soft), key(25, 1, soft), key(40, 0.2)],
        },
      }),
    ]);
    for (const [type, most] of [
      ['limit-speed', '60'],
      ['limit-acceleration', '300'],
    ] as const) {
      const { tracks } = layerOf(after(adjust({ type }, { most }), both), 'a');
      const [places, shares] = [tracks['position.x'] ?? [], tracks.opacity ?? []];
      expect(places[1].value).toBeLessThan(60);
      places.forEach(({ value }, i) => expect(shares[i].value * 100).toBeCloseTo(value, 6));
    }
  });
});
