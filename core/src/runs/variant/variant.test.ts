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

  test.each([
    ['time', '4f', '0.8s', ['4f', '12f', '20f']],
    ['percent', '10%', '45%', ['10%', '28%', '45%']],
    ['length', '-20px', '21px', ['-20px', '1px', '21px']],
    ['angle', '0deg', '4.5deg', ['0deg', '2.3deg', '4.5deg']],
    ['frequency', '1Hz', '2.25Hz', ['1Hz', '1.63Hz', '2.25Hz']],
    ['number', '1', '-0.5', ['1', '0.25', '-0.5']],
  ] as const)('a sweep of a %s from %s to %s is said in its unit: %j', (kind, from, to, expected) => {
    const parameter = { name: 'swept', label: 'Swept', kind, default: from, from, to, note: '' };
    const versions = rollVariants(recipe, [parameter], { count: 3, seed: 1, locked: new Set(), sweep: 'swept' });
    expect(versions.map(({ parameters: { swept } }) => swept)).toEqual(
      expected.map((value) => ({ by: 'fixed', value })),
    );
    // One version alone stands at the lower limit.
    const [one] = rollVariants(recipe, [parameter], { count: 1, seed: 1, locked: new Set(), sweep: 'swept' });
    expect(one.parameters['swept']).toEqual({ by: 'fixed', value: expected[0] });
    for (const version of rollVariants(recipe, [parameter], { count: 20, seed: 1, locked: new Set(), sweep: null })) {
      const value = Number.parseFloat((version.parameters['swept'] as { value: string }).value);
      const ends = [expected[0], expected[2]].map(Number.parseFloat);
      expect(value).toBeGreaterThanOrEqual(Math.min(...ends));
      expect(value).toBeLessThanOrEqual(Math.max(...ends));
    }
  });

  test('without two soft limits that differ, or without an order, there is nothing to turn but seeds', () => {
    const plain = { name: 'one', label: 'One', default: '4f', note: '' };
    const none = [
      { ...plain, kind: 'time', from: '4f' },
      { ...plain, kind: 'time', to: '4f' },
      { ...plain, kind: 'time', from: '4f', to: '4f' },
      { ...plain, kind: 'time', from: '4f', to: 'nonsense' },
      { ...plain, kind: 'switch', from: '0', to: '1' },
    ] as const;
    expect(sweepable(none)).toEqual([]);
    const layered = { ...recipe, order: { by: 'layered' as const } };
    for (const parameter of none)
      expect(knobsOf(layered, [parameter])).toEqual([expect.objectContaining({ id: 'preset' })]);
    const lengths = { by: 'random', from: '10f', to: '20f', seed: 1 } as const;
    const random = { by: 'random', from: '1f', to: '2f', seed: 1 } as const;
    expect(knobsOf({ ...recipe, length: lengths, parameters: { one: random } }, [none[0]]).map(({ id }) => id)).toEqual(
      ['order', 'length', 'parameter:one', 'preset'],
    );
    const rolled = rollVariants({ ...recipe, length: lengths }, [], {
      count: 4,
      seed: 3,
      locked: new Set(),
      sweep: null,
    });
    expect(new Set(rolled.map(({ length }) => length.by === 'random' && length.seed)).size).toBe(4);
    expect(rolled.every(({ length }) => length.by === 'random' && length.from === '10f' && length.to === '20f')).toBe(
      true,
    );
    // One without limits stands as it is in every version.
    const still = rollVariants(recipe, none, { count: 2, seed: 3, locked: new Set(), sweep: 'one' });
    expect(still).toEqual([recipe, recipe]);
    // A parameter that is no longer there cannot be swept: all else is rolled instead.
    const [gone] = rollVariants(layered, [], { count: 1, seed: 3, locked: new Set(), sweep: 'gone' });
    expect(gone).toEqual({ ...layered, seed: gone.seed });
    expect(gone.seed).not.toBe(layered.seed);
  });

  test('knobs are named', () => expect(knobsOf(recipe, parameters).map(({ id }) => id)).toContain('order'));
});
