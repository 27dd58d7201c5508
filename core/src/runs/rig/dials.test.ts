import { describe, expect, test } from '@jest/globals';
import bezierEasing from 'bezier-easing';
import type { ChannelId } from '../../basics/channel';
import { frameTicks } from '../../basics/time';
import { compileRig, type Rig } from '../../formulas/rig';
import type { RigRecipe } from '../../scene/recipe';
import { sceneSchema } from '../../scene/scene';
import { recipeOf, rigged, shelfWith, slider, valueIn } from '../../testing/rigs';
import { card, CONTEXT, key, PAL, sceneOf } from '../../testing/scenes';
import { readsOf } from '../operations';
import { retuneRig } from '../plan';
import { changeDialKeys, keyedDials } from './dial-keys';

describe('dials of every kind', () => {
  const dial = (kind: Rig['dials'][number]['kind'], value: string): Rig['dials'][number] => ({
    name: 'own',
    label: 'Own',
    kind,
    default: value,
    note: '',
  });
  const turns = (values: readonly string[]): Partial<RigRecipe> => ({
    parameters: { own: { by: 'cycle', values: [...values] } },
    order: { by: 'layered' },
  });

  test('a curve is read by ease, each layer by its own', () => {
    const shelf = shelfWith('ease(@own, clamp(t ÷ 2s, 0, 1)) × 100px', ['position.x'], {
      dials: [dial('curve', 'linear')],
    });
    const scene = rigged(
      sceneOf([card('a'), card('b'), card('c')]),
      recipeOf('own', turns(['linear', 'cubic-bezier(0.42, 0, 1, 1)'])),
      shelf,
    );
    expect(sceneSchema.safeParse(scene).error?.issues ?? []).toEqual([]);
    // Kept once each, whoever has them.
    expect(scene.runs[0].rig?.curves).toHaveLength(2);
    const at = (layer: string, seconds: number): number => valueIn(scene, layer, 'position.x', seconds);
    expect(at('a', 1)).toBeCloseTo(50, 9);
    expect(at('c', 0.5)).toBeCloseTo(25, 9);
    // The registry's bezier-easing.
    for (const seconds of [0.3, 1, 1.7]) {
      expect(at('b', seconds)).toBeCloseTo(100 * bezierEasing(0.42, 0, 1, 1)(seconds / 2), 4);
    }
  });

  test('two runs of one rig keep to their own curves', () => {
    const shelf = shelfWith('keyed + ease(@own, 50%) × 100px', ['position.x'], { dials: [dial('curve', 'linear')] });
    const set = (value: string): Partial<RigRecipe> => ({ parameters: { own: { by: 'fixed', value } } });
    const first = rigged(sceneOf([card('a')]), recipeOf('own', set('steps(4, end)')), shelf);
    const both = rigged(first, recipeOf('own', set('cubic-bezier(0, 0, 0, 1)')), shelf, 'run-2');
    const rest = both.layers[0].rest['position.x'] ?? 0;
    const bezier = 100 * bezierEasing(0, 0, 0, 1)(0.5);
    expect(valueIn(both, 'a', 'position.x', 1)).toBeCloseTo(rest + 50 + bezier, 4);
  });

  test('a colour is the part that a channel drives, and its parts elsewhere', () => {
    const dials = [dial('colour', '#ff0000')];
    const parts: ChannelId[] = ['fill.l', 'fill.a', 'fill.b'];
    const scene = rigged(
      sceneOf([card('a', { look: { fill: '#000000' } })]),
      recipeOf('own', { parameters: { own: { by: 'fixed', value: '#ffffff' } } }),
      shelfWith('mix(keyed, @own, 50%)', parts, { dials }),
    );
    // White in OKLab is (1, 0, 0), black (0, 0, 0): B. Ottosson 2020.
    expect(parts.map((channel) => valueIn(scene, 'a', channel, 1))).toEqual([
      expect.closeTo(0.5, 5),
      expect.closeTo(0, 5),
      expect.closeTo(0, 5),
    ]);
    const read = rigged(sceneOf([card('a')]), recipeOf('own'), shelfWith('@own.l × 100px', ['position.x'], { dials }));
    // Red's lightness, 0.62796, in the same source.
    expect(valueIn(read, 'a', 'position.x', 1)).toBeCloseTo(62.796, 2);
    const { problems } = compileRig({ dials, roles: [], formulas: [{ channels: ['position.x'], text: '@own' }] });
    expect(problems.map(({ message }) => message)).toEqual([
      '@own is a colour, and fits the channels of fill and stroke colours.',
    ]);
  });

  test('a layer is read where it rests, and the run is planned anew where runs under it change that', () => {
    const shelf = shelfWith('mix(keyed, @own.x, 50%)', ['position.x'], { dials: [dial('layer', 'none')] });
    const standing = sceneOf([
      card('a', { rest: { 'position.x': 100 } }),
      card('goal', { rest: { 'position.x': 500 } }),
    ]);
    const recipe = recipeOf('own', {
      pick: { by: 'layers', layers: ['a'] },
      parameters: { own: { by: 'fixed', value: 'goal' } },
    });
    const scene = rigged(standing, recipe, shelf);
    expect(valueIn(scene, 'a', 'position.x', 1)).toBeCloseTo(300, 9);
    expect(readsOf(scene.runs[0]).rest).toBe(true);
  });
});

