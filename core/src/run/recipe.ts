import * as z from 'zod';
import { idSchema, LAYER_KINDS } from '../scene';
import { parameterNameSchema } from '../preset';
import { parseTimeEntry } from '../time';

const ANY_RATE = { num: 30, den: 1 };

/** A time as people type it: 8f, 0.5s, 1:15. What it comes to depends on the scene's rate. */
const timeText = z
  .string()
  .max(40)
  .refine((text) => /[:;]/.test(text) || parseTimeEntry(text, ANY_RATE).ok, {
    error: 'This is not a time. Write one such as 8f, 0.5s, 250ms or 1:15.',
  });

/** A parameter's value: a literal such as 6deg, or a formula of place, count, share, layer.* and frame.*. */
const valueText = z.string().min(1).max(500);

const seedSchema = z
  .int()
  .min(0)
  .max(2 ** 31);

const pickSchema = z.discriminatedUnion('by', [
  z.strictObject({ by: z.literal('layers'), layers: z.array(idSchema).max(20_000) }),
  /** Every condition that is given must hold. `name` may contain * and ?. */
  z.strictObject({
    by: z.literal('rule'),
    tag: z.string().max(60).optional(),
    name: z.string().max(200).optional(),
    kind: z.enum(LAYER_KINDS).optional(),
  }),
]);

const reversed = { reversed: z.boolean().optional() };

const orderSchema = z.discriminatedUnion('by', [
  z.strictObject({ by: z.literal('layered'), ...reversed }),
  z.strictObject({ by: z.literal('name'), ...reversed }),
  z.strictObject({ by: z.literal('across'), ...reversed }),
  z.strictObject({ by: z.literal('down'), ...reversed }),
  /** By distance from a point given in shares of the frame; reversed: in to it. */
  z.strictObject({
    by: z.literal('out-from'),
    x: z.number().min(-10).max(10),
    y: z.number().min(-10).max(10),
    ...reversed,
  }),
  z.strictObject({ by: z.literal('shuffled'), seed: seedSchema, ...reversed }),
]);

const startSchema = z.discriminatedUnion('by', [
  /** Entrances from each layer's in point, exits to its out point. */
  z.strictObject({ by: z.literal('layer') }),
  z.strictObject({ by: z.literal('time'), at: timeText }),
]);

const spacingSchema = z.discriminatedUnion('by', [
  z.strictObject({ by: z.literal('gap'), gap: timeText }),
  /** The starts spread evenly over this time, from the first to the last. */
  z.strictObject({ by: z.literal('total'), total: timeText }),
]);

const lengthSchema = z.discriminatedUnion('by', [
  z.strictObject({ by: z.literal('preset') }),
  z.strictObject({ by: z.literal('fixed'), length: timeText }),
  z.strictObject({ by: z.literal('factor'), factor: z.number().gt(0).max(1000) }),
]);

const variationSchema = z.discriminatedUnion('by', [
  z.strictObject({ by: z.literal('fixed'), value: valueText }),
  z.strictObject({ by: z.literal('cycle'), values: z.array(valueText).min(1).max(100) }),
  z.strictObject({ by: z.literal('ramp'), from: valueText, to: valueText }),
  z.strictObject({ by: z.literal('random'), from: valueText, to: valueText, seed: seedSchema }),
]);

/** Operations that put a preset on layers. */
export const PRESET_OPERATIONS = ['bring-in', 'send-out', 'accent', 'carry-through'] as const;

/** What to do over keys that are already there. */
export const OVER_EXISTING = ['replace', 'replace-channels', 'add', 'leave'] as const;

/** Who × what × in which order × how spaced × how long × over existing keys how. Plain data. */
export const recipeSchema = z
  .strictObject({
    operation: z.enum(PRESET_OPERATIONS),
    /** The newest published revision is used; the run's record keeps which one that was. */
    preset: z.strictObject({ id: idSchema }),
    pick: pickSchema,
    order: orderSchema,
    start: startSchema,
    spacing: spacingSchema,
    /** Whether whole layers move to their starts, or only the new keys. */
    moves: z.enum(['keys', 'layers']),
    length: lengthSchema,
    parameters: z.record(parameterNameSchema, variationSchema),
    existing: z.enum(OVER_EXISTING),
    seed: seedSchema,
  })
  .describe('A recipe: one batch application of a preset to layers.');

export type Recipe = Readonly<z.infer<typeof recipeSchema>>;
export type PresetOperation = Recipe['operation'];
export type Pick = Recipe['pick'];
export type Order = Recipe['order'];
export type Start = Recipe['start'];
export type Spacing = Recipe['spacing'];
export type Length = Recipe['length'];
export type Variation = Recipe['parameters'][string];
export type OverExisting = Recipe['existing'];

/** A recipe at its plainest: as layered, all at once, each layer from its own in or out point, as the preset is made. */
export function createRecipe(operation: PresetOperation, preset: string, pick: Pick): Recipe {
  return {
    operation,
    preset: { id: preset },
    pick,
    order: { by: 'layered' },
    start: { by: 'layer' },
    spacing: { by: 'gap', gap: '0f' },
    moves: 'keys',
    length: { by: 'preset' },
    parameters: {},
    existing: 'replace',
    seed: 1,
  };
}
