import { describe, expect, test } from '@jest/globals';
import { frameTicks } from '../../basics/time';
import type { Key } from '../../scene/layer';
import { sampleTrack } from '../../scene/sample';
import { createStep, recipeSchema, type AdjustStep } from '../../scene/recipe';
import { applied, framesOf, layerOf } from '../../testing/planning';
import { card, key, PAL, sceneOf } from '../../testing/scenes';

const FRAME = frameTicks(PAL);

/** What is left of keys within half a pixel. */
function thinned(keys: readonly Key[], ...after: readonly AdjustStep[]): readonly Key[] {
  const recipe = recipeSchema.parse({
    operation: 'adjust',
    pick: { by: 'rule', kind: 'card' },
    order: { by: 'layered' },
    seed: 1,
    keys: { which: 'all' },
    steps: [createStep('thin-out', []), ...after],
    parameters: { s1_within: { by: 'fixed', value: '0.5' } },
  });
  const scene = sceneOf([card('a', { tracks: { 'position.x': [...keys] } })]);
  return layerOf(applied(scene, recipe), 'a').tracks['position.x'] ?? [];
}

describe('thinning out', () => {
  test('keeps a jump on its frame, with the stillness before it', () => {
    const keys = [
      ...Array.from({ length: 11 }, (_, i) => key(i, i * 4)),
      key(11, 44, { type: 'hold' }),
      ...Array.from({ length: 11 }, (_, i) => key(20 + i, 200 + i)),
    ];
    const thin = thinned(keys);
    expect(thin.length).toBeLessThan(9);
    for (let f = 0; f <= 30; f += 0.5)
      expect(Math.abs(sampleTrack(thin, f * FRAME) - sampleTrack(keys, f * FRAME))).toBeLessThanOrEqual(0.51);
    expect(framesOf(thin).map(([at]) => at)).toEqual(expect.arrayContaining([11, 20]));
    expect(thin.find(({ at }) => at === 11 * FRAME)?.ease.type).toBe('hold');
  });

  test('leaves two keys alone, and those of which none can go', () => {
    const two = [key(0, 0), key(10, 10)];
    expect(thinned(two)).toEqual(two);
    const corners = [key(0, 0), key(10, 100), key(20, 0), key(30, 100)];
    expect(thinned(corners)).toEqual(corners);
  });

  test('keys that come anew are picked for the next step as those that stood are', () => {
    // Some two keys a frame along an arc: what is left stands on frames, where no key was.
    const arc = Array.from({ length: 60 }, (_, i) => ({
      ...key(0, 100 * Math.sin(i / 15)),
      at: Math.round(i * 0.45 * FRAME) + (i % 59 === 0 ? 0 : 1),
    }));
    const thin = thinned(arc);
    expect(thin.some(({ at }) => arc.every((one) => one.at !== at))).toBe(true);
    const moved = thinned(arc, createStep('shift', ['s1']));
    expect(moved.map(({ at }) => at)).toEqual(thin.map(({ at }) => at + 3 * FRAME));
  });

  test('the last key keeps what comes after it', () => {
    const last = { type: 'bezier', x1: 0.2, y1: 0, x2: 0.4, y2: 1 } as const;
    const keys = [...Array.from({ length: 10 }, (_, i) => key(i, i)), key(10, 10, last)];
    const thin = thinned(keys);
    expect(framesOf(thin)).toEqual([
      [0, 0],
      [10, 10],
    ]);
    expect(thin[1].ease).toEqual(last);
    expect(sampleTrack(thin, 5 * FRAME)).toBeCloseTo(5, 1);
  });
});
