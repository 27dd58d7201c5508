import * as z from '../../basics/schema';
import { cssColourSchema } from '../../basics/colour';
import { easingSchema, easingText } from '../../basics/easing';
import { idSchema } from '../../basics/ids';
import type { ParameterKind } from '../../formulas/preset';
import { parseTimeEntry } from '../../basics/time';

const ANY_RATE = { num: 25, den: 1 };

/** A duration as a literal: 14f, 0.5s, 250ms. */
const durationSchema = z
  .string()
  .max(40)
  .refine((text) => /^\d+(\.\d+)?(f|s|ms)$/.test(text) && parseTimeEntry(text, ANY_RATE).ok, {
    error: 'This is not a duration. Write one such as 14f, 0.5s or 250ms.',
  });

const colourSchema = cssColourSchema(z.string().max(120));

const shared = {
  /** The house value of the same type that this one follows; `value` then is what that was last. */
  as: idSchema.optional(),
  /** What other programs wrote beside the value; kept as it is. */
  extensions: z.record(z.string().max(200), z.unknown()).optional(),
};

/** A named duration, number, curve or colour that presets refer to. */
export const houseSchema = z.discriminatedUnion('type', [
  z.strictObject({ type: z.literal('duration'), value: durationSchema, ...shared }),
  z.strictObject({ type: z.literal('number'), value: z.number().min(-1e9).max(1e9), ...shared }),
  z.strictObject({ type: z.literal('curve'), value: easingSchema, ...shared }),
  z.strictObject({ type: z.literal('colour'), value: colourSchema, ...shared }),
]);

/** A named duration, number, curve or colour. */
export type HouseValue = Readonly<z.infer<typeof houseSchema>>;
/** What a house value is. */
export type HouseType = HouseValue['type'];
/** What house values can be. */
export const HOUSE_TYPES: readonly HouseType[] = ['duration', 'number', 'curve', 'colour'];

/** A named easing. */
export const curveSchema = z.strictObject({ easing: easingSchema });
/** The body of a curve item: its easing. */
export type NamedCurve = Readonly<z.infer<typeof curveSchema>>;

/** A house value as the text that a parameter's default would have: "14f", "0.12", "#f3c98b", "cubic-bezier(…)". */
export function houseText(value: HouseValue): string {
  switch (value.type) {
    case 'duration':
    case 'colour':
      return value.value;
    case 'number':
      return String(value.value);
    case 'curve':
      return easingText(value.value) ?? 'linear';
  }
}

/** The type of house value that a parameter of a kind may be tied to; null where there is none. */
export function houseTypeFor(kind: ParameterKind): HouseType | null {
  switch (kind) {
    case 'time':
      return 'duration';
    case 'number':
    case 'percent':
      return 'number';
    case 'colour':
      return 'colour';
    case 'curve':
      return 'curve';
    default:
      return null;
  }
}
