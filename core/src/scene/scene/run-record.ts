import * as z from 'zod';
import { countSchema, idSchema, whenSchema } from '../../basics/ids';
import { recipeSchema } from '../recipe';
import { madeProblem, madeSchema } from './made';
import { layerPatchSchema } from './patch';

/** The preset of a run as it was used, so that the run can be planned again whatever became of the library. */
const usedPresetSchema = z.strictObject({
  id: idSchema,
  revision: countSchema,
  name: z.string().max(200),
  body: z.record(z.string(), z.unknown()),
});

/** A house value or curve that the preset took from the library, as it was then; records of old may lack what it was. */
const usedItemSchema = z.strictObject({
  id: idSchema,
  revision: countSchema,
  kind: z.enum(['curve', 'house']).optional(),
  body: z.record(z.string(), z.unknown()).optional(),
});

/**
 * An applied run, holding what is its own: its recipe, what it used of the library, what it made on each of its layers,
 * and what was changed by hand over that. What stood before is in the base of the layers.
 */
export const runSchema = z
  .strictObject({
    id: idSchema,
    sentence: z.string().max(2_000),
    recipe: recipeSchema,
    /** Absent for operations without a preset. */
    preset: usedPresetSchema.optional(),
    uses: z.array(usedItemSchema).max(10_000).optional(),
    by: z.string().max(100),
    when: whenSchema,
    /** Its layers in the order in which the columns list them. */
    layers: z.array(idSchema).max(20_000),
    /** A run that is switched off stays listed and keeps what it would do, but does nothing. */
    off: z.literal(true).optional(),
    made: madeSchema,
    patches: z.array(layerPatchSchema).max(20_000).optional(),
  })
  .superRefine(({ made, layers }, context) => {
    const message = madeProblem(made, layers.length);
    if (message) context.addIssue({ code: 'custom', path: ['made'], message });
  });

/** An applied run. */
export type RunRecord = Readonly<z.infer<typeof runSchema>>;
/** A house value or curve as a run used it. */
export type KeptItem = NonNullable<RunRecord['uses']>[number];
