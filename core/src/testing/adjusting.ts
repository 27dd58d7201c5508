import { createStep, recipeSchema, type AdjustRecipe, type AdjustStep, type KeyRule } from '../scene/recipe';

const PICK = { by: 'rule', kind: 'card' } as const;

type Numbers = Readonly<Record<string, string>>;

/** An adjustment of all cards by one step, with numbers of its own. */
export function adjust(
  step: Partial<AdjustStep> & Pick<AdjustStep, 'type'>,
  numbers: Numbers = {},
  keys: Partial<KeyRule> = {},
): AdjustRecipe {
  const whole = { ...createStep(step.type, []), ...step } as AdjustStep;
  const parameters = Object.fromEntries(
    Object.entries(numbers).map(([name, value]) => [`s1_${name}`, { by: 'fixed', value }] as const),
  );
  const recipe = {
    operation: 'adjust',
    pick: PICK,
    order: { by: 'layered' },
    seed: 1,
    keys: { which: 'all', ...keys },
    steps: [whole],
    parameters,
  };
  return recipeSchema.parse(recipe) as AdjustRecipe;
}
