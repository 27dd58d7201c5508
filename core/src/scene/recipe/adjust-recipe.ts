import * as z from '../../basics/schema';
import { channelIdSchema } from '../../basics/channel';
import { easingSchema } from '../../basics/easing';
import { idSchema } from '../../basics/ids';
import { parameterNameSchema, phaseSchema } from '../../formulas/preset';
import type { Pick } from '../layer';
import { moments, recipeBase, timeText } from './parts';
import { variationSchema, type Variation } from './preset-recipe';
import { ownSchema } from './rig-recipe';

/** Which of the keys that meet the other conditions: all of them, or by their place among a layer's moments. */
export const WHICH_KEYS = ['all', 'first', 'last', 'inner', 'nth'] as const;

/** Which keys are adjusted: whatever is given must hold for a key. Looked for anew each time the run is done. */
export const keyRuleSchema = z.strictObject({
  which: z.enum(WHICH_KEYS),
  /** The place of the moment that `nth` means, from 1; 2 where it is not given. */
  nth: z.int().min(1).max(999).optional(),
  channels: z.array(channelIdSchema).min(1).max(64).optional(),
  phases: z.array(phaseSchema).min(1).optional(),
  /** Keys that this run made. */
  run: idSchema.optional(),
  /** Keys that the run made at this moment of its preset. */
  moment: idSchema.optional(),
  /** Keys that no run made. */
  byHand: z.literal(true).optional(),
  /** Keys between frames. */
  offGrid: z.literal(true).optional(),
  from: timeText.optional(),
  to: timeText.optional(),
  /** Values at least and at most, in px, degrees, per cent. */
  low: z.number().min(-1e9).max(1e9).optional(),
  high: z.number().min(-1e9).max(1e9).optional(),
});

/** What a step turns about: each layer's own first or last picked key, its middle, its ends, or one time for all. */
const pivotSchema = z.union([z.strictObject({ by: z.enum(['first', 'last', 'middle', 'in', 'out']) }), ...moments]);

const step = <T extends string, S extends z.ZodRawShape>(type: T, shape: S) =>
  z.strictObject({ id: parameterNameSchema, type: z.literal(type), ...shape });

const pivot = { pivot: pivotSchema };

/** Keys that entrances and exits made keep their distances; what lies between takes up the change. */
const keepsEnds = { keepsEnds: z.literal(true).optional() };

/** One step of an adjustment. Its numbers are parameters of the recipe, named by its id: they may differ from layer to layer. */
export const adjustStepSchema = z.discriminatedUnion('type', [
  step('shift', {}),
  step('stretch', { ...pivot, ...keepsEnds }),
  step('fit', { ...pivot, ...keepsEnds }),
  step('window', keepsEnds),
  step('reverse', {}),
  step('restagger', {}),
  step('close-gaps', {}),
  step('spread', { of: z.enum(['time', 'value']) }),
  step('retime', { ease: easingSchema }),
  step('jitter', {}),
  step('whole-frames', {}),
  step('conform', {}),
  step('to-cues', {}),
  step('hold', {}),
  step('move-later', {}),
  step('scale', { about: z.enum(['rest', 'mean', 'zero']) }),
  step('offset', {}),
  step('mirror', {}),
  step('limit', {}),
  step('limit-speed', {}),
  step('limit-acceleration', {}),
  step('smooth', {}),
  step('freeze', {}),
  step('ease', { ease: easingSchema }),
  step('strengths', { way: z.enum(['set', 'add', 'scale']), parts: z.enum(['departure', 'arrival', 'both']) }),
  step('thin-out', {}),
]);

/** Changes keys that stand, step after step, on many layers at once. */
export const adjustRecipeSchema = z
  .strictObject({
    operation: z.literal('adjust'),
    ...recipeBase,
    keys: keyRuleSchema,
    steps: z.array(adjustStepSchema).min(1).max(20),
    parameters: z.record(parameterNameSchema, variationSchema),
    /** Numbers that were set by hand for single layers. */
    overrides: z.record(idSchema, ownSchema).optional(),
  })
  .refine(({ steps }) => new Set(steps.map(({ id }) => id)).size === steps.length, {
    error: 'Two steps have one name.',
  });

/** Which keys are adjusted, and how. */
export type AdjustRecipe = Readonly<z.infer<typeof adjustRecipeSchema>>;
/** Which keys are adjusted. */
export type KeyRule = AdjustRecipe['keys'];
/** One step of an adjustment. */
export type AdjustStep = AdjustRecipe['steps'][number];
/** What a step does. */
export type AdjustType = AdjustStep['type'];
/** What a step turns about. */
export type Pivot = Extract<AdjustStep, { type: 'stretch' }>['pivot'];

/** All keys three frames later. */
export function createAdjust(pick: Pick): AdjustRecipe {
  const by: Variation = { by: 'fixed', value: '3f' };
  return {
    operation: 'adjust',
    pick,
    order: { by: 'layered' },
    seed: 1,
    keys: { which: 'all' },
    steps: [{ id: 's1', type: 'shift' }],
    parameters: { s1_by: by },
  };
}
