import * as z from '../../basics/schema';
import { easingSchema } from '../../basics/easing';
import { countSchema, idSchema } from '../../basics/ids';

/** Formula text; checked against the preset's names when the preset is compiled. Empty only in a draft. */
export const formulaText = z.string().max(2000);

/** How names in formulas are written. */
export const WORD = /^[a-z][A-Za-z0-9_]{0,39}$/;

/** A parameter’s name as formulas write it, without the @. */
export const parameterNameSchema = z
  .string()
  .regex(WORD, 'A parameter name is letters and digits and begins with a small letter.');

/** A parameter that is yes or no: a switch, or one option of a choice such as `side.left`. */
export const conditionSchema = z
  .string()
  .regex(/^[a-z][A-Za-z0-9_]{0,39}(\.[a-z][A-Za-z0-9_]{0,39})?$/, 'Name a switch, or an option of a choice.');

/**
 * Easing of a preset's cell: one of its own, a library curve or a house value with what it was last, or a parameter of
 * kind curve. Free handles are in the channel's unit; on channels of shares they are shares of the rest value.
 */
export const presetEasingSchema = z.union([
  easingSchema,
  z.strictObject({
    type: z.literal('curve'),
    id: idSchema,
    revision: countSchema,
    is: easingSchema,
    reversed: z.boolean().optional(),
  }),
  z.strictObject({ type: z.literal('parameter'), name: parameterNameSchema, reversed: z.boolean().optional() }),
]);
/** An easing of a preset: plain, a curve of the library, or one that a parameter says. */
export type PresetEasing = Readonly<z.infer<typeof presetEasingSchema>>;
