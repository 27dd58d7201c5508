import * as z from '../../basics/schema';
import { easingSchema } from '../../basics/easing';
import { idSchema } from '../../basics/ids';
import { pickSchema } from '../layer';
import { describeEntryProblem, parseTimeEntry } from '../../basics/time';

const ANY_RATE = { num: 30, den: 1 };

/** A time as people type it: 8f, 0.5s, 1:15. What it comes to depends on the scene's rate. */
export const timeText = z
  .string()
  .max(40)
  .superRefine((text, context) => {
    const read = /[:;]/.test(text) ? null : parseTimeEntry(text, ANY_RATE);
    if (read?.ok === false) context.addIssue(describeEntryProblem(read.problem, ANY_RATE));
  });

/** A parameter's value: a literal such as 6deg, or a formula of place, count, share, layer.* and frame.*. */
export const valueText = z.string().min(1).max(500);

/** A seed: what is drawn with the same one comes out the same. */
export const seedSchema = z
  .int()
  .min(0)
  .max(2 ** 31);

const shared = {
  reversed: z.boolean().optional(),
  /** So many neighbours in the order move as one. */
  blocks: z.int().min(2).max(10_000).optional(),
};

const pointShare = z.number().min(-10).max(10);

/** In which order layers take part. */
export const orderSchema = z.discriminatedUnion('by', [
  z.strictObject({ by: z.literal('layered'), ...shared }),
  z.strictObject({ by: z.literal('name'), ...shared }),
  z.strictObject({ by: z.literal('across'), ...shared }),
  z.strictObject({ by: z.literal('down'), ...shared }),
  /** Along a direction; 0° goes to the right, 90° down. */
  z.strictObject({ by: z.literal('angle'), degrees: z.number().min(-3600).max(3600), ...shared }),
  /** By distance from a point given in shares of the frame; reversed: in to it. */
  z.strictObject({ by: z.literal('out-from'), x: pointShare, y: pointShare, ...shared }),
  /** Row after row or column after column; snaking, every other one runs back. */
  z.strictObject({
    by: z.literal('grid'),
    lead: z.enum(['rows', 'columns']),
    snaking: z.boolean().optional(),
    ...shared,
  }),
  z.strictObject({ by: z.literal('in-point'), ...shared }),
  z.strictObject({ by: z.literal('shuffled'), seed: seedSchema, ...shared }),
  /** By a data column: numbers by size, texts by natural sorting; layers without a value come last, together. */
  z.strictObject({ by: z.literal('data'), column: z.string().trim().min(1).max(60), ...shared }),
  /** As listed; layers that are not listed come last, as layered. */
  z.strictObject({ by: z.literal('hand'), layers: z.array(idSchema).max(20_000), ...shared }),
]);
/** In which order layers take part. */
export type Order = Readonly<z.infer<typeof orderSchema>>;

/** How a time of the scene is said: typed, or by the name of a cue. */
export const moments = [
  z.strictObject({ by: z.literal('time'), at: timeText }),
  z.strictObject({ by: z.literal('cue'), cue: z.string().trim().min(1).max(200) }),
] as const;

/** A time of the scene. */
export const momentSchema = z.discriminatedUnion('by', [...moments]);
/** A time of the scene: typed, or a cue’s. */
export type SceneMoment = Readonly<z.infer<typeof momentSchema>>;

/** An easing that spreads things along an order. */
export const spreadSchema = easingSchema.optional();

/** What every recipe has. */
export const recipeBase = { pick: pickSchema, order: orderSchema, seed: seedSchema };
