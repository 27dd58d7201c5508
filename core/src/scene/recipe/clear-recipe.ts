import * as z from '../../basics/schema';
import { channelIdSchema } from '../../basics/channel';
import { phaseSchema } from '../../formulas/preset';
import { idSchema } from '../../basics/ids';
import { recipeBase, timeText } from './parts';

/** Takes keys away. Every condition that is given must hold for a key; with none, all keys go. */
export const clearRecipeSchema = z.strictObject({
  operation: z.literal('clear'),
  ...recipeBase,
  channels: z.array(channelIdSchema).min(1).optional(),
  /** Keys made by runs of these phases. */
  phases: z.array(phaseSchema).min(1).optional(),
  /** Keys that this run made. */
  run: idSchema.optional(),
  from: timeText.optional(),
  to: timeText.optional(),
});

/** Which keys are to go. */
export type ClearRecipe = Readonly<z.infer<typeof clearRecipeSchema>>;
