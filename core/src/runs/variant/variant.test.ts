import { describe, expect, test } from '@jest/globals';
import { recipeSchema } from '../../scene/recipe';
import { codesOf, planOn, SHELF } from '../../testing/planning';
import { card, recipeOf, sceneOf } from '../../testing/scenes';
import { knobsOf, rollVariants, sweepable } from '.';

const parameters = SHELF.preset('rise-and-settle')?.body.parameters ?? [];
const recipe = recipeOf({
  preset: { id: 'rise-and-settle' },
  order: { by: 'shuffled', seed: 1 },
  parameters: { tilt: { by: 'random', from: '-6deg', to: '6deg', seed: 1 } },
});

const roll = (more: Partial<Parameters<typeof rollVariants>[2]> = {}) =>
  rollVariants(recipe, parameters, { count: 8, seed: 3, locked: new Set(), sweep: null, ...more });

describe('variants', () => {
  test('differ in every knob, are recipes that plan, and are the same for the same seed', () => {
    const versions = roll();
    expect(new Set(versions.map((version) => JSON.stringify(version))).size).toBe(8);
    expect(roll()).toEqual(versions);
    expect(roll({ seed: 4 })).not.toEqual(versions);
    // Seeds that can be typed, and that are all but never the same.
    const seeds = versions.map(({ seed }) => seed);
    expect(new Set(seeds).size).toBeGreaterThan(6);
    expect(seeds.every((seed) => Number.isInteger(seed) && seed >= 1 && seed <= 10_000)).toBe(true);
    const scene = sceneOf([card('a'), card('b'), card('c')]);
    for (const version of versions) {
      expect(recipeSchema.safeParse(version).success).toBe(true);
      expect(codesOf(planOn(scene, version)).filter((code) => code === 'bad-field' || code === 'limited')).toEqual([]);
    }
  });

  test('locked knobs keep what they have', () => {
    for (const version of roll({ locked: new Set(['order', 'parameter:tilt']) })) {
      expect(version.order).toEqual(recipe.order);
      expect(version.parameters.tilt).toEqual(recipe.parameters.tilt);
    }
  });

  test('a sweep goes evenly from one soft limit to the other and changes nothing else', () => {
    const [parameter] = sweepable(parameters);
    const versions = roll({ sweep: parameter.name, count: 3 });
    expect(versions.map(({ parameters: { [parameter.name]: _swept, ...rest }, ...other }) => [rest, other])).toEqual(
      versions.map(() => {
        const { parameters: own, ...other } = recipe;
        const { [parameter.name]: _standing, ...rest } = own;
        return [rest, other];
      }),
    );
    const values = versions.map((version) =>
      Number.parseFloat((version.parameters[parameter.name] as { value: string }).value),
    );
    expect(values[1]).toBeCloseTo((values[0] + values[2]) / 2, -0.5);
    // The soft limits of the parameter, as its formulas name them.
    expect([values[0], values[2]]).toEqual([parameter.from, parameter.to].map((text) => Number.parseFloat(text ?? '')));
  });

  test('knobs are named', () => expect(knobsOf(recipe, parameters).map(({ id }) => id)).toContain('order'));
});
