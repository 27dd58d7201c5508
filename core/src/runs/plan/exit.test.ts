import { describe, expect, test } from '@jest/globals';
import { applied, planOn, SHELF } from '../../testing/planning';
import { card, inFrames, sceneOf } from '../../testing/scenes';
import { matchingExitRecipe, solvedIn } from '.';

const rate = { num: 60, den: 1 };
const three = sceneOf([card('a'), card('b'), card('c')], rate);

describe('the exit that matches an entrance', () => {
  const scene = applied(three, {
    preset: { id: 'slide-from-left-edge' },
    spacing: { by: 'gap', gap: '5f' },
    length: { by: 'fixed', length: '60f' },
  });
  const [run] = scene.runs;

  test('three panels at 60 fps (common practice): in by 1:10, out from 1:40 with the same offsets, gone by 2:50', () => {
    const recipe = matchingExitRecipe(run, SHELF, { order: 'same', finish: '2:50' });
    if (!recipe) throw new Error();
    expect(recipe).toMatchObject({ operation: 'send-out', preset: { id: 'slide-to-left-edge' } });
    const planned = planOn(scene, recipe);
    expect(planned.layers.map(({ starts }) => inFrames(starts, rate))).toEqual([100, 105, 110]);
    expect(inFrames(solvedIn(planned.layers).finish as number, rate)).toBe(170);
  });

  test('hangs on each out point, in the reversed order', () => {
    const recipe = matchingExitRecipe(run, SHELF, { order: 'reversed', finish: null });
    if (!recipe) throw new Error();
    const ends = planOn(scene, recipe).layers.map(({ starts, lasts }) => inFrames(starts + lasts, rate));
    expect(ends).toEqual([600, 595, 590]);
  });

  test('mirrors the entrance itself where the library has no exit for it', () => {
    const items = [...SHELF.items.values()].filter(({ id }) => id !== 'slide-to-left-edge');
    const bare = { ...SHELF, items: new Map(items.map((item) => [item.id, item])) };
    const recipe = matchingExitRecipe(run, bare, { order: 'same', finish: null });
    expect(recipe?.preset).toEqual({ id: 'slide-from-left-edge', mirrored: true });
    const mirrored = planOn(scene, recipe ?? {});
    const made = planOn(scene, { ...recipe, preset: { id: 'slide-to-left-edge' } } as never);
    const values = (planned: typeof made) =>
      planned.layers[0].after.tracks['position.x']
        ?.filter(({ by }) => by?.run === 'run-2')
        .map(({ at, value }) => [at, value]);
    expect(values(mirrored)).toEqual(values(made));
  });

  test('is made from entrances only', () => {
    const faded = applied(three, { operation: 'send-out', preset: { id: 'fade-out' } });
    expect(matchingExitRecipe(faded.runs[0], SHELF, { order: 'same', finish: null })).toBeNull();
  });
});