test('a speed is written as a length or a number by the second, and a let line may still be called s', () => {
  const at = (text: string): number =>
    valueIn(rigged(sceneOf([card('a')]), recipeOf('own'), shelfWith(text)), 'a', 'position.x', 2);
  expect(at('40px/s × t')).toBeCloseTo(80, 9);
  expect(at('100px × exp(-0.5/s × t)')).toBeCloseTo(100 * Math.exp(-1), 9);
  expect(at('3px/s^2 × t × t')).toBeCloseTo(12, 9);
  expect(at('let s = 4px\ns + 1px')).toBeCloseTo(5, 9);
});

describe('keys of dials', () => {
  const shelf = shelfWith('keyed + @own', ['position.x'], {
    dials: [{ name: 'own', label: 'Own', kind: 'length', default: '10px', note: '' }],
  });
  const scene = rigged(
    sceneOf([slider('a')]),
    recipeOf('own', { parameters: { own: { by: 'keys', keys: [key(0, 0), key(10, 50), key(20, 80)] } } }),
    shelf,
  );
  const [run] = scene.runs;
  const times = (...frames: number[]) => new Map([['own', new Set(frames.map((frame) => frame * frameTicks(PAL)))]]);
  const changed = (picked: readonly number[], change: Parameters<typeof changeDialKeys>[3]) =>
    changeDialKeys(run, run.recipe as RigRecipe, times(...picked), change, PAL);

  test('are found with their dial', () => {
    expect(keyedDials(run).map(({ dial, keys }) => [dial.label, keys.length])).toEqual([['Own', 3]]);
    expect(keyedDials({ ...run, recipe: recipeOf('own') })).toEqual([]);
  });

  test('are moved, take the place of what stands there, and stay picked', () => {
    const { recipe, picks } = changed([0, 10], (one) => ({ ...one, at: one.at + 10 * frameTicks(PAL) }));
    expect(recipe.parameters['own']).toEqual({ by: 'keys', keys: [key(10, 0), key(20, 50)] });
    expect(picks).toEqual(times(10, 20));
    const tuned = retuneRig(scene, shelf, run.id, recipe, CONTEXT);
    if (!tuned.ok) throw new Error('not tuned');
    const after = { ...scene, runs: [tuned.run] };
    expect(valueIn(after, 'a', 'position.x', 2)).toBeCloseTo(250, 9);
  });

  test('are set, and without any left the dial keeps the last value', () => {
    const set = changed([20], (one) => ({ ...one, value: one.value * 2 }));
    expect(set.recipe.parameters['own']).toEqual({ by: 'keys', keys: [key(0, 0), key(10, 50), key(20, 160)] });
    const gone = changed([0, 10, 20], () => null);
    expect(gone.recipe.parameters['own']).toEqual({ by: 'fixed', value: '0px' });
    expect(gone.picks.size).toBe(0);
  });
});
