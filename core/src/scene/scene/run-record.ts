import * as z from '../../basics/schema';
import { countSchema, idSchema, whenSchema } from '../../basics/ids';
import { recipeSchema } from '../recipe';
import { channelIdSchema } from '../../basics/channel';
import { easingSchema } from '../../basics/easing';
import { ticksSchema } from '../../basics/time';
import { trackSchema } from '../layer';
import { columnOf, madeProblem, madeSchema, type Column } from './made';
import { layerPatchSchema } from './patch';

/** The preset of a run as it was used, so that the run can be planned again whatever became of the library. */
const usedPresetSchema = z.strictObject({
  id: idSchema,
  revision: countSchema,
  name: z.string().max(200),
  body: z.record(z.string(), z.unknown()),
});

const numbers = columnOf(z.number().min(-1e12).max(1e12));

/** An input of a rig's formulas: the same for all layers, one for each, or keyed. */
const rigInputSchema = z.union([
  z.strictObject({ name: z.string().min(1).max(100), values: numbers }),
  z.strictObject({ name: z.string().min(1).max(100), keys: trackSchema }),
]);

/** A rig as a run used it, with the dials of its layers and their places in the order. It makes no keys. */
const usedRigSchema = z.strictObject({
  id: idSchema,
  revision: countSchema,
  name: z.string().max(200),
  body: z.record(z.string(), z.unknown()),
  channels: z.array(channelIdSchema).max(64),
  roles: z.record(z.string(), idSchema).optional(),
  /** From one place in the order to the next. */
  later: ticksSchema,
  places: columnOf(z.int().min(0).max(20_000)),
  inputs: z.array(rigInputSchema).max(500),
  /** The curves that inputs of dials of that kind count. */
  curves: z.array(easingSchema).max(1_000).optional(),
});

/** Numbers of an adjustment's steps for the layers of its run, by the names that the recipe has for them. */
const usedAdjustSchema = z.strictObject({
  inputs: z.array(z.strictObject({ name: z.string().min(1).max(100), values: numbers })).max(200),
});

/** A look, palette, house value, curve or preset of copies that the run took from the library, as it was then; records of old may lack what it was. */
const usedItemSchema = z.strictObject({
  id: idSchema,
  revision: countSchema,
  kind: z.enum(['preset', 'curve', 'house', 'look', 'palette']).optional(),
  body: z.record(z.string(), z.unknown()).optional(),
});

/**
 * What a run made on some of its layers before it was planned anew, where the new plan does not lead back to it, and in which
 * surroundings that was: once they are so again, it is what the run makes.
 */
const earlierSchema = z.strictObject({
  layers: z.array(idSchema).max(20_000),
  /** Names of the surroundings, of each layer. */
  under: z.array(z.string().max(100)).max(20_000),
  made: madeSchema,
});

const whole = z
  .strictObject({
    id: idSchema,
    sentence: z.string().max(2_000),
    recipe: recipeSchema,
    /** Absent for operations without a preset. */
    preset: usedPresetSchema.optional(),
    /** Present for a rig only. */
    rig: usedRigSchema.optional(),
    /** Present for an adjustment only. It makes no keys of its own record: it is done again on whatever it meets. */
    adjust: usedAdjustSchema.optional(),
    uses: z.array(usedItemSchema).max(10_000).optional(),
    by: z.string().max(100),
    when: whenSchema,
    /** Its layers in the order in which the columns list them. */
    layers: z.array(idSchema).max(20_000),
    /** A run that is switched off stays listed and keeps what it would do, but does nothing. */
    off: z.literal(true).optional(),
    made: madeSchema,
    patches: z.array(layerPatchSchema).max(20_000).optional(),
    earlier: earlierSchema.optional(),
  })
  .superRefine(({ made, layers, rig, adjust, earlier }, context) => {
    const message =
      madeProblem(made, layers.length) ?? inputsProblem(rig, adjust, layers.length) ?? earlierProblem(earlier);
    if (message) context.addIssue({ code: 'custom', path: ['made'], message });
  });

function earlierProblem(earlier: z.infer<typeof earlierSchema> | undefined): string | null {
  if (!earlier) return null;
  if (earlier.under.length !== earlier.layers.length) return 'What a run made earlier has not one name for each layer.';
  return madeProblem(earlier.made, earlier.layers.length);
}

function inputsProblem(
  rig: z.infer<typeof usedRigSchema> | undefined,
  adjust: z.infer<typeof usedAdjustSchema> | undefined,
  layers: number,
): string | null {
  const inputs = [...(rig?.inputs ?? []), ...(adjust?.inputs ?? [])];
  const columns: Column[] = [
    ...(rig ? [rig.places] : []),
    ...inputs.flatMap((input) => ('values' in input ? [input.values] : [])),
  ];
  return columns.some((column) => Array.isArray(column) && column.length !== layers)
    ? 'A column of a run has not one value for each of its layers.'
    : null;
}

/** A rig as a run used it. */
export type UsedRig = Readonly<z.infer<typeof usedRigSchema>>;
/** What an adjustment used on its layers. */
export type UsedAdjust = Readonly<z.infer<typeof usedAdjustSchema>>;
/** An applied run. */
export interface RunRecord extends Readonly<z.infer<typeof whole>> {}
/**
 * An applied run, holding what is its own: its recipe, what it used of the library, what it made on each of its layers,
 * and what was changed by hand over that. What stood before is in the base of the layers.
 */
export const runSchema: z.ZodType<RunRecord> = whole;

/** A house value or curve as a run used it. */
export type KeptItem = NonNullable<RunRecord['uses']>[number];
