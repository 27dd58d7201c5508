import * as z from '../../basics/schema';
import { channelIdSchema } from '../../basics/channel';
import type { Pick } from '../layer';
import { recipeBase } from './parts';

/** Operations that write keys anew within a tolerance. */
export const KEYS_OPERATIONS = ['turn-into-keys', 'thin-out'] as const;

/** Turns what rigs give into keys, or thins out keys that stand. */
export const keysRecipeSchema = z.strictObject({
  operation: z.enum(KEYS_OPERATIONS),
  ...recipeBase,
  /** All channels that are driven, or that have keys, where this is left out. */
  channels: z.array(channelIdSchema).min(1).max(64).optional(),
  /** How far off the keys may be: px, degrees, per cent. */
  within: z.number().gt(0).max(10_000),
  /** Keys stand on whole frames, or wherever fewer do. */
  grid: z.enum(['frames', 'exact']),
});

/** What is to become keys, and how closely. */
export type KeysRecipe = Readonly<z.infer<typeof keysRecipeSchema>>;

/** Everything, within half a pixel, on whole frames. */
export function createKeysRecipe(operation: KeysRecipe['operation'], pick: Pick): KeysRecipe {
  return { operation, pick, order: { by: 'layered' }, seed: 1, within: 0.5, grid: 'frames' };
}
