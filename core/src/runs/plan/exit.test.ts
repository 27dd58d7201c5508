import { describe, expect, test } from '@jest/globals';
import { createShelf, type PresetItem } from '../../library/library';
import { STARTER_LIBRARY, STARTER_PRESETS } from '../../library/starter';
import type { PresetRecipe } from '../../scene/recipe';
import type { RunRecord } from '../../scene/scene';
import { applied, planOn, SHELF } from '../../testing/planning';
import { card, inFrames, recipeOf, sceneOf } from '../../testing/scenes';
import { matchingExitRecipe, solvedIn, type ExitWishes } from '.';

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

const WISHES: ExitWishes = { order: 'same', finish: null };
const rise = STARTER_PRESETS.find(({ id }) => id === 'rise-and-settle') as PresetItem;

function exitOf(recipe: Partial<PresetRecipe>, wishes: Partial<ExitWishes> = {}, shelf = SHELF): PresetRecipe {
  const entrance = recipeOf({ preset: { id: rise.id }, ...recipe });
  const run = { id: 'r', recipe: entrance, preset: { id: entrance.preset.id } } as unknown as RunRecord;
  const exit = matchingExitRecipe(run, shelf, { ...WISHES, ...wishes });
  if (!exit) throw new Error('no exit');
  return exit;
}

/** The starter library with another exit that says it matches the entrance, in some state. */
const withExit = (state: PresetItem['state']) =>
  createShelf([
    ...STARTER_LIBRARY.filter(({ id }) => id !== 'rise-and-settle-exit'),
    { ...rise, id: 'sink', state, body: { ...rise.body, phase: 'exit', matches: rise.id } },
  ]);

describe('the recipe of that exit', () => {
  test('is its mirror image, or the published one that says it matches', () => {
    expect(exitOf({}).preset).toEqual({ id: 'rise-and-settle-exit' });
    expect(exitOf({}, {}, withExit('published')).preset).toEqual({ id: 'sink' });
    for (const state of ['draft', 'in review', 'retired'] as const)
      expect(exitOf({}, {}, withExit(state)).preset).toEqual({ id: rise.id, mirrored: true });
    expect(exitOf({}, { preset: 'fade-out' }, withExit('published')).preset).toEqual({ id: 'fade-out' });
  });

  test('goes in the same order or the other way round, and back again where that was turned already', () => {
    const order = { by: 'across' } as const;
    expect(exitOf({ order }).order).toEqual(order);
    expect(exitOf({ order }, { order: 'reversed' }).order).toEqual({ by: 'across', reversed: true });
    expect(exitOf({ order: { ...order, reversed: true } }, { order: 'reversed' }).order).toEqual(order);
    expect(exitOf({ order: { ...order, reversed: true } }).order).toEqual({ by: 'across', reversed: true });
  });

  test('hangs on the end of each layer, or ends at a time; gaps and lengths stay, but for those that met a time', () => {
    const gap = { by: 'gap', gap: '4f' } as const;
    const finish = { by: 'finish', at: '2:00' } as const;
    const length = { by: 'fixed', length: '20f' } as unknown as PresetRecipe['length'];
    expect(exitOf({ spacing: gap, length, moves: 'layers' })).toMatchObject({
      operation: 'send-out',
      start: { by: 'layer' },
      spacing: gap,
      length,
      moves: 'keys',
    });
    expect(exitOf({}, { finish: '5:00' }).start).toEqual({ by: 'finish', at: '5:00' });
    expect(exitOf({ spacing: finish }).spacing).toEqual({ by: 'gap', gap: '0f' });
    expect(exitOf({ length: finish }).length).toEqual({ by: 'preset' });
  });

  test('takes along the parameters that its preset has, and nothing that was set for single layers', () => {
    const set = { by: 'fixed', value: '40px' } as const;
    const more = { parameters: { rise: set, lost: set }, overrides: { a: { start: '1:00' } } };
    const own = exitOf(more);
    expect(own.parameters).toEqual({ rise: set });
    expect(own).not.toHaveProperty('overrides');
    expect(exitOf(more, { preset: 'fade-out' }).parameters).toEqual({});
    // Of a preset that is not here it is not known what it has.
    expect(exitOf(more, { preset: 'elsewhere' }).parameters).toEqual({ rise: set, lost: set });
  });
});
