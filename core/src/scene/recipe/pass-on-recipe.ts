import * as z from '../../basics/schema';
import { idSchema } from '../../basics/ids';
import type { Pick } from '../layer';
import { recipeBase, timeText } from './parts';

/** What of one layer others can be given. */
export const PASSED = ['motion', 'place', 'timing', 'look', 'data'] as const;
/** Something of a layer that others can be given. */
export type Passed = (typeof PASSED)[number];

const px = z.number().min(-1e6).max(1e6);

/** Motion, place, timing, look or data of one layer on many others. */
export const passOnRecipeSchema = z.strictObject({
  operation: z.literal('pass-on'),
  ...recipeBase,
  /** The layer that is copied; linked, the others change whenever it does. */
  from: z.strictObject({ layer: idSchema, isLinked: z.literal(true).optional() }),
  what: z.array(z.enum(PASSED)).min(1, 'Choose at least one thing to pass on.').max(PASSED.length),
  /** Values of keys as far from where each rests as they are on the layer that is copied, or just as they are. */
  values: z.enum(['about-rest', 'as-is']),
  /** How much later each is than the one before it, the first one than the layer that is copied. */
  later: timeText,
  /** How far each rests from the one before it, px of the scene, where places are passed on. */
  apart: z.strictObject({ x: px, y: px }),
});

/** Motion, place, timing, look or data of one layer on many others. */
export type PassOnRecipe = Readonly<z.infer<typeof passOnRecipeSchema>>;

/** The motion of a layer for others, about where each of them rests. */
export function createPassOn(pick: Pick, layer: string): PassOnRecipe {
  return {
    operation: 'pass-on',
    pick,
    order: { by: 'layered' },
    seed: 1,
    from: { layer },
    what: ['motion'],
    values: 'about-rest',
    later: '0f',
    apart: { x: 0, y: 0 },
  };
}
