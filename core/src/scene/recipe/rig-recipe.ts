import * as z from '../../basics/schema';
import { channelIdSchema } from '../../basics/channel';
import { countSchema, idSchema } from '../../basics/ids';
import { parameterNameSchema } from '../../formulas/preset';
import { trackSchema, type Pick } from '../layer';
import { recipeBase, timeText, valueText } from './parts';
import { variationSchema } from './preset-recipe';

/** A dial of a run: as a parameter varies, or keyed, in base units (px, seconds, degrees; 100 % is 1). */
const dialSchema = z.union([variationSchema, z.strictObject({ by: z.literal('keys'), keys: trackSchema })]);

/** Dials of one layer that broke away from the others. */
export const ownSchema = z.strictObject({ parameters: z.record(parameterNameSchema, valueText).optional() });

/** Rigs layers: formulas drive their channels from then on. Dials stand where parameters of presets do. */
export const rigRecipeSchema = z.strictObject({
  operation: z.literal('rig'),
  rig: z.strictObject({
    id: idSchema,
    /** A revision to keep to; without it the newest published one is used. */
    revision: countSchema.optional(),
  }),
  ...recipeBase,
  /** Channels that are driven of those that the rig has formulas for; all of them where this is left out. */
  channels: z.array(channelIdSchema).min(1).max(64).optional(),
  /** Which layer each role is. */
  roles: z.record(parameterNameSchema, idSchema).optional(),
  /** By how much each one is later than the one before it in the order. */
  later: timeText,
  parameters: z.record(parameterNameSchema, dialSchema),
  overrides: z.record(idSchema, ownSchema).optional(),
});

/** A rig on layers. */
export type RigRecipe = Readonly<z.infer<typeof rigRecipeSchema>>;
/** How a dial of a run is set. */
export type DialSetting = RigRecipe['parameters'][string];

/** A rig at its plainest: all its channels, all at once, its dials as they are made. */
export function createRigRecipe(rig: string, pick: Pick): RigRecipe {
  return { operation: 'rig', rig: { id: rig }, pick, order: { by: 'layered' }, seed: 1, later: '0f', parameters: {} };
}
